import type { LedgerView } from "../../core/ledger/ledger.ts";
import type { Store } from "../ground/store.ts";

/** The saved views of a site's ledger, by name. */
export function ledgerViews(store: Store, of: { site: string }): Promise<LedgerView[]> {
  return store.rows<LedgerView>(
    'SELECT id::text, name, query, made_by AS "madeBy" FROM ledger_views WHERE site_id = $site::bigint ORDER BY name',
    of,
  );
}

/** Saves a view of the ledger; one of its name is replaced. */
export function putLedgerView(
  store: Store,
  of: { site: string; name: string; query: string; by: string },
): Promise<LedgerView[]> {
  return store.rows<LedgerView>(
    `WITH kept AS (INSERT INTO ledger_views (site_id, name, query, made_by) VALUES ($site::bigint, $name, $query, $by)
       ON CONFLICT (site_id, name) DO UPDATE SET query = excluded.query, made_by = excluded.made_by RETURNING *)
     SELECT id::text, name, query, made_by AS "madeBy" FROM kept`,
    of,
  );
}

/** Takes a saved view away; none when there was no such view. */
export function deleteLedgerView(store: Store, of: { id: string; site: string }): Promise<object[]> {
  return store.rows(
    "WITH gone AS (DELETE FROM ledger_views WHERE id = $id::bigint AND site_id = $site::bigint RETURNING id) SELECT id FROM gone",
    of,
  );
}
