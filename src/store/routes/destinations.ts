import type { Store } from "../ground/store.ts";

/** The short link to each of these destinations, the oldest where there are several. */
export function shortLinksTo(
  store: Store,
  of: { site: string; keys: readonly string[] },
): Promise<{ key: string; id: string }[]> {
  return store.rows<{ key: string; id: string }>(
    `SELECT DISTINCT ON (destination_key) destination_key AS key, id::text FROM routes
     WHERE site_id = $site::bigint AND kind = 'short' AND deleted_at IS NULL AND enabled AND destination_key = ANY($keys::text[])
     ORDER BY destination_key, id`,
    of,
  );
}

/** The routes that stand in content in place of their raw destinations. */
export function contentRoutes(
  store: Store,
  of: { site: string },
): Promise<
  {
    key: string;
    host: string | null;
    address: string;
    pages: string[] | null;
  }[]
> {
  return store.rows<{
    key: string;
    host: string | null;
    address: string;
    pages: string[] | null;
  }>(
    `SELECT destination_key AS key, host, address, CASE WHEN in_content = 'pages' THEN content_pages::text[] END AS pages FROM routes
     WHERE site_id = $site::bigint AND in_content <> 'nowhere' AND deleted_at IS NULL AND enabled AND destination_key IS NOT NULL ORDER BY id`,
    of,
  );
}
