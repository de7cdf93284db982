import { spawnSync } from "node:child_process";
import { appendFileSync, cpSync, mkdtempSync, mkdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { startPostgres } from "../scripts/postgres.mjs";
import { seeded } from "../demo/seeded.ts";
import { writeSpoolLine } from "../src/core/clicks/spool-line.ts";
import type { ClickRecord } from "../src/core/clicks/record.ts";
import { createSpoolCopier } from "../src/delivery/clicks/spool-copier.ts";
import { countClicks } from "../src/store/clicks/click-counts.ts";
import { ensureMonths } from "../src/store/clicks/click-months.ts";
import { settleDay, unsettledDays } from "../src/store/clicks/click-settling.ts";
import { ensureDatabase } from "../src/store/ground/ensure-database.ts";
import { migrate } from "../src/store/ground/migrate.ts";
import { openStore, type Store } from "../src/store/ground/store.ts";

const CLICKS = 1_000_000;
const ROUTES = 2_000;
const VIEWED = 10_000_000;
const DAY = 86_400_000;

/** Clicks from spool to PostgreSQL, roll-ups included, against COPY of the same rows by psql; then views over ten million. */
export async function clicks(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), "maprope-bench-"));
  const postgres = await startPostgres(folder);
  try {
    await ensureDatabase(postgres.url("postgres"), "bench");
    const store = openStore(postgres.url("bench"));
    await migrate(store);
    await siteWithRoutes(store);
    const now = Date.now();
    if (process.argv[3] !== "views") await throughput(folder, postgres.url("bench"), store, now);
    if (process.argv[3] !== "copy") await views(folder, store, now);
    await store.close();
  } finally {
    postgres.stop("immediate");
    rmSync(folder, { recursive: true, force: true });
    postgres.discard();
  }
}

async function throughput(folder: string, url: string, store: Store, now: number): Promise<void> {
  const from = now - 2 * DAY;
  await ensureMonths(store, [from, now]);
  const made = writeClicks(folder, from);
  // In turns, so that neither has the cold or the warm machine for itself.
  const rounds = [1, 2, 3].map(() => ({ copy: 0, ours: 0 }));
  for (const round of rounds) {
    round.copy = byPsql(made.rows, url);
    await store.sequelize.query("TRUNCATE clicks");
    round.ours = await bySpool(folder, made.spool, store);
    await store.sequelize.query(
      "TRUNCATE clicks, click_counts, route_clicks, unsettled_days, spool_progress",
    );
  }
  const median = (values: number[]): number => values.sort((a, b) => a - b)[1]!;
  const copy = median(rounds.map((round) => CLICKS / round.copy));
  const ours = median(rounds.map((round) => CLICKS / round.ours));
  console.table([
    { what: "COPY of the same rows by psql", "clicks/s": Math.round(copy) },
    { what: "spool to PostgreSQL, with roll-ups", "clicks/s": Math.round(ours) },
  ]);
  console.log(
    `${Math.round(ours).toLocaleString("en")} clicks a second (target: at least 20,000), ${(ours / copy).toFixed(2)} of COPY (target: at least 0.50); medians of three rounds of ${CLICKS.toLocaleString("en")}`,
  );
}

async function siteWithRoutes(store: Store): Promise<void> {
  await store.rows("INSERT INTO sites (key, name) VALUES ('bench', 'Bench')");
  await store.rows(
    `INSERT INTO routes (site_id, kind, address, destination, status)
     SELECT 1, 'short', '/r' || n, 'https://shop.example/' || n, 302 FROM generate_series(1, $last::int) AS n`,
    { last: ROUTES },
  );
}

// A few routes have most of the clicks, as they do; visitors, referrers and devices as of a small magazine.
function made(count: number, from: number, span: number): ClickRecord[] {
  const next = seeded(7);
  const referrers = ["", "", "", "forum.example", "letters.example", "search.example", "own.example"];
  const pages = ["", "", "", "/resources", "/reviews/one"];
  return Array.from({ length: count }, (_, index) => ({
    kind: "click",
    at: from + Math.floor((index / count) * span),
    route: String(1 + Math.floor(ROUTES * next() ** 3)),
    class: next() < 0.9 ? "person" : "bot",
    device: next() < 0.6 ? "phone" : "desktop",
    visitor: `v${Math.floor(next() * 300_000)}-0123456789abcd`.slice(0, 22),
    referrer: referrers[Math.floor(next() * referrers.length)]!,
    page: pages[Math.floor(next() * pages.length)]!,
  }));
}

