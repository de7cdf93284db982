import type { EdgeCounts } from "../../core/routes/edge/edge-table.ts";
import type { Store } from "../ground/store.ts";

/** What an edge is known to do. */
export interface EdgeRow {
  name: string;
  /** When its configuration was last written, and which change of the store it holds. */
  writtenAt: Date | null;
  change: string | null;
  /** By site. */
  counts: Record<string, EdgeCounts>;
  /** Why its last configuration was not taken; empty where it was. */
  fault: string;
  /** When whoever writes it was last heard of. */
  seenAt: Date | null;
  /** When its clicks were last collected, how many in all, and how many lines nobody could read. */
  collectedAt: Date | null;
  collected: string;
  unreadable: string;
  waitingBytes: string;
  collectFault: string;
  /** How far its clock is ahead of the database's, in milliseconds. */
  clockMs: number;
}

/** The edges, by name. */
export function edgeRows(store: Store): Promise<EdgeRow[]> {
  return store.rows<EdgeRow>(
    `SELECT name, written_at AS "writtenAt", change_seq::text AS change, counts, fault, seen_at AS "seenAt", collected_at AS "collectedAt", collected::text,
       unreadable::text, waiting_bytes::text AS "waitingBytes", collect_fault AS "collectFault", clock_ms AS "clockMs" FROM edges ORDER BY name`,
  );
}

/** Notes that whoever writes an edge's configuration is there, and what it has written. */
export async function noteEdge(
  store: Store,
  of: {
    name: string;
    /** Absent: nothing was written since it was last noted. */
    written?: { change: string; counts: Readonly<Record<string, EdgeCounts>> };
    fault: string;
    now: number;
  },
): Promise<void> {
  const { name, written, fault, now } = of;
  await store.rows(
    `INSERT INTO edges AS e (name, written_at, change_seq, counts, fault, seen_at, clock_ms)
       VALUES ($name, CASE WHEN $isWritten THEN now() END, $change::bigint, coalesce($counts::jsonb, '{}'), $fault, now(),
         least(2147483647, greatest(-2147483648, $now::bigint - (extract(epoch FROM now()) * 1000)::bigint))::int)
     ON CONFLICT (name) DO UPDATE SET written_at = coalesce(excluded.written_at, e.written_at), change_seq = coalesce(excluded.change_seq, e.change_seq),
       counts = CASE WHEN $isWritten THEN excluded.counts ELSE e.counts END, fault = excluded.fault, seen_at = now(), clock_ms = excluded.clock_ms
     RETURNING name`,
    {
      name,
      fault,
      now: String(now),
      isWritten: written !== undefined,
      change: written?.change ?? null,
      counts: written ? JSON.stringify(written.counts) : null,
    },
  );
}

/** Notes what was collected of an edge, in all. */
export async function noteCollected(
  store: Store,
  of: {
    name: string;
    collected: number;
    unreadable: number;
    waitingBytes: number;
    fault: string;
    now: number;
  },
): Promise<void> {
  await store.rows(
    `INSERT INTO edges AS e (name, collected_at, collected, unreadable, waiting_bytes, collect_fault, clock_ms)
       VALUES ($name, now(), $collected::bigint, $unreadable::bigint, $waitingBytes::bigint, $fault,
         least(2147483647, greatest(-2147483648, $now::bigint - (extract(epoch FROM now()) * 1000)::bigint))::int)
     ON CONFLICT (name) DO UPDATE SET collected_at = now(), collected = excluded.collected, unreadable = excluded.unreadable,
       waiting_bytes = excluded.waiting_bytes, collect_fault = excluded.collect_fault, clock_ms = excluded.clock_ms RETURNING name`,
    { ...of, now: String(of.now) },
  );
}

/** Forgets an edge; false when there is none of that name. */
export async function forgetEdge(store: Store, of: { name: string }): Promise<boolean> {
  const rows = await store.rows(
    "WITH gone AS (DELETE FROM edges WHERE name = $name RETURNING name) SELECT name FROM gone",
    of,
  );
  return rows.length > 0;
}

/** The hosts of each site, as referrers are known by them. */
export async function hostsBySite(store: Store): Promise<Map<string, string[]>> {
  const rows = await store.rows<{ site: string; hosts: string[] }>(
    "SELECT site_id::text AS site, array_agg(name ORDER BY id) AS hosts FROM hosts GROUP BY site_id",
  );
  return new Map(rows.map(({ site, hosts }) => [site, hosts]));
}
