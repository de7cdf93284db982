import type { ClicksRow } from "../core/objects/clicks.ts";
import type { Store } from "./store.ts";

/** What clicks are grouped by. */
export type ClickGrouping = "day" | "route" | "referrer" | "device";

const KEY: Readonly<Record<ClickGrouping, string>> = {
  day: "to_char(d.day, 'YYYY-MM-DD')",
  route: "d.route_id::text",
  referrer: "d.referrer",
  device: "d.device",
};

const LABEL: Readonly<Record<ClickGrouping, string>> = {
  day: KEY.day,
  route: "max(coalesce(r.host, '') || r.address)",
  referrer: "CASE WHEN d.referrer = '' THEN 'no referrer' ELSE d.referrer END",
  device: "d.device",
};

/** A span of whole UTC days, both ends included, and the route it is asked for. */
export interface ClickSpan {
  siteId: string;
  from: string;
  to: string;
  route?: string;
}

/**
 * Counts from the daily roll-ups, in the order of days, else most clicks first. A visitor counts once a day
 * and route; visitors are known by day and by route only, and are 0 elsewhere.
 */
export async function countClicks(store: Store, span: ClickSpan, by: ClickGrouping): Promise<ClicksRow[]> {
  const filter = span.route ? "AND d.route_id = $route::bigint" : "";
  const bind = {
    siteId: span.siteId,
    from: span.from,
    to: span.to,
    ...(span.route ? { route: span.route } : {}),
  };
  const rows = await store.rows<Record<string, string>>(
    `SELECT ${KEY[by]} AS key, ${LABEL[by]} AS label,
       coalesce(sum(d.clicks) FILTER (WHERE d.class = 'person'), 0)::text AS clicks,
       coalesce(sum(d.clicks) FILTER (WHERE d.class = 'bot'), 0)::text AS bots,
       coalesce(sum(d.clicks) FILTER (WHERE d.class = 'prefetch'), 0)::text AS prefetches,
       coalesce(sum(d.clicks) FILTER (WHERE d.class = 'head'), 0)::text AS heads
     FROM click_days d JOIN routes r ON r.id = d.route_id
     WHERE r.site_id = $siteId AND d.day BETWEEN $from AND $to ${filter}
     GROUP BY 1${by === "route" ? "" : ", 2"} ORDER BY ${by === "day" ? "1" : "sum(d.clicks) FILTER (WHERE d.class = 'person') DESC NULLS LAST, 1"} LIMIT 1000`,
    bind,
  );
  const visitors = await countVisitors(store, span, by);
  return rows.map((row) => ({
    key: row.key!,
    label: row.label!,
    clicks: Number(row.clicks),
    visitors: visitors.get(row.key!) ?? 0,
    bots: Number(row.bots),
    prefetches: Number(row.prefetches),
    heads: Number(row.heads),
  }));
}

async function countVisitors(store: Store, span: ClickSpan, by: ClickGrouping): Promise<Map<string, number>> {
  if (by !== "day" && by !== "route") return new Map();
  const filter = span.route ? "AND d.route_id = $route::bigint" : "";
  const rows = await store.rows<{ key: string; visitors: string }>(
    `SELECT ${KEY[by]} AS key, count(*)::text AS visitors FROM click_visitors d JOIN routes r ON r.id = d.route_id
     WHERE r.site_id = $siteId AND d.day BETWEEN $from AND $to ${filter} GROUP BY 1`,
    { siteId: span.siteId, from: span.from, to: span.to, ...(span.route ? { route: span.route } : {}) },
  );
  return new Map(rows.map((row) => [row.key, Number(row.visitors)]));
}

/** Total clicks by persons and the last of them, for each of these routes that had any. */
export async function routeTotals(
  store: Store,
  routeIds: readonly string[],
): Promise<Map<string, { clicks: number; last: Date }>> {
  if (routeIds.length === 0) return new Map();
  const rows = await store.rows<{ id: string; clicks: string; last: Date }>(
    `SELECT route_id::text AS id, clicks::text, last_at AS last FROM route_clicks WHERE route_id = ANY($ids::bigint[])`,
    { ids: routeIds },
  );
  return new Map(rows.map((row) => [row.id, { clicks: Number(row.clicks), last: row.last }]));
}
