import type { CreationAttributes, Transaction } from "sequelize";
import type { RouteRow, Row } from "../ground/models.ts";
import { inOrder } from "../ground/in-order.ts";
import { isRowId } from "../ground/row-ids.ts";
import type { Store } from "../ground/store.ts";

/** A route of a site; undefined when there is none, or, unless asked for, when it was deleted. */
export async function findRoute(
  store: Store,
  { id, siteId, evenDeleted = false }: { id: string; siteId: string; evenDeleted?: boolean },
): Promise<Row<RouteRow> | undefined> {
  if (!isRowId(id)) return undefined;
  const where = { id, siteId, ...(evenDeleted ? {} : { deletedAt: null }) };
  return (await store.routes.findOne({ where })) ?? undefined;
}

/** Routes by their ids, in that order. */
export async function routesById(store: Store, ids: readonly string[]): Promise<RouteRow[]> {
  if (ids.length === 0) return [];
  return inOrder(await store.routes.findAll({ where: { id: [...ids] }, raw: true }), ids);
}

/** Routes by their ids, in that order, locked until the transaction ends. */
export async function lockRoutes(
  store: Store,
  ids: readonly string[],
  transaction: Transaction,
): Promise<RouteRow[]> {
  const lock = transaction.LOCK.UPDATE;
  return inOrder(await store.routes.findAll({ where: { id: [...ids] }, transaction, lock, raw: true }), ids);
}

/** Short links that lead to a destination, by its key for comparing; the oldest first. */
export function shortLinksOf(
  store: Store,
  { siteId, destinationKey, limit }: { siteId: string; destinationKey: string; limit: number },
): Promise<RouteRow[]> {
  return store.routes.findAll({
    where: { siteId, kind: "short", destinationKey, deletedAt: null },
    order: [["id", "ASC"]],
    limit,
  });
}

/** Makes a route; its addresses are claimed apart. */
export function insertRoute(
  store: Store,
  values: CreationAttributes<Row<RouteRow>>,
  transaction: Transaction,
): Promise<Row<RouteRow>> {
  return store.routes.create(values, { transaction });
}
