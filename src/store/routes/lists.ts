import type { Transaction } from "sequelize";
import type { Address } from "../../core/address/address.ts";
import type { RouteFilter } from "../../core/routes/filter.ts";
import type { MatchKind } from "../../core/routes/match/match-kind.ts";
import type { RouteKind } from "../../core/routes/choices.ts";
import { orderOf, limitOf, type Portion } from "../ground/portions.ts";
import type { Store } from "../ground/store.ts";
import { filterSql } from "./filter.ts";

export const ROUTE_SORTS = {
  createdAt: "r.id",
  address: "r.address",
  destination: "r.destination",
  title: "r.title",
  status: "r.status",
  clicks: "coalesce(c.clicks, 0) - r.clicks_before",
  lastClick: "c.last_at",
  updatedAt: "r.updated_at",
  host: "r.host",
  health: "h.verdict",
};

/** Ids of a portion of the routes that a filter leaves. */
export function routeIds(
  store: Store,
  siteId: string,
  filter: RouteFilter,
  portion: Portion,
): Promise<{ id: string }[]> {
  const { where, bind, joins } = filterSql(siteId, filter);
  const order = orderOf(ROUTE_SORTS, portion.sort);
  const sorting = [
    order.includes("c.") && !joins.includes("route_clicks")
      ? "LEFT JOIN route_clicks c ON c.route_id = r.id"
      : "",
    order.includes("h.") && !joins.includes("route_health")
      ? "LEFT JOIN route_health h ON h.route_id = r.id"
      : "",
  ].join(" ");
  return store.rows<{ id: string }>(
    `SELECT r.id::text FROM routes r ${joins} ${sorting} WHERE ${where} ORDER BY ${order}, r.id DESC ${limitOf(portion)}`,
    bind,
  );
}

/** How many routes a filter leaves; one row. */
export function routeTotals(store: Store, siteId: string, filter: RouteFilter): Promise<{ total: string }[]> {
  const { where, bind, joins } = filterSql(siteId, filter);
  return store.rows<{ total: string }>(
    `SELECT count(*)::text AS total FROM routes r ${joins} WHERE ${where}`,
    bind,
  );
}

/** Ids of the next routes that a filter leaves, in the order of their ids, behind one. */
export function routeIdsAfter(
  store: Store,
  siteId: string,
  filter: RouteFilter,
  { after, limit }: { after: string; limit: number },
): Promise<{ id: string }[]> {
  const { where, bind, joins } = filterSql(siteId, filter);
  return store.rows<{ id: string }>(
    `SELECT r.id::text FROM routes r ${joins} WHERE ${where} AND r.id > $after::bigint ORDER BY r.id LIMIT ${Number(limit)}`,
    { ...bind, after },
  );
}

/** What a change of many needs to know of a route. */
export interface ChangingRoute {
  id: string;
  address: string;
  aliases: string[];
  title: string;
  destination: Address | null;
  tags: string[];
  enabled: boolean;
  kind: RouteKind;
  match: MatchKind;
  host: string | null;
  noindex: boolean;
  nofollow: boolean;
}

/** The routes that a filter leaves, or of them those with these ids; locked where that is in a transaction. */
export function routesToChange(
  store: Store,
  siteId: string,
  { filter, ids, limit }: { filter: RouteFilter; ids: readonly string[] | undefined; limit: number },
  transaction?: Transaction,
): Promise<ChangingRoute[]> {
  const { where, bind, joins } = filterSql(siteId, filter);
  return store.rows<ChangingRoute>(
    `SELECT r.id::text, r.address, r.aliases, r.title, r.destination, r.tags, r.enabled, r.kind, r.match, r.host, r.noindex, r.nofollow FROM routes r ${joins}
     WHERE ${where} ${ids ? "AND r.id = ANY($ids::bigint[])" : ""} ORDER BY r.id LIMIT ${Number(limit)} ${transaction ? "FOR UPDATE OF r" : ""}`,
    { ...bind, ...(ids ? { ids } : {}) },
    transaction,
  );
}

const OWN = "r.site_id = $site::bigint AND r.deleted_at IS NULL";

/** The tags of a site's routes, the most used first; at most 200. */
export function routeTags(store: Store, of: { site: string }): Promise<{ tag: string; routes: number }[]> {
  return store.rows<{ tag: string; routes: number }>(
    `SELECT tag, count(*)::int AS routes FROM routes r, unnest(r.tags) AS tag WHERE ${OWN} GROUP BY tag ORDER BY 2 DESC, 1 LIMIT 200`,
    of,
  );
}

/** The hosts of a site's routes; null: every host. */
export function routeHosts(
  store: Store,
  of: { site: string },
): Promise<{ host: string | null; routes: number }[]> {
  return store.rows<{ host: string | null; routes: number }>(
    `SELECT host, count(*)::int AS routes FROM routes r WHERE ${OWN} GROUP BY host ORDER BY 2 DESC`,
    of,
  );
}

/** The verdicts on the destinations of a site's routes. */
export function routeHealths(
  store: Store,
  of: { site: string },
): Promise<{ verdict: string; routes: number }[]> {
  return store.rows<{ verdict: string; routes: number }>(
    `SELECT h.verdict, count(*)::int AS routes FROM routes r JOIN route_health h ON h.route_id = r.id WHERE ${OWN} GROUP BY 1 ORDER BY 2 DESC`,
    of,
  );
}

/** The short links that answer on a host at one address, and begin with a directory, whatever its case. */
export function shortLinksIn(
  store: Store,
  of: { site: string; directory: string; host: string },
): Promise<{ id: string; address: string }[]> {
  return store.rows<{ id: string; address: string }>(
    `SELECT r.id::text, r.address FROM routes r WHERE ${OWN} AND r.kind = 'short' AND r.match = 'exact'
       AND (r.host IS NULL OR r.host = $host) AND starts_with(lower(r.address), lower($directory)) ORDER BY r.id`,
    of,
  );
}

/** The destinations of a site's routes, or of those with these ids. */
export function routeDestinations(
  store: Store,
  { site, ids }: { site: string; ids: readonly string[] | undefined },
): Promise<{ id: string; address: string; destination: string }[]> {
  return store.rows<{ id: string; address: string; destination: string }>(
    `SELECT id::text, address, destination FROM routes WHERE site_id = $site::bigint AND deleted_at IS NULL AND destination IS NOT NULL
       ${ids ? "AND id = ANY($ids::bigint[])" : ""} ORDER BY id`,
    { site, ...(ids ? { ids } : {}) },
  );
}
