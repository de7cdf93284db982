import type { Store } from "../ground/store.ts";

/** Notes that a tab has a page open. */
export function noteVisit(store: Store, of: { id: string; tab: string; person: string }): Promise<object[]> {
  return store.rows(
    `INSERT INTO page_visits (page_id, tab, person) VALUES ($id::bigint, $tab, $person)
     ON CONFLICT (page_id, tab) DO UPDATE SET seen_at = now(), person = excluded.person`,
    of,
  );
}

/** Forgets who had pages open an hour ago. */
export function forgetVisits(store: Store): Promise<object[]> {
  return store.rows("DELETE FROM page_visits WHERE seen_at < now() - interval '1 hour'");
}

/** Who else has a page open. */
export function othersAtPage(
  store: Store,
  of: { id: string; tab: string; person: string; away: number },
): Promise<{ person: string }[]> {
  return store.rows<{ person: string }>(
    `SELECT DISTINCT person FROM page_visits WHERE page_id = $id::bigint AND tab <> $tab AND person <> $person
       AND seen_at > now() - $away * interval '1 second' ORDER BY person`,
    of,
  );
}
