import type { Transaction } from "sequelize";
import { utcDay, type ClickRecord } from "../core/clicks/record.ts";
import type { Store } from "./store.ts";

/** What clicks are counted by, besides their route and day. */
export const FACETS = ["all", "device", "referrer", "page", "hour"] as const;
export type Facet = (typeof FACETS)[number];

/** Adds a batch to the counts, the routes' totals and the days whose visitors are to be counted again. */
export async function addToCounts(
  store: Store,
  clicks: readonly ClickRecord[],
  transaction: Transaction,
): Promise<void> {
  const counts = new Map<string, number>();
  const add = (key: string): void => void counts.set(key, (counts.get(key) ?? 0) + 1);
  const days = new Map<number, string>();
  const totals = new Map<string, { clicks: number; last: number }>();
  for (const { at, route, class: group, device, referrer, page } of clicks) {
    const number = Math.floor(at / 86_400_000);
    let day = days.get(number);
    if (day === undefined) days.set(number, (day = utcDay(at)));
    const hour = Math.floor((at % 86_400_000) / 3_600_000);
    const front = `${route}\t${day}\t${group}\t`;
    add(`${front}all\t`);
    add(`${front}device\t${device}`);
    add(`${front}referrer\t${referrer}`);
    add(`${front}page\t${page}`);
    add(`${front}hour\t${hour < 10 ? "0" : ""}${hour}`);
    if (group !== "person") continue;
    const total = totals.get(route);
    if (!total) totals.set(route, { clicks: 1, last: at });
    else {
      total.clicks += 1;
      if (at > total.last) total.last = at;
    }
  }
  await writeCounts(store, counts, transaction);
  await writeTotals(store, totals, transaction);
  await store.rows(
    "INSERT INTO unsettled_days (day) SELECT unnest($days::date[])",
    { days: [...days.values()] },
    transaction,
  );
}

// Sorted, so that two processes that copy at once lock the rows in the same order.
async function writeCounts(
  store: Store,
  counts: ReadonlyMap<string, number>,
  transaction: Transaction,
): Promise<void> {
  const rows = [...counts].map(
    ([key, clicks]) => [...key.split("\t"), clicks] as [string, string, string, string, string, number],
  );
  await store.rows(
    `WITH batch AS (
       SELECT r.site_id, b.* FROM unnest($route::bigint[], $day::date[], $class::text[], $facet::text[], $key::text[], $clicks::bigint[])
         AS b (route_id, day, class, facet, key, clicks) JOIN routes r ON r.id = b.route_id),
     own AS (INSERT INTO click_counts AS c (site_id, route_id, facet, day, key, class, clicks)
       SELECT site_id, route_id, facet, day, key, class, clicks FROM batch ORDER BY 1, 2, 3, 4, 5, 6
       ON CONFLICT (site_id, route_id, facet, day, key, class) DO UPDATE SET clicks = c.clicks + excluded.clicks)
     INSERT INTO click_counts AS c (site_id, route_id, facet, day, key, class, clicks)
       SELECT site_id, 0, facet, day, key, class, sum(clicks) FROM batch GROUP BY 1, 3, 4, 5, 6 ORDER BY 1, 3, 4, 5, 6
       ON CONFLICT (site_id, route_id, facet, day, key, class) DO UPDATE SET clicks = c.clicks + excluded.clicks`,
    {
      route: rows.map((row) => row[0]),
      day: rows.map((row) => row[1]),
      class: rows.map((row) => row[2]),
      facet: rows.map((row) => row[3]),
      key: rows.map((row) => row[4]),
      clicks: rows.map((row) => row[5]),
    },
    transaction,
  );
}

async function writeTotals(
  store: Store,
  totals: ReadonlyMap<string, { clicks: number; last: number }>,
  transaction: Transaction,
): Promise<void> {
  if (totals.size === 0) return;
  await store.rows(
    `INSERT INTO route_clicks AS c (route_id, clicks, last_at)
     SELECT route_id, clicks, to_timestamp(last / 1000.0) FROM unnest($route::bigint[], $clicks::bigint[], $last::bigint[]) AS b (route_id, clicks, last)
     ORDER BY 1
     ON CONFLICT (route_id) DO UPDATE SET clicks = c.clicks + excluded.clicks, last_at = greatest(c.last_at, excluded.last_at)`,
    {
      route: [...totals.keys()],
      clicks: [...totals.values()].map(({ clicks }) => clicks),
      last: [...totals.values()].map(({ last }) => last),
    },
    transaction,
  );
}
