import { isBadHealth, type HealthVerdict } from "../../core/routes/choices.ts";
import { highestCapture } from "../../core/routes/match/captures.ts";
import type { Trace, TraceVerdict } from "../../core/trace/trace.ts";
import { UNWATCHED, type Progress } from "../../threads/progress.ts";
import { traceAddresses } from "./trace-routes.ts";
import { openSite, type OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithDeliveryPort, WithOutgoing } from "../ground/parts.ts";
import {
  tryHealthLock,
  AT_ONCE,
  type Due,
  destinationsDue,
  destinationsOf,
  putHealth,
} from "../../store/trace/route-health.ts";

const SLOW_MS = 2_500;

/** Looks at the destinations of these routes now, and keeps what they answered. Answers how many answer badly. */
export async function checkHealth(
  desk: WithStore & WithDeliveryPort & WithOutgoing,
  site: OpenSite,
  ids: readonly string[] | undefined,
  progress: Progress = UNWATCHED,
): Promise<{ checked: number; bad: number }> {
  const rows = await destinationsOf(desk.store, { site: site.id, ids });
  let bad = 0;
  for (let at = 0; at < rows.length; at += AT_ONCE) {
    bad += await look(desk, site, rows.slice(at, at + AT_ONCE), progress);
    await progress.step(Math.min(rows.length, at + AT_ONCE), rows.length);
  }
  return { checked: rows.length, bad };
}

/**
 * Looks at the few routes that have waited longest, and answers how many those were. Every destination has its
 * turn once a day, so that a dead one does not stay unnoticed for months. One process at a time does this.
 */
export async function checkNextHealth(
  desk: WithStore & WithDeliveryPort & WithOutgoing,
  signal: AbortSignal,
): Promise<number> {
  return desk.store.transaction(async (transaction) => {
    const [lock] = await tryHealthLock(desk.store, transaction);
    if (!lock!.mine) return 0;
    const due = await destinationsDue(desk.store);
    for (const siteId of new Set(due.map((row) => row.siteId))) {
      const site = await openSite(desk, siteId);
      if (signal.aborted) return 0;
      await look(
        desk,
        site,
        due.filter((row) => row.siteId === siteId),
        { ...UNWATCHED, signal },
      );
    }
    return due.length;
  });
}

async function look(
  desk: WithStore & WithDeliveryPort & WithOutgoing,
  site: OpenSite,
  rows: readonly Due[],
  progress: Progress,
): Promise<number> {
  // A destination with captures leads somewhere only for a reader's address.
  const fixed = rows.filter(({ destination }) => highestCapture(destination) === 0);
  const { results } =
    fixed.length === 0
      ? { results: [] }
      : await traceAddresses(
          desk,
          site,
          { addresses: fixed.map(({ destination }) => destination), outside: true },
          { ...UNWATCHED, signal: progress.signal },
        );
  // What was broken off says nothing of the destinations.
  if (progress.signal.aborted) return 0;
  const judged = [
    ...fixed.map((row, index) => ({ ...row, ...healthOf(results[index]!) })),
    ...rows
      .filter((row) => !fixed.includes(row))
      .map((row) => ({
        ...row,
        verdict: "fine" as const,
        status: null,
        note: "depends on what is asked for",
      })),
  ];
  await putHealth(desk.store, {
    id: judged.map(({ id }) => id),
    destination: judged.map(({ destination }) => destination),
    verdict: judged.map(({ verdict }) => verdict),
    status: judged.map(({ status }) => status),
    note: judged.map(({ note }) => note),
  });
  return judged.filter(({ verdict }) => isBadHealth(verdict)).length;
}

const HEALTH: Readonly<Record<TraceVerdict, HealthVerdict>> = {
  fine: "fine",
  chain: "chain",
  "lost-tracking": "failing",
  loop: "loop",
  "too-long": "loop",
  "not-found": "dead",
  gone: "dead",
  failing: "failing",
  unreachable: "unreachable",
  "not-asked": "fine",
  refused: "dead",
};

function healthOf(trace: Trace): { verdict: HealthVerdict; status: number | null; note: string } {
  const last = trace.hops.at(-1);
  const slow = trace.hops.some(({ ms }) => (ms ?? 0) > SLOW_MS);
  const status = last?.status ?? null;
  const verdict = trace.verdict === "fine" && slow ? "slow" : HEALTH[trace.verdict];
  const said: Readonly<Record<HealthVerdict, string>> = {
    fine: "answers",
    slow: `answers slowly: ${((Math.max(...trace.hops.map(({ ms }) => ms ?? 0)) || 0) / 1000).toFixed(1)} s`,
    chain: "goes through another of our routes",
    loop: "never arrives: it goes round in a circle",
    dead: `ends at ${status === 410 ? "“gone” (410)" : status === 200 ? "a page that says that it was not found" : "“not found”"}`,
    failing:
      trace.verdict === "lost-tracking"
        ? `does not get the parameter ${trace.tracking
            .filter(({ arrived }) => !arrived)
            .map(({ name }) => `“${name}”`)
            .join(", ")}: it is lost on the way`
        : `answers with an error (${status ?? "none"})`,
    unreachable: last?.note ?? "cannot be reached",
  };
  return { verdict, status, note: said[verdict] };
}
