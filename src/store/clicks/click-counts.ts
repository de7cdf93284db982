import type { ClicksRow } from "../../core/clicks/clicks.ts";
import type { ClickGrouping } from "../../core/clicks/choices.ts";
import type { Store } from "../ground/store.ts";

/** A span of whole UTC days, both ends included, and the route it is asked for. */
export interface ClickSpan {
  siteId: string;
  from: string;
  to: string;
  route?: string;
}

const FACET: Readonly<Record<Exclude<ClickGrouping, "program">, string>> = {
  day: "all",
  route: "all",
  referrer: "referrer",
  page: "page",
  device: "device",
  hour: "hour",
};

const SUMS = `coalesce(sum(c.clicks) FILTER (WHERE c.class = 'person'), 0)::text AS clicks,
  coalesce(sum(c.visitors) FILTER (WHERE c.class = 'person'), 0)::text AS visitors,
  coalesce(sum(c.clicks) FILTER (WHERE c.class = 'bot'), 0)::text AS bots,
  coalesce(sum(c.clicks) FILTER (WHERE c.class = 'prefetch'), 0)::text AS prefetches,
  coalesce(sum(c.clicks) FILTER (WHERE c.class = 'head'), 0)::text AS heads,
  coalesce(sum(c.clicks) FILTER (WHERE c.class = 'aside'), 0)::text AS asides`;

const MAX_ROWS = 1_000;

interface CountedRow {
  key: string;
  label: string;
  clicks: string;
  visitors: string;
  bots: string;
  prefetches: string;
  heads: string;
  asides: string;
}

/**
 * Counts from the roll-ups, in the order of days or hours, else most clicks first. A visitor counts once a day:
 * of the site, of a route, or of whatever the rows are.
 */
export async function countClicks(store: Store, span: ClickSpan, by: ClickGrouping): Promise<ClicksRow[]> {
  const rows =
    by === "route"
      ? await countByRoute(store, span)
      : by === "program"
        ? await countByProgram(store, span)
        : await countByFacet(store, span, by);
  return rows.map((row) => ({
    key: row.key,
    label: row.label,
    clicks: Number(row.clicks),
    visitors: Number(row.visitors),
    bots: Number(row.bots),
    prefetches: Number(row.prefetches),
    heads: Number(row.heads),
    asides: Number(row.asides),
  }));
}

async function countByRoute(store: Store, span: ClickSpan): Promise<CountedRow[]> {
  return store.rows<CountedRow>(
    `SELECT n.key, coalesce(r.host, '') || r.address AS label, n.clicks, n.visitors, n.bots, n.prefetches, n.heads, n.asides
     FROM (SELECT c.route_id::text AS key, ${SUMS} FROM click_counts c
       WHERE c.site_id = $site::bigint AND c.facet = 'all' AND c.day BETWEEN $from AND $to
         AND ${span.route ? "c.route_id = $route::bigint" : "c.route_id > 0"}
       GROUP BY c.route_id ORDER BY sum(c.clicks) FILTER (WHERE c.class = 'person') DESC NULLS LAST, c.route_id LIMIT ${MAX_ROWS}) n
     JOIN routes r ON r.id = n.key::bigint ORDER BY n.clicks::bigint DESC, r.id`,
    bindOf(span),
  );
}

// Of routes that lead to a program; links that lead there directly are not counted here.
function countByProgram(store: Store, span: ClickSpan): Promise<CountedRow[]> {
  return store.rows<CountedRow>(
    `SELECT p.id::text AS key, p.name AS label, ${SUMS} FROM click_counts c JOIN program_routes l ON l.route_id = c.route_id JOIN programs p ON p.id = l.program_id
     WHERE c.site_id = $site::bigint AND c.facet = 'all' AND c.day BETWEEN $from AND $to AND ${span.route ? "c.route_id = $route::bigint" : "c.route_id > 0"}
     GROUP BY p.id, p.name ORDER BY sum(c.clicks) FILTER (WHERE c.class = 'person') DESC NULLS LAST, 1 LIMIT ${MAX_ROWS}`,
    bindOf(span),
  );
}

async function countByFacet(
  store: Store,
  span: ClickSpan,
  by: Exclude<ClickGrouping, "program" | "route">,
): Promise<CountedRow[]> {
  const key = by === "day" ? "to_char(c.day, 'YYYY-MM-DD')" : "c.key";
  const order =
    by === "day" || by === "hour"
      ? "1"
      : "sum(c.clicks) FILTER (WHERE c.class = 'person') DESC NULLS LAST, 1";
  const rows = await store.rows<CountedRow>(
    `SELECT ${key} AS key, ${key} AS label, ${SUMS} FROM click_counts c
     WHERE c.site_id = $site::bigint AND c.route_id = ${span.route ? "$route::bigint" : "0"} AND c.facet = '${FACET[by]}' AND c.day BETWEEN $from AND $to
     GROUP BY 1 ORDER BY ${order} LIMIT ${by === "day" ? 4_000 : MAX_ROWS}`,
    bindOf(span),
  );
  const nothing: Readonly<Record<string, string>> = {
    referrer: "no referrer",
    page: "not from a page of ours",
  };
  return rows.map((row) => ({ ...row, label: row.label === "" ? (nothing[by] ?? "") : row.label }));
}

function bindOf(span: ClickSpan): Record<string, string> {
  return { site: span.siteId, from: span.from, to: span.to, ...(span.route ? { route: span.route } : {}) };
}

/** A click as it is kept. */
export interface KeptClick {
  at: Date;
  route: string;
  address: string;
  class: string;
  device: string;
  referrer: string;
  page: string;
}

/** Single clicks of a span, newest first, at most `most`; `before` goes on where an earlier answer ended. */
export async function singleClicks(
  store: Store,
  span: ClickSpan & { class?: string },
  most: number,
  before?: Date,
): Promise<KeptClick[]> {
  return store.rows<KeptClick>(
    `SELECT c.at, c.route_id::text AS route, coalesce(r.host, '') || r.address AS address, c.class, c.device, c.referrer, c.page
     FROM clicks c JOIN routes r ON r.id = c.route_id
     WHERE r.site_id = $site::bigint AND c.at >= $from::date::timestamp AT TIME ZONE 'UTC' AND c.at < ($to::date + 1)::timestamp AT TIME ZONE 'UTC'
       ${span.route ? "AND c.route_id = $route::bigint" : ""} ${span.class ? "AND c.class = $class" : ""} ${before ? "AND c.at < $before::timestamptz" : ""}
     ORDER BY c.at DESC LIMIT ${most}`,
    {
      ...bindOf(span),
      ...(span.class ? { class: span.class } : {}),
      ...(before ? { before: before.toISOString() } : {}),
    },
  );
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

/** The first day for which a site has clicks; undefined while it has none. */
export async function firstCountedDay(store: Store, of: { site: string }): Promise<Date | undefined> {
  const [row] = await store.rows<{ first: Date | null }>(
    `SELECT min(day)::timestamptz AS first FROM click_counts WHERE site_id = $site::bigint AND facet = 'all' AND route_id > 0`,
    of,
  );
  return row?.first ?? undefined;
}
