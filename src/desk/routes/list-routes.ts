import { z } from "zod";
import { type Route } from "../../core/routes/route.ts";
import { badHealth } from "../trace/bad-health.ts";
import { containing } from "../../store/ground/like.ts";
import { listing, orderBy } from "../ground/lists.ts";
import { routeViews } from "./route-views.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";
import { cursorOffset, type Listing } from "../../contract/ground/lists.ts";
import { routesQuery, routeFacetsSchema, type RouteFilter } from "../../contract/routes/list.ts";
const SORT = {
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

/** The SQL that a filter stands for, over routes r, route_clicks c and route_health h, and its parameters. */
export function filterSql(
  site: OpenSite,
  filter: RouteFilter,
): { where: string; bind: Record<string, unknown>; joins: string } {
  const filters = ["r.site_id = $site::bigint", "r.deleted_at IS NULL"];
  const bind: Record<string, unknown> = { site: site.id };
  const narrow = (sql: string, name: string, value: unknown): void => {
    if (value === undefined || value === "") return;
    filters.push(sql);
    bind[name] = value;
  };
  narrow("r.kind = $kind", "kind", filter.kind);
  narrow("r.match = $match", "match", filter.match);
  if (filter.host === "*") filters.push("r.host IS NULL");
  else narrow("r.host = $host", "host", filter.host);
  narrow("$tag = ANY(r.tags)", "tag", filter.tag);
  narrow("r.search LIKE $q", "q", filter.q && containing(filter.q.trim().toLowerCase()));
  narrow(
    "(c.last_at IS NULL OR c.last_at < now() - make_interval(days => $unused)) AND r.created_at < now() - make_interval(days => $unused)",
    "unused",
    filter.unused,
  );
  if (filter.state) filters.push(STATE[filter.state]);
  if (filter.health === "bad") filters.push(badHealth("h.verdict"));
  else if (filter.health === "unknown") filters.push("h.verdict IS NULL");
  else narrow("h.verdict = $health", "health", filter.health);
  narrow(
    "EXISTS (SELECT 1 FROM program_routes l JOIN programs p ON p.id = l.program_id WHERE l.route_id = r.id AND $program IN (p.id::text, p.name))",
    "program",
    filter.program,
  );
  const joins = [
    filter.unused ? "LEFT JOIN route_clicks c ON c.route_id = r.id" : "",
    filter.health ? "LEFT JOIN route_health h ON h.route_id = r.id" : "",
  ].join(" ");
  return { where: filters.join(" AND "), bind, joins };
}

const STATE = {
  on: "r.enabled AND (r.valid_from IS NULL OR r.valid_from <= now()) AND (r.valid_until IS NULL OR r.valid_until > now())",
  off: "NOT r.enabled",
  waiting: "r.enabled AND r.valid_from > now()",
  ended: "r.enabled AND r.valid_until <= now()",
} as const;

/** The routes of a site, newest first unless sorted otherwise. */
export async function listRoutes(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  query: z.infer<typeof routesQuery>,
): Promise<Listing<Route>> {
  const { where, bind, joins } = filterSql(site, query);
  const order = orderBy(query.sort, SORT);
  const sorting = [
    order.includes("c.") && !joins.includes("route_clicks")
      ? "LEFT JOIN route_clicks c ON c.route_id = r.id"
      : "",
    order.includes("h.") && !joins.includes("route_health")
      ? "LEFT JOIN route_health h ON h.route_id = r.id"
      : "",
  ].join(" ");
  // Counting and finding are asked apart: together, all that match would be carried through the sort.
  const [ids, [count]] = await Promise.all([
    desk.store.rows<{ id: string }>(
      `SELECT r.id::text FROM routes r ${joins} ${sorting} WHERE ${where} ORDER BY ${order}, r.id DESC LIMIT ${query.limit} OFFSET ${cursorOffset(query.cursor)}`,
      bind,
    ),
    desk.store.rows<{ total: string }>(
      `SELECT count(*)::text AS total FROM routes r ${joins} WHERE ${where}`,
      bind,
    ),
  ]);
  const rows = await desk.store.routes.findAll({ where: { id: ids.map(({ id }) => id) } });
  const byId = new Map(rows.map((row) => [row.id, row]));
  const found = ids.flatMap(({ id }) => byId.get(id) ?? []);
  return listing(await routeViews(desk, site, found), Number(count!.total), query);
}

/** What the routes of a site can be narrowed to, with how many each leaves. */
export async function routeFacets(
  desk: WithStore,
  site: OpenSite,
): Promise<z.infer<typeof routeFacetsSchema>> {
  const counted = <T extends object>(sql: string): Promise<T[]> => desk.store.rows<T>(sql, { site: site.id });
  const own = "r.site_id = $site::bigint AND r.deleted_at IS NULL";
  const [tags, hosts, health] = await Promise.all([
    counted<{ tag: string; routes: number }>(
      `SELECT tag, count(*)::int AS routes FROM routes r, unnest(r.tags) AS tag WHERE ${own} GROUP BY tag ORDER BY 2 DESC, 1 LIMIT 200`,
    ),
    counted<{ host: string | null; routes: number }>(
      `SELECT host, count(*)::int AS routes FROM routes r WHERE ${own} GROUP BY host ORDER BY 2 DESC`,
    ),
    counted<{ verdict: string; routes: number }>(
      `SELECT h.verdict, count(*)::int AS routes FROM routes r JOIN route_health h ON h.route_id = r.id WHERE ${own} GROUP BY 1 ORDER BY 2 DESC`,
    ),
  ]);
  return { tags, hosts, health };
}
