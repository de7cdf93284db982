import { limitOf } from "../ground/portions.ts";
import { rowIdOf } from "../ground/row-ids.ts";
import type { Store } from "../ground/store.ts";

/** An entry of the audit log. */
export interface HistoryRow {
  id: string;
  at: Date;
  person: string;
  action: string;
  object: string;
  name: string | null;
  detail: Record<string, unknown>;
  requestId: string | null;
  total: string;
}

/** What a site's history is narrowed by. */
export interface HistoryFilter {
  object?: string | undefined;
  action?: string | undefined;
  person?: string | undefined;
  from?: Date | undefined;
  to?: Date | undefined;
}

// What the object of an action is called by now; objects that are no ids are called what they are.
const NAME = `CASE WHEN a.object ~ '^\\d{1,18}$' THEN CASE split_part(a.action, '.', 1)
    WHEN 'page' THEN (SELECT title FROM pages p WHERE p.id = a.object::bigint AND p.site_id = a.site_id)
    WHEN 'route' THEN (SELECT address FROM routes r WHERE r.id = a.object::bigint AND r.site_id = a.site_id)
    WHEN 'file' THEN (SELECT f.name FROM files f WHERE f.id = a.object::bigint AND f.site_id = a.site_id)
    WHEN 'member' THEN (SELECT h.name FROM people h WHERE h.id = a.object::bigint) END END`;

// Entries about a program bear the name that it had then, and its id; the oldest of them the name alone.
const BY_ID = `split_part(a.action, '.', 1) = 'program' AND (a.detail->>'id' = $object::text OR a.object =
    (SELECT p.name FROM programs p WHERE p.id::text = $object::text AND p.site_id = a.site_id))`;

/** A portion of what was done to a site, the latest first. */
export function historyOf(
  store: Store,
  site: string,
  filter: HistoryFilter,
  portion: { limit: number; offset: number },
): Promise<HistoryRow[]> {
  return store.rows<HistoryRow>(
    `SELECT a.id::text, a.at, a.actor AS person, a.action, a.object, ${NAME} AS name, a.detail, a.request AS "requestId", count(*) OVER ()::text AS total
     FROM audit a WHERE a.site_id = $site::bigint AND ($object::text IS NULL OR a.object = $object::text OR ${BY_ID})
       AND ($action::text IS NULL OR a.action = $action::text OR split_part(a.action, '.', 1) = $action::text)
       AND ($person::text IS NULL OR a.actor = $person::text)
       AND ($from::timestamptz IS NULL OR a.at >= $from::timestamptz) AND ($to::timestamptz IS NULL OR a.at < $to::timestamptz)
     ORDER BY a.id DESC ${limitOf({ ...portion, sort: undefined })}`,
    {
      site,
      object: filter.object ?? null,
      action: filter.action ?? null,
      person: filter.person ?? null,
      from: filter.from ?? null,
      to: filter.to ?? null,
    },
  );
}

/** An entry of a site's history; undefined when there is none. */
export async function entryOf(
  store: Store,
  site: string,
  id: string,
): Promise<{ action: string; object: string; detail: Record<string, unknown> } | undefined> {
  const [entry] = await store.rows<{ action: string; object: string; detail: Record<string, unknown> }>(
    "SELECT action, object, detail FROM audit WHERE id = $id::bigint AND site_id = $site::bigint",
    { site, id: rowIdOf(id) },
  );
  return entry;
}

/** Takes away what is older than each site keeps of its history; of what belongs to no site, than the longest of them. */
export async function forgetOldHistory(store: Store): Promise<number> {
  const gone = await store.rows<{ id: string }>(
    `WITH gone AS (DELETE FROM audit a WHERE a.id IN (
         SELECT o.id FROM audit o LEFT JOIN sites s ON s.id = o.site_id
         WHERE o.at < now() - make_interval(months => coalesce(s.history_months, (SELECT coalesce(max(history_months), 36) FROM sites)))
         ORDER BY o.id LIMIT 5000) RETURNING id)
     SELECT id::text FROM gone`,
  );
  return gone.length;
}

/** Whether something was done to a site since a moment. */
export async function exportedSince(
  store: Store,
  of: { site: string; action: string; since: Date },
): Promise<boolean> {
  const rows = await store.rows<{ id: string }>(
    "SELECT id::text FROM audit WHERE site_id = $site::bigint AND action = $action AND at >= $since::timestamptz LIMIT 1",
    of,
  );
  return rows.length > 0;
}
