import type { Navigation, StoredItem } from "../../core/navigation/navigation.ts";
import type { Store } from "../ground/store.ts";
import type { Transaction } from "sequelize";

/** The navigation of a site; none while nobody has made one. */
export function navigationOf(store: Store, of: { id: string }): Promise<Navigation[]> {
  return store.rows<Navigation>(
    'SELECT version, items, updated_by AS "updatedBy" FROM navigations WHERE site_id = $id::bigint',
    of,
  );
}

/** Replaces the navigation over the version that it was read at; none when it has another. */
export function putNavigation(
  store: Store,
  of: { id: string; version: number; next: number; items: string; by: string },
  transaction: Transaction,
): Promise<object[]> {
  return store.rows(
    `INSERT INTO navigations (site_id, version, items, updated_by)
         SELECT $id::bigint, $next, $items::jsonb, $by WHERE $version = 0 OR EXISTS (SELECT 1 FROM navigations WHERE site_id = $id::bigint)
       ON CONFLICT (site_id) DO UPDATE SET version = excluded.version, items = excluded.items, updated_by = excluded.updated_by, updated_at = now()
         WHERE navigations.version = $version RETURNING version`,
    of,
    transaction,
  );
}

/** The navigation of a site, held until the transaction ends. */
export function lockNavigation(
  store: Store,
  of: { site: string },
  transaction: Transaction,
): Promise<{ version: number; items: StoredItem[] }[]> {
  return store.rows<{ version: number; items: StoredItem[] }>(
    "SELECT version, items FROM navigations WHERE site_id = $site::bigint FOR UPDATE",
    of,
    transaction,
  );
}

/** Writes the navigation that is held. */
export function updateNavigation(
  store: Store,
  of: { site: string; items: string; version: number; by: string },
  transaction: Transaction,
): Promise<object[]> {
  return store.rows(
    `WITH saved AS (UPDATE navigations SET items = $items::jsonb, version = version + 1, updated_by = $by, updated_at = now()
       WHERE site_id = $site::bigint AND version = $version::int RETURNING version) SELECT version FROM saved`,
    of,
    transaction,
  );
}
