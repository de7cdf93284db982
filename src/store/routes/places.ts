import type { RouteStatus, QueryMode, AfterEnd } from "../../core/routes/choices.ts";
import type { Store } from "../ground/store.ts";

/** The same as the database has it. */
export interface RouteThereRow {
  id: string;
  host: string;
  key: string;
  address: string;
  caseInsensitive: boolean;
  enabled: boolean;
  destination: string | null;
  parameters: string;
  status: RouteStatus;
  query: QueryMode;
  from: Date | null;
  until: Date | null;
  afterEnd: AfterEnd;
  endDestination: string | null;
}

/** Reads places with their routes; a WHERE clause follows. */
const ROUTE_THERE = `SELECT r.id::text, a.host, a.key, r.address, r.kind = 'short' AS "caseInsensitive", r.enabled, r.destination, r.parameters,
    r.status, r.query, r.valid_from AS "from", r.valid_until AS "until", r.after_end AS "afterEnd", r.end_destination AS "endDestination"
  FROM route_addresses a JOIN routes r ON r.id = a.route_id`;

/** The routes at these keys, on whatever host. */
export function routesAtKeys(
  store: Store,
  of: { site: string; keys: readonly string[] },
): Promise<RouteThereRow[]> {
  return store.rows<RouteThereRow>(
    `${ROUTE_THERE} WHERE a.site_id = $site::bigint AND a.key = ANY($keys::text[])`,
    of,
  );
}

/** Routes whose keys differ from these in letter case alone. */
export function routesAlike(
  store: Store,
  of: { site: string; keys: readonly string[] },
): Promise<RouteThereRow[]> {
  return store.rows<RouteThereRow>(
    `${ROUTE_THERE} WHERE a.site_id = $site::bigint AND lower(a.key) = ANY($keys::text[]) LIMIT 50`,
    of,
  );
}

/** The route that has a place already. */
export function routesAtPath(
  store: Store,
  of: { site: string; key: string; host: string },
): Promise<{ address: string }[]> {
  return store.rows<{ address: string }>(
    `SELECT r.address FROM route_addresses a JOIN routes r ON r.id = a.route_id
     WHERE a.site_id = $site::bigint AND a.key = $key AND a.host IN ('*', $host) AND NOT r.replaces_page`,
    of,
  );
}

/** Where the routes at these places lead, on whatever host. */
export function destinationsAt(
  store: Store,
  of: { site: string; keys: readonly string[] },
): Promise<{ host: string; key: string; destination: string | null }[]> {
  return store.rows<{ host: string; key: string; destination: string | null }>(
    `SELECT a.host, a.key, r.destination FROM route_addresses a JOIN routes r ON r.id = a.route_id
     WHERE a.site_id = $site::bigint AND a.key = ANY($keys::text[]) AND r.enabled`,
    of,
  );
}

/** The switched-on prefix, wildcard and pattern routes of a site with where they lead, without those that change. */
export function patternsSharing(
  store: Store,
  of: { site: string; changed: readonly string[] },
): Promise<
  {
    id: string;
    host: string;
    key: string;
    caseInsensitive: boolean;
    destination: string | null;
  }[]
> {
  return store.rows<{
    id: string;
    host: string;
    key: string;
    caseInsensitive: boolean;
    destination: string | null;
  }>(
    `SELECT r.id::text, a.host, a.key, r.kind = 'short' AS "caseInsensitive", r.destination FROM route_addresses a JOIN routes r ON r.id = a.route_id
     WHERE r.site_id = $site::bigint AND r.match <> 'exact' AND r.enabled AND NOT r.id = ANY($changed::bigint[]) ORDER BY r.id`,
    of,
  );
}

/** The switched-on prefix, wildcard and pattern routes of a site. */
export function patternRoutes(store: Store, of: { site: string }): Promise<RouteThereRow[]> {
  return store.rows<RouteThereRow>(
    `${ROUTE_THERE} WHERE r.site_id = $site::bigint AND r.match <> 'exact' AND r.deleted_at IS NULL AND r.enabled ORDER BY r.id`,
    of,
  );
}
