import type { Placement } from "../../core/pages/page.ts";
import type { PublishedPage } from "../ground/models.ts";
import type { Store } from "../ground/store.ts";
import type { NavigationItem } from "../../core/navigation/navigation.ts";
import type { Transaction } from "sequelize";

/** By which a later form of a page p is told: its draft's version and the published one. */
export const PAGE_STAMP = "p.version || ':' || coalesce(p.published_version, 0)";

export const NAVIGATION_PAGE = "0";
export interface PageHere {
  id: string;
  kind: "page" | "block" | "read" | "repeated";
  onPages: number;
  path: string;
  title: string;
  category: string;
  html: string;
  bound: Record<string, string>;
  placement: Placement | null;
  published: PublishedPage | null;
  same: boolean;
  stamp: string;
}

/** Pages and blocks as the ledger reads them. */
export function pagesToRead(store: Store, of: { site: string; ids: readonly string[] }): Promise<PageHere[]> {
  return store.rows<PageHere>(
    `SELECT p.id::text, p.kind, p.path, p.title, p.category, p.html, p.bound, p.on_pages AS "onPages", p.placement, p.published,
       p.published_version IS NOT DISTINCT FROM p.version AS same, ${PAGE_STAMP} AS stamp
     FROM pages p WHERE p.site_id = $site::bigint AND p.id = ANY($ids::bigint[]) AND p.deleted_at IS NULL ORDER BY p.id`,
    of,
  );
}

/** The navigation as the ledger reads it. */
export function navigationToRead(
  store: Store,
  of: { site: string },
): Promise<{ version: number; items: NavigationItem[] }[]> {
  return store.rows<{ version: number; items: NavigationItem[] }>(
    "SELECT version, items FROM navigations WHERE site_id = $site::bigint",
    of,
  );
}

/** The stamps of pages, by which is told whether they are what was read. */
export function contentStamps(
  store: Store,
  of: { site: string; ids: readonly string[] },
  transaction: Transaction,
): Promise<{ id: string; stamp: string }[]> {
  return store.rows<{ id: string; stamp: string }>(
    `SELECT p.id::text, ${PAGE_STAMP} AS stamp FROM pages p WHERE p.site_id = $site::bigint AND p.id = ANY($ids::bigint[]) AND p.deleted_at IS NULL
     UNION ALL SELECT '${NAVIGATION_PAGE}', version::text FROM navigations WHERE site_id = $site::bigint AND ${NAVIGATION_PAGE} = ANY($ids::bigint[])`,
    of,
    transaction,
  );
}
