import type { Store } from "../ground/store.ts";

/** A published page as a feed tells of it. */
export interface FeedPage {
  id: string;
  path: string;
  title: string;
  description: string;
  category: string;
  publishedAt: Date;
  changedAt: Date;
}

/**
 * The newest published pages of a site, or of one of its categories, that lists for machines name; without the front
 * page, which is about the others.
 */
export function feedPages(
  store: Store,
  of: { site: string; category: string | null; most: number },
): Promise<FeedPage[]> {
  return store.rows<FeedPage>(
    `SELECT id::text, published->>'path' AS path, published->>'title' AS title, published->>'description' AS description,
       published->>'category' AS category, coalesce(published_at, created_at) AS "publishedAt",
       coalesce((published->>'at')::timestamptz, published_at, created_at) AS "changedAt"
     FROM pages WHERE site_id = $site::bigint AND kind = 'page' AND deleted_at IS NULL AND published_key <> '/'
       AND NOT coalesce((published->'search'->>'noindex')::boolean, false) AND published->'search'->>'canonical' IS NULL
       AND ($category::text IS NULL OR published->>'category' = $category)
     ORDER BY published_at DESC, id DESC LIMIT $most`,
    of,
  );
}
