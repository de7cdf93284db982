import type { Store } from "../ground/store.ts";
import type { Transaction } from "sequelize";

/** Ids of all sites. */
export function siteIds(store: Store): Promise<{ id: string }[]> {
  return store.rows<{ id: string }>("SELECT id::text FROM sites ORDER BY id");
}
export interface VariableRow {
  siteId: string;
  name: string;
  value: string;
}

/** The variables of these sites, by name. */
export function variableRows(store: Store, of: { ids: readonly string[] }): Promise<VariableRow[]> {
  return store.rows<VariableRow>(
    'SELECT site_id::text AS "siteId", name, value FROM site_variables WHERE site_id = ANY($ids::bigint[]) ORDER BY name',
    of,
  );
}

/** Takes all variables of a site away. */
export function dropVariables(store: Store, of: { id: string }, transaction: Transaction): Promise<object[]> {
  return store.rows("DELETE FROM site_variables WHERE site_id = $id", of, transaction);
}

/** Sets variables of a site. */
export function addVariables(
  store: Store,
  of: { id: string; names: readonly string[]; values: readonly string[] },
  transaction: Transaction,
): Promise<object[]> {
  return store.rows(
    `INSERT INTO site_variables (site_id, name, value)
         SELECT $id::bigint, name, value FROM unnest($names::text[], $values::text[]) AS t (name, value)`,
    of,
    transaction,
  );
}
