import { PAGE_STAMP, NAVIGATION_PAGE } from "./content.ts";
import type { Store } from "../ground/store.ts";

/** Ids of the pages that the ledger has not read as they are now. */
export function pageIdsOutOfDate(
  store: Store,
  of: { site: string; madeOf: string },
): Promise<{ id: string }[]> {
  return store.rows<{ id: string }>(
    `WITH here AS (
       SELECT p.id, ${PAGE_STAMP} AS stamp FROM pages p WHERE p.site_id = $site::bigint AND p.deleted_at IS NULL
       UNION ALL SELECT ${NAVIGATION_PAGE}, version::text FROM navigations WHERE site_id = $site::bigint),
     known AS (SELECT DISTINCT page_id AS id, stamp, made_of FROM ledger_sources WHERE site_id = $site::bigint)
     SELECT DISTINCT coalesce(h.id, k.id)::text AS id FROM here h FULL JOIN known k ON k.id = h.id
     WHERE h.stamp IS DISTINCT FROM k.stamp OR k.made_of <> $madeOf ORDER BY 1`,
    of,
  );
}

/** Ids of all pages, blocks and the navigation that may hold links. */
export function pageIdsWithLinks(store: Store, of: { site: string }): Promise<{ id: string }[]> {
  return store.rows<{ id: string }>(
    `SELECT id::text FROM (
       SELECT id FROM pages WHERE site_id = $site::bigint AND deleted_at IS NULL
       UNION SELECT ${NAVIGATION_PAGE} FROM navigations WHERE site_id = $site::bigint
       UNION SELECT page_id FROM ledger_sources WHERE site_id = $site::bigint) AS all_of_them ORDER BY id`,
    of,
  );
}

/** Ids of the pages that changes of routes, pages and files since a sequence number may have touched. */
export function affectedPageIds(
  store: Store,
  of: { site: string; routes: readonly string[]; pages: readonly string[]; files: readonly string[] },
): Promise<{ id: string }[]> {
  return store.rows<{ id: string }>(
    `WITH routes_now AS (
       SELECT r.id, r.match, r.destination_key, r.deleted_at IS NULL AND r.enabled AS on FROM routes r
       WHERE r.site_id = $site::bigint AND r.id = ANY($routes::bigint[])),
     route_keys AS (SELECT a.key FROM route_addresses a JOIN routes_now r ON r.id = a.route_id),
     pages_now AS (
       SELECT p.id, p.key, p.published_key FROM pages p
       WHERE p.site_id = $site::bigint AND p.id = ANY($pages::bigint[]) AND p.kind IN ('page', 'read') AND p.deleted_at IS NULL),
     page_keys AS (SELECT id, key, published_key IS NOT NULL AND published_key = key AS live FROM pages_now
       UNION SELECT id, published_key, true FROM pages_now WHERE published_key IS NOT NULL),
     file_paths AS (SELECT path FROM files WHERE site_id = $site::bigint AND id = ANY($files::bigint[])),
     touched AS (
       SELECT l.source_id FROM ledger_links l WHERE l.site_id = $site::bigint AND l.own_key IS NOT NULL AND (
         l.own_key IN (SELECT key FROM route_keys) OR lower(l.own_key) IN (SELECT key FROM route_keys)
         OR l.own_key IN (SELECT path FROM file_paths))
       UNION SELECT l.source_id FROM ledger_links l WHERE l.route_id = ANY($routes::bigint[])
       UNION SELECT l.source_id FROM ledger_links l WHERE l.short_id = ANY($routes::bigint[])
       UNION SELECT l.source_id FROM ledger_links l JOIN routes_now r ON r.destination_key = l.destination_key WHERE l.site_id = $site::bigint
       -- A route that matches more than one address may answer, or no longer answer, whatever of ours no page does.
       UNION SELECT l.source_id FROM ledger_links l WHERE l.site_id = $site::bigint AND l.kind IN ('broken', 'route')
         AND EXISTS (SELECT 1 FROM routes_now WHERE match <> 'exact')
       UNION SELECT l.source_id FROM ledger_links l JOIN page_keys k ON k.key = l.own_key
         WHERE l.site_id = $site::bigint AND (l.leads_to IS DISTINCT FROM k.id OR ('draft' = ANY(l.text_findings)) = k.live)
       UNION SELECT l.source_id FROM ledger_links l WHERE l.leads_to = ANY($pages::bigint[])
         AND NOT EXISTS (SELECT 1 FROM page_keys k WHERE k.id = l.leads_to AND k.key = l.own_key AND NOT EXISTS (
           SELECT 1 FROM pages p WHERE p.id = k.id AND p.published IS NOT NULL AND p.published_key <> l.own_key)))
     SELECT DISTINCT s.page_id::text AS id FROM touched t JOIN ledger_sources s ON s.id = t.source_id WHERE s.site_id = $site::bigint ORDER BY 1`,
    of,
  );
}