// The clicks as rows for psql and as ten spool segments. Only files are left of them: a million records in memory
// would be walked by the garbage collector all through the measurement.
function writeClicks(folder: string, from: number): { rows: string; spool: string } {
  const rows = join(folder, "rows.tsv");
  const spool = join(folder, "spool-made");
  mkdirSync(spool);
  const perSegment = CLICKS / 10;
  for (let part = 0; part < 10; part += 1) {
    const records = made(perSegment, from + part * (DAY / 5), DAY / 5);
    const row = (one: ClickRecord): string =>
      [
        new Date(one.at).toISOString(),
        one.route,
        one.class,
        one.device,
        one.visitor,
        one.referrer,
        one.page,
      ].join("\t");
    appendFileSync(rows, records.map((one) => `${row(one)}\n`).join(""));
    writeFileSync(join(spool, `${part}-segment.sealed`), records.map(writeSpoolLine).join(""));
  }
  return { rows, spool };
}

function byPsql(file: string, url: string): number {
  const began = performance.now();
  const { status, stderr } = spawnSync("psql", [url, "-qc", `\\copy clicks FROM '${file}'`], {
    encoding: "utf8",
  });
  if (status !== 0) throw new Error(stderr);
  return (performance.now() - began) / 1000;
}

async function bySpool(folder: string, made: string, store: Store): Promise<number> {
  const spool = join(folder, "spool");
  cpSync(made, spool, { recursive: true });
  const began = performance.now();
  const copied = await createSpoolCopier(store, spool).copy();
  if (copied !== CLICKS) throw new Error(`${copied} were copied`);
  return (performance.now() - began) / 1000;
}

async function views(folder: string, store: Store, now: number): Promise<void> {
  const days = 60;
  const spool = join(folder, "spool-views");
  mkdirSync(spool);
  const perDay = Math.floor(VIEWED / days);
  for (let ago = days - 1; ago >= 0; ago -= 1) {
    const lines = made(perDay, Math.floor(now / DAY) * DAY - ago * DAY, DAY - 1)
      .map(writeSpoolLine)
      .join("");
    writeFileSync(join(spool, `${String(days - ago).padStart(3, "0")}-segment.sealed`), lines);
    await createSpoolCopier(store, spool).copy();
  }
  const waiting = (await unsettledDays(store)).slice(-3);
  const settling = performance.now();
  for (const one of waiting) await settleDay(store, one);
  const settled = (performance.now() - settling) / 1000 / waiting.length;
  await store.sequelize.query("ANALYZE click_counts");
  const span = { siteId: "1", from: day(now - 59 * DAY), to: day(now) };
  const timed: Record<string, string>[] = [];
  for (const [what, ask] of [
    ["by day", () => countClicks(store, span, "day")],
    ["by route", () => countClicks(store, span, "route")],
    ["by referrer", () => countClicks(store, span, "referrer")],
    ["by hour", () => countClicks(store, span, "hour")],
    ["one route by day", () => countClicks(store, { ...span, route: "1" }, "day")],
  ] as const) {
    const times: number[] = [];
    for (let n = 0; n < 5; n += 1) {
      const began = performance.now();
      await ask();
      times.push(performance.now() - began);
    }
    timed.push({ view: what, ms: times.sort((a, b) => a - b)[2]!.toFixed(0) });
  }
  console.log(
    `Views over ${(perDay * days).toLocaleString("en")} clicks of ${days} days and ${ROUTES} routes (medians of five):`,
  );
  console.table(timed);
  console.log(`Settling a day of ${perDay.toLocaleString("en")} clicks: ${settled.toFixed(1)} s`);
}

function day(at: number): string {
  return new Date(at).toISOString().slice(0, 10);
}
