import type { PageRow, Row } from "../ground/models.ts";
import { containing } from "../ground/like.ts";
import { orderOf, limitOf, type Portion } from "../ground/portions.ts";
import type { Store } from "../ground/store.ts";

export const PAGE_SORTS = {
  updatedAt: "updated_at",
  title: "title",
  path: "path",
  category: "category",
  status: "published_at",
};

/** Ids of a portion of the site's pages, each with how many there are; `q` looks in title, path and text. */
export function pageIds(
  store: Store,
  of: { site: string; q: string | undefined },
  portion: Portion,
): Promise<{ id: string; total: string }[]> {
  return store.rows<{ id: string; total: string }>(
    `SELECT id::text, count(*) OVER ()::text AS total FROM pages
     WHERE site_id = $site::bigint AND kind = 'page' AND deleted_at IS NULL ${of.q ? "AND (title ILIKE $q OR path ILIKE $q OR html ILIKE $q)" : ""}
     ORDER BY ${orderOf(PAGE_SORTS, portion.sort)}, id ${limitOf(portion)}`,
    { site: of.site, ...(of.q ? { q: containing(of.q) } : {}) },
  );
}

/** The categories that a site's pages name, by name. */
export function categoriesOf(
  store: Store,
  of: { site: string },
): Promise<{ category: string; pages: number }[]> {
  return store.rows<{ category: string; pages: number }>(
    `SELECT category, count(*)::int AS pages FROM pages
     WHERE site_id = $site::bigint AND kind = 'page' AND deleted_at IS NULL AND category <> '' GROUP BY category ORDER BY category`,
    of,
  );
}

/** Some pages that link to an address, by its compare key; without their texts. */
export async function pagesLinkingTo(
  store: Store,
  { site, key, limit }: { site: string; key: string; limit: number },
): Promise<Row<PageRow>[]> {
  const ids = await store.rows<{ id: string }>(
    `SELECT id::text FROM pages WHERE site_id = $site::bigint AND deleted_at IS NULL AND link_keys @> ARRAY[$key::text] LIMIT ${Number(limit)}`,
    { site, key },
  );
  return store.pages.findAll({
    where: { id: ids.map(({ id }) => id) },
    attributes: { exclude: ["body", "html"] },
  });
}
