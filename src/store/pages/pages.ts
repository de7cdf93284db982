import type { CreationAttributes, Transaction } from "sequelize";
import type { PageRow, Row } from "../ground/models.ts";
import { inOrder } from "../ground/in-order.ts";
import { isRowId } from "../ground/row-ids.ts";
import type { Store } from "../ground/store.ts";

/** Kinds of what is written here; a page that is read elsewhere is none. */
const WRITTEN = ["page", "block"];
/** A page without its text, as lists show it. */
const WITHOUT_TEXT = { exclude: ["body", "html"] };

/** A page or block of a site; undefined when there is none, or, unless asked for, when it was deleted. */
export async function findPage(
  store: Store,
  { id, siteId, evenDeleted = false }: { id: string; siteId: string; evenDeleted?: boolean },
): Promise<Row<PageRow> | undefined> {
  if (!isRowId(id)) return undefined;
  const where = { id, siteId, kind: WRITTEN, ...(evenDeleted ? {} : { deletedAt: null }) };
  return (await store.pages.findOne({ where })) ?? undefined;
}

/** A page or block, locked until the transaction ends; undefined when it is gone or, where that is asked, of another version. */
export async function lockPage(
  store: Store,
  { id, siteId, version }: { id: string; siteId: string; version?: number },
  transaction: Transaction,
): Promise<Row<PageRow> | undefined> {
  const where = { id, siteId, kind: WRITTEN, deletedAt: null, ...(version === undefined ? {} : { version }) };
  return (await store.pages.findOne({ where, transaction, lock: transaction.LOCK.UPDATE })) ?? undefined;
}

/** The page that stands at a path, by its key. */
export async function findPageAt(
  store: Store,
  { siteId, key }: { siteId: string; key: string },
): Promise<Row<PageRow> | undefined> {
  return (await store.pages.findOne({ where: { siteId, key, kind: "page", deletedAt: null } })) ?? undefined;
}

/** Pages by their ids, in that order, without their texts. */
export async function pagesById(store: Store, ids: readonly string[]): Promise<Row<PageRow>[]> {
  const rows = await store.pages.findAll({ where: { id: [...ids] }, attributes: WITHOUT_TEXT });
  return inOrder(rows, ids);
}

/** The texts of pages, as written and as published. */
export function textsOfPages(
  store: Store,
  ids: readonly string[],
): Promise<Pick<PageRow, "id" | "html" | "published">[]> {
  return store.pages.findAll({ where: { id: [...ids] }, attributes: ["id", "html", "published"] });
}

/** A site's shared blocks without their texts, in the order in which they stand on pages. */
export function blocksOf(store: Store, siteId: string): Promise<Row<PageRow>[]> {
  return store.pages.findAll({
    where: { siteId, kind: "block", deletedAt: null },
    attributes: WITHOUT_TEXT,
    order: [["id", "ASC"]],
  });
}

/** All pages of a site with their texts, by path. */
export function wholePages(store: Store, siteId: string): Promise<Row<PageRow>[]> {
  return store.pages.findAll({
    where: { siteId, kind: "page", deletedAt: null },
    order: [["path", "ASC"]],
  });
}

/** A site's shared blocks, as they are written. */
export function blocksOfSite(
  store: Store,
  of: { site: string },
): Promise<{ title: string; html: string; placement: unknown }[]> {
  return store.rows<{ title: string; html: string; placement: unknown }>(
    "SELECT title, html, placement FROM pages WHERE site_id = $site::bigint AND kind = 'block' AND deleted_at IS NULL ORDER BY title, id",
    of,
  );
}

/** Makes a page. Throws where its path is taken (index `pages_path`). */
export function insertPage(
  store: Store,
  values: CreationAttributes<Row<PageRow>>,
  transaction: Transaction,
): Promise<Row<PageRow>> {
  return store.pages.create(values, { transaction });
}

/** Some pages that the gate of addresses has not seen, locked; such as another process has are passed over. */
export function lockUnadmitted(
  store: Store,
  limit: number,
  transaction: Transaction,
): Promise<Row<PageRow>[]> {
  return store.pages.findAll({
    where: { admitted: false },
    order: [["id", "ASC"]],
    limit,
    transaction,
    lock: transaction.LOCK.UPDATE,
    skipLocked: true,
  });
}
