import { LOCKS } from "../ground/locks.ts";
import { badHealth } from "./bad-health.ts";
import type { Store } from "../ground/store.ts";
import type { HealthVerdict } from "../../core/routes/choices.ts";
import type { Transaction } from "sequelize";

/** What was found of a destination that readers do not arrive at. */
export function badHealthNotes(store: Store, of: { destination: string }): Promise<{ note: string }[]> {
  return store.rows<{ note: string }>(
    `SELECT note FROM route_health WHERE destination = $destination AND ${badHealth("verdict")} LIMIT 1`,
    of,
  );
}

/** What was found of these routes' destinations, where it is still theirs. */
export function healthOfRoutes(
  store: Store,
  of: { ids: readonly string[] },
): Promise<
  {
    id: string;
    verdict: HealthVerdict;
    status: number | null;
    note: string;
    checkedAt: Date;
  }[]
> {
  return store.rows<{
    id: string;
    verdict: HealthVerdict;
    status: number | null;
    note: string;
    checkedAt: Date;
  }>(
    `SELECT h.route_id::text AS id, h.verdict, h.status, h.note, h.checked_at AS "checkedAt" FROM route_health h
     JOIN routes r ON r.id = h.route_id AND r.destination = h.destination WHERE h.route_id = ANY($ids::bigint[])`,
    of,
  );
}

/** Whether it is this process's turn to look at destinations, until the transaction ends; one row. */
export function tryHealthLock(store: Store, transaction: Transaction): Promise<{ mine: boolean }[]> {
  return store.rows<{ mine: boolean }>(
    "SELECT pg_try_advisory_xact_lock($lock) AS mine",
    { lock: LOCKS.health },
    transaction,
  );
}
const AGAIN_AFTER = "1 day";
export const AT_ONCE = 24;
export interface Due {
  id: string;
  siteId: string;
  destination: string;
}

/** The destinations that have waited longest to be looked at. */
export function destinationsDue(store: Store): Promise<Due[]> {
  return store.rows<Due>(`SELECT r.id::text, r.site_id::text AS "siteId", r.destination FROM routes r LEFT JOIN route_health h ON h.route_id = r.id
       WHERE r.deleted_at IS NULL AND r.enabled AND r.destination IS NOT NULL
         AND (h.route_id IS NULL OR h.destination <> r.destination OR h.checked_at < now() - interval '${AGAIN_AFTER}')
       ORDER BY h.checked_at NULLS FIRST, r.id LIMIT ${AT_ONCE}`);
}

/** Keeps what was found of destinations. */
export function putHealth(
  store: Store,
  of: {
    id: readonly string[];
    destination: readonly string[];
    verdict: readonly string[];
    status: readonly (null | number)[];
    note: readonly string[];
  },
): Promise<object[]> {
  return store.rows(
    `INSERT INTO route_health (route_id, destination, verdict, status, note, checked_at)
     SELECT b.id, b.destination, b.verdict, b.status, b.note, now()
     FROM unnest($id::bigint[], $destination::text[], $verdict::text[], $status::int[], $note::text[]) AS b (id, destination, verdict, status, note)
     ON CONFLICT (route_id) DO UPDATE SET destination = excluded.destination, verdict = excluded.verdict, status = excluded.status,
       note = excluded.note, checked_at = excluded.checked_at`,
    of,
  );
}

/** The destinations of a site's switched-on routes, or of those with these ids. */
export function destinationsOf(
  store: Store,
  { site, ids }: { site: string; ids: readonly string[] | undefined },
): Promise<Due[]> {
  return store.rows<Due>(
    `SELECT id::text, site_id::text AS "siteId", destination FROM routes
     WHERE site_id = $site::bigint AND deleted_at IS NULL AND enabled AND destination IS NOT NULL ${ids ? "AND id = ANY($ids::bigint[])" : ""} ORDER BY id`,
    { site, ...(ids ? { ids } : {}) },
  );
}
