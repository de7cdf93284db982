import type { RouteFilter } from "../../core/routes/filter.ts";
import { containing } from "../ground/like.ts";
import { badHealth } from "../trace/bad-health.ts";

/** The SQL that a filter stands for, over routes r, route_clicks c and route_health h, and its parameters. */
export function filterSql(
  siteId: string,
  filter: RouteFilter,
): { where: string; bind: Record<string, unknown>; joins: string } {
  const filters = ["r.site_id = $site::bigint", "r.deleted_at IS NULL"];
  const bind: Record<string, unknown> = { site: siteId };
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
