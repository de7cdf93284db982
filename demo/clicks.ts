import type { ClickRecord, Device, MissRecord, SpoolRecord } from "../src/core/clicks/record.ts";
import { DEMO_MISSES, type DemoRoute } from "./routes.ts";
import { seeded } from "./seeded.ts";

const DAY = 86_400_000;
const DAYS = 60;
// The weekend reads more; the weekday numbers are the measure.
const WEEKLY = [1.45, 0.85, 0.9, 0.95, 1, 1.1, 1.5];
const SPIKE_DAYS_AGO = 23;
const REFERRERS = [
  "",
  "",
  "",
  "forum.starry-neighbours.example",
  "hedge-and-sky.example",
  "letters.low-lantern.example",
];
// Pages of the magazine that links stand on; most clicks come from elsewhere.
const PAGES = [
  "",
  "",
  "",
  "/resources",
  "/reviews/harbour-eight-inch",
  "/instruments/eyepieces-you-will-keep",
];
// People read about the sky in the evening.
const HOURS = [0, 0, 7, 8, 12, 13, 17, 18, 19, 19, 20, 20, 20, 21, 21, 21, 21, 22, 22, 22, 23, 23];
const DEVICES: readonly Device[] = ["phone", "phone", "phone", "desktop", "desktop", "tablet"];

/** Sixty days of clicks and misses up to `now`, the same numbers in every run. */
export function demoRecords(
  routes: readonly { id: string; route: DemoRoute }[],
  siteId: string,
  now: number,
): SpoolRecord[] {
  const next = seeded(20_261_123);
  const records: SpoolRecord[] = [];
  const today = Math.floor(now / DAY) * DAY;
  for (let ago = DAYS - 1; ago >= 0; ago -= 1) {
    const day = today - ago * DAY;
    const weekly = WEEKLY[new Date(day).getUTCDay()]!;
    const spike = ago === SPIKE_DAYS_AGO ? 4.2 : ago === SPIKE_DAYS_AGO - 1 ? 2.1 : 1;
    const growth = 0.75 + (0.5 * (DAYS - ago)) / DAYS;
    // The day that is not over has had its share so far.
    const elapsed = ago === 0 ? (now - day) / DAY : 1;
    for (const { id, route } of routes) {
      const count = Math.round(
        route.popularity *
          weekly *
          growth *
          (route.kind === "short" ? spike : 1) *
          (0.6 + 0.8 * next()) *
          elapsed,
      );
      for (let index = 0; index < count; index += 1)
        records.push(click(id, momentOf(day, elapsed, next), next));
      const others = Math.round(route.popularity * 0.25 * next());
      for (let index = 0; index < others; index += 1)
        records.push({
          ...click(id, day + Math.floor(next() * DAY * elapsed), next),
          class: next() < 0.7 ? "bot" : "prefetch",
        });
    }
  }
  return [...records, ...demoMisses(siteId, now, next)];
}

// An evening's moment; of a day that is not over, one that has been.
function momentOf(day: number, elapsed: number, next: () => number): number {
  const hour = HOURS[Math.floor(next() * HOURS.length)]!;
  const at = day + hour * 3_600_000 + Math.floor(next() * 3_600_000);
  return at < day + DAY * elapsed ? at : day + Math.floor(next() * DAY * elapsed);
}

function click(route: string, at: number, next: () => number): ClickRecord {
  const page = PAGES[Math.floor(next() * PAGES.length)]!;
  return {
    kind: "click",
    at,
    route,
    class: "person",
    device: DEVICES[Math.floor(next() * DEVICES.length)]!,
    visitor: `demo${Math.floor(next() * 4_000)}`,
    referrer: page === "" ? REFERRERS[Math.floor(next() * REFERRERS.length)]! : "lowlantern.localhost",
    page,
  };
}

function demoMisses(siteId: string, now: number, next: () => number): MissRecord[] {
  return DEMO_MISSES.flatMap(([host, key, times, referrer]) =>
    Array.from({ length: times }, (): MissRecord => {
      const scanner = /\.php$|^\/\.|robots/.test(key);
      return {
        kind: "miss",
        at: now - Math.floor(next() * 12 * DAY) - 60_000,
        site: siteId,
        host,
        key,
        class: scanner ? "bot" : "person",
        referrer,
      };
    }),
  );
}
