import type { Transaction } from "sequelize";
import { CLICK_CLASSES, utcDay, type ClickRecord } from "../../core/clicks/record.ts";
import { tallyClicks, type ByClass, type ClickTally } from "../../core/clicks/tally.ts";
import type { Store } from "../ground/store.ts";

const DAY = 86_400_000;
const MAX_KNOWN = 1_000_000;
// Whose each route is: that never changes.
const owners = new WeakMap<Store, Map<string, string>>();

/** Counts a batch; nothing is written yet. */
export async function tallyBatch(store: Store, clicks: readonly ClickRecord[]): Promise<ClickTally> {
  let known = owners.get(store);
  if (!known || known.size > MAX_KNOWN) owners.set(store, (known = new Map()));
  const unknown = new Set<string>();
  for (const { route } of clicks) if (!known.has(route)) unknown.add(route);
  if (unknown.size > 0) {
    const rows = await store.rows<{ id: string; site: string }>(
      "SELECT id::text, site_id::text AS site FROM routes WHERE id = ANY($ids::bigint[])",
      { ids: [...unknown] },
    );
    for (const { id, site } of rows) known.set(id, site);
  }
  const sites = known;
  return tallyClicks(clicks, (route) => sites.get(route));
}

/**
 * Adds a batch to the counts of its days: each route as a whole, and the site by everything. What a route's clicks
 * are by device, referrer, page and hour follows when the day is settled: added here, it would be ten rows a click.
 */
export async function addToCounts(store: Store, tally: ClickTally, transaction: Transaction): Promise<void> {
  await writeCounts(store, tally, transaction);
  await writeTotals(store, tally, transaction);
  const days = new Set([...tally.sites.values()].flatMap((site) => [...site.keys()]));
  await store.rows(
    "INSERT INTO unsettled_days (day) SELECT unnest($days::date[])",
    { days: [...days].map((day) => utcDay(day * DAY)) },
    transaction,
  );
}

interface Row {
  route: string;
  site: string | null;
  facet: string;
  day: string;
  key: string;
  class: string;
  clicks: number;
}

// Sorted, so that two processes that copy at once lock the rows in the same order.
async function writeCounts(store: Store, tally: ClickTally, transaction: Transaction): Promise<void> {
  const rows: Row[] = [];
  const add = (row: Omit<Row, "class" | "clicks">, counts: ByClass): void =>
    counts.forEach((clicks, index) => {
      if (clicks > 0) rows.push({ ...row, class: CLICK_CLASSES[index]!, clicks });
    });
  for (const [route, { days }] of tally.routes)
    for (const [day, counts] of days)
      add({ route, site: null, facet: "all", day: utcDay(day * DAY), key: "" }, counts);
  for (const [site, days] of tally.sites)
    for (const [number, facets] of days)
      for (const [facet, keys] of Object.entries(facets) as [string, Map<string, ByClass>][])
        for (const [key, counts] of keys)
          add({ route: "0", site, facet, day: utcDay(number * DAY), key }, counts);
  await store.rows(
    `WITH batch AS (
       SELECT coalesce(b.site, r.site_id) AS site_id, b.route_id, b.facet, b.day, b.key, b.class, b.clicks
       FROM unnest($site::bigint[], $route::bigint[], $facet::text[], $day::date[], $key::text[], $class::text[], $clicks::bigint[])
         AS b (site, route_id, facet, day, key, class, clicks) LEFT JOIN routes r ON r.id = b.route_id)
     INSERT INTO click_counts AS c (site_id, route_id, facet, day, key, class, clicks)
       SELECT site_id, route_id, facet, day, key, class, clicks FROM batch
       UNION ALL SELECT site_id, 0, 'all', day, '', class, sum(clicks) FROM batch WHERE route_id > 0 GROUP BY site_id, day, class
       ORDER BY 1, 2, 3, 4, 5, 6
       ON CONFLICT (site_id, route_id, facet, day, key, class) DO UPDATE SET clicks = c.clicks + excluded.clicks`,
    {
      site: rows.map(({ site }) => site),
      route: rows.map(({ route }) => route),
      facet: rows.map(({ facet }) => facet),
      day: rows.map(({ day }) => day),
      key: rows.map(({ key }) => key),
      class: rows.map((row) => row.class),
      clicks: rows.map(({ clicks }) => clicks),
    },
    transaction,
  );
}

async function writeTotals(store: Store, tally: ClickTally, transaction: Transaction): Promise<void> {
  const totals = [...tally.routes].filter(([, { persons }]) => persons > 0);
  if (totals.length === 0) return;
  await store.rows(
    `INSERT INTO route_clicks AS c (route_id, clicks, last_at)
     SELECT route_id, clicks, to_timestamp(last / 1000.0) FROM unnest($route::bigint[], $clicks::bigint[], $last::bigint[]) AS b (route_id, clicks, last)
     ORDER BY 1
     ON CONFLICT (route_id) DO UPDATE SET clicks = c.clicks + excluded.clicks, last_at = greatest(c.last_at, excluded.last_at)`,
    {
      route: totals.map(([route]) => route),
      clicks: totals.map(([, { persons }]) => persons),
      last: totals.map(([, { last }]) => last),
    },
    transaction,
  );
}
