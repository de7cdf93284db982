import type { LedgerView } from "../../core/ledger/ledger.ts";
import type { Transaction } from "sequelize";
import type { Store } from "../ground/store.ts";

/** The saved views of a site's ledger, by name. */
export function ledgerViews(store: Store, of: { site: string }): Promise<LedgerView[]> {
  return store.rows<LedgerView>(
    'SELECT id::text, name, query, made_by AS "madeBy" FROM ledger_views WHERE site_id = $site::bigint AND deleted_at IS NULL ORDER BY name',
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
       ON CONFLICT (site_id, name) WHERE deleted_at IS NULL DO UPDATE SET query = excluded.query, made_by = excluded.made_by RETURNING *)
     SELECT id::text, name, query, made_by AS "madeBy" FROM kept`,
    of,
  );
}

/** Deletes a saved view, which may be brought back; answers its name, or nothing when there is no such view. */
export function deleteLedgerView(
  store: Store,
  of: { id: string; site: string },
  transaction: Transaction,
): Promise<{ name: string }[]> {
  return store.rows<{ name: string }>(
    `WITH gone AS (UPDATE ledger_views SET deleted_at = now() WHERE id = $id::bigint AND site_id = $site::bigint AND deleted_at IS NULL
       RETURNING name) SELECT name FROM gone`,
    of,
    transaction,
  );
}

/** Brings a saved view back, under another name where one is given. Throws where that is taken (index `ledger_views_name`). */
export function restoreLedgerView(
  store: Store,
  of: { id: string; site: string; name: string | null },
  transaction: Transaction,
): Promise<{ name: string }[]> {
  return store.rows<{ name: string }>(
    `WITH back AS (UPDATE ledger_views SET deleted_at = NULL, name = coalesce($name::text, name)
       WHERE id = $id::bigint AND site_id = $site::bigint RETURNING name) SELECT name FROM back`,
    of,
    transaction,
  );
}
