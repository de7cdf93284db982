import { isBadHealth, type HealthVerdict } from "../../core/routes/route.ts";
import { highestCapture } from "../../core/routes/match/captures.ts";
import type { Trace, TraceVerdict } from "../../core/trace/trace.ts";
import { UNWATCHED, type Progress } from "../jobs/jobs.ts";
import { traceAddresses } from "./trace-routes.ts";
import { openSite, type OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithDeliveryPort, WithOutgoing } from "../ground/parts.ts";

const SLOW_MS = 2_500;
const AT_ONCE = 24;
const AGAIN_AFTER = "1 day";
const HEALTH_LOCK = 731_604;

interface Due {
  id: string;
  siteId: string;
  destination: string;
}

/** Looks at the destinations of these routes now, and keeps what they answered. Answers how many answer badly. */
export async function checkHealth(
  desk: WithStore & WithDeliveryPort & WithOutgoing,
  site: OpenSite,
  ids: readonly string[] | undefined,
  progress: Progress = UNWATCHED,
): Promise<{ checked: number; bad: number }> {
  const rows = await desk.store.rows<Due>(
    `SELECT id::text, site_id::text AS "siteId", destination FROM routes
     WHERE site_id = $site::bigint AND deleted_at IS NULL AND enabled AND destination IS NOT NULL ${ids ? "AND id = ANY($ids::bigint[])" : ""} ORDER BY id`,
    { site: site.id, ...(ids ? { ids } : {}) },
  );
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
    const [lock] = await desk.store.rows<{ mine: boolean }>(
      "SELECT pg_try_advisory_xact_lock($lock) AS mine",
      { lock: HEALTH_LOCK },
      transaction,
    );
    if (!lock!.mine) return 0;
    const due = await desk.store.rows<Due>(
      `SELECT r.id::text, r.site_id::text AS "siteId", r.destination FROM routes r LEFT JOIN route_health h ON h.route_id = r.id
       WHERE r.deleted_at IS NULL AND r.enabled AND r.destination IS NOT NULL
         AND (h.route_id IS NULL OR h.destination <> r.destination OR h.checked_at < now() - interval '${AGAIN_AFTER}')
       ORDER BY h.checked_at NULLS FIRST, r.id LIMIT ${AT_ONCE}`,
    );
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
  await desk.store.rows(
    `INSERT INTO route_health (route_id, destination, verdict, status, note, checked_at)
     SELECT b.id, b.destination, b.verdict, b.status, b.note, now()
     FROM unnest($id::bigint[], $destination::text[], $verdict::text[], $status::int[], $note::text[]) AS b (id, destination, verdict, status, note)
     ON CONFLICT (route_id) DO UPDATE SET destination = excluded.destination, verdict = excluded.verdict, status = excluded.status,
       note = excluded.note, checked_at = excluded.checked_at`,
    {
      id: judged.map(({ id }) => id),
      destination: judged.map(({ destination }) => destination),
      verdict: judged.map(({ verdict }) => verdict),
      status: judged.map(({ status }) => status),
      note: judged.map(({ note }) => note),
    },
  );
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
        ? `loses ${trace.tracking
            .filter(({ arrived }) => !arrived)
            .map(({ name }) => name)
            .join(", ")} on the way`
        : `answers with an error (${status ?? "none"})`,
    unreachable: last?.note ?? "cannot be reached",
  };
  return { verdict, status, note: said[verdict] };
}
