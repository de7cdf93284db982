import type { Store } from "../ground/store.ts";

const MAX_KNOWN = 20_000;

/** What a reader may have meant: published pages, and the newest exact short links. */
export function knownPlaces(
  store: Store,
  of: { site: string },
): Promise<{ address: string; title: string; host: string | null; page: boolean }[]> {
  return store.rows<{ address: string; title: string; host: string | null; page: boolean }>(
    `SELECT published->>'path' AS address, published->>'title' AS title, NULL AS host, true AS page FROM pages
       WHERE site_id = $site::bigint AND kind IN ('page', 'read') AND deleted_at IS NULL AND published_key IS NOT NULL
     UNION ALL (SELECT address, title, host, false FROM routes
       WHERE site_id = $site::bigint AND deleted_at IS NULL AND enabled AND kind = 'short' AND match = 'exact'
       ORDER BY id DESC LIMIT ${MAX_KNOWN})`,
    of,
  );
}
