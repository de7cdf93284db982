import type { Transaction } from "sequelize";
import type { RouteRow } from "../ground/models.ts";
import type { Store } from "../ground/store.ts";

/** A route to be written with the keys that it claims. */
export interface RouteToWrite {
  values: Partial<RouteRow> & Pick<RouteRow, "host">;
  keys: readonly string[];
}

/** Inserts many routes and their addresses; answers their ids in the same order. */
export async function insertRoutes(
  store: Store,
  siteId: string,
  routes: readonly RouteToWrite[],
  transaction: Transaction,
): Promise<string[]> {
  if (routes.length === 0) return [];
  const made = await store.routes.bulkCreate(
    routes.map(({ values }) => ({ ...values, siteId, version: 1 })),
    { transaction },
  );
  const ids = made.map(({ id }) => id);
  await claim(store, siteId, routes, ids, transaction);
  return ids;
}

/** Writes many routes anew, each over its version, with its addresses. Throws `ChangedMeanwhile` when one has another. */
export async function updateRoutes(
  store: Store,
  siteId: string,
  routes: readonly (RouteToWrite & { id: string; version: number })[],
  transaction: Transaction,
): Promise<void> {
  if (routes.length === 0) return;
  const ids = routes.map(({ id }) => id);
  for (const { id, version, values } of routes) {
    const [saved] = await store.routes.update(
      { ...values, version: version + 1 },
      { where: { id, version, deletedAt: null }, transaction },
    );
    if (saved === 0) throw new ChangedMeanwhile(String(values.address));
  }
  await store.rows("DELETE FROM route_addresses WHERE route_id = ANY($ids::bigint[])", { ids }, transaction);
  await claim(store, siteId, routes, ids, transaction);
}

/** Somebody wrote a route since it was read. */
export class ChangedMeanwhile extends Error {}

async function claim(
  store: Store,
  siteId: string,
  routes: readonly RouteToWrite[],
  ids: readonly string[],
  transaction: Transaction,
): Promise<void> {
  const claims = routes.flatMap(({ values, keys }, index) =>
    keys.map((key) => ({ host: values.host ?? "*", key, id: ids[index]! })),
  );
  await store.rows(
    `INSERT INTO route_addresses (site_id, host, key, route_id)
     SELECT $site::bigint, host, key, id FROM unnest($host::text[], $key::text[], $id::bigint[]) AS b (host, key, id)`,
    {
      site: siteId,
      host: claims.map(({ host }) => host),
      key: claims.map(({ key }) => key),
      id: claims.map(({ id }) => id),
    },
    transaction,
  );
}
