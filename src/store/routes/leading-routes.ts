import type { Store } from "../ground/store.ts";

/** Where a route stands, and where it leads. */
export interface LeadingRoute {
  /** null: every host of the site. */
  host: string | null;
  /** The stored key of the place. */
  key: string;
  caseInsensitive: boolean;
  destination: string;
}

/** A site's routes that lead somewhere, by their places, the oldest first; at most so many. */
export function leadingRoutes(store: Store, siteId: string, most: number): Promise<LeadingRoute[]> {
  return store.rows<LeadingRoute>(
    `SELECT NULLIF(a.host, '*') AS host, a.key, r.kind = 'short' AS "caseInsensitive", r.destination FROM route_addresses a JOIN routes r ON r.id = a.route_id
     WHERE r.site_id = $siteId::bigint AND r.enabled AND r.deleted_at IS NULL AND r.destination IS NOT NULL ORDER BY r.id LIMIT $most::int`,
    { siteId, most },
  );
}
