import type { Store } from "./store.ts";

const SETTLE_LOCK = 731_603;

/** A day whose clicks have changed since its visitors were counted. */
export interface UnsettledDay {
  day: string;
  /** Marks up to this one are taken care of when the day is settled now. */
  mark: string;
}

/** The days that wait, oldest first. */
export async function unsettledDays(store: Store): Promise<UnsettledDay[]> {
  return store.rows<UnsettledDay>(
    "SELECT to_char(day, 'YYYY-MM-DD') AS day, max(id)::text AS mark FROM unsettled_days GROUP BY day ORDER BY day",
  );
}

/**
 * Counts the visitors of one day anew from its clicks: of the site and of each route, whole and by facet. What was
 * counted before the day's clicks were dropped is never lowered. False when another process is settling.
 */
export async function settleDay(store: Store, { day, mark }: UnsettledDay): Promise<boolean> {
  return store.transaction(async (transaction) => {
    const [lock] = await store.rows<{ mine: boolean }>(
      "SELECT pg_try_advisory_xact_lock($lock) AS mine",
      { lock: SETTLE_LOCK },
      transaction,
    );
    if (!lock!.mine) return false;
    // Deduplicating first makes the distinct counts cheap: most of a day's clicks of one visitor are alike.
    await store.sequelize.query("SET LOCAL work_mem = '64MB'", { transaction });
    await store.rows(
      `WITH raw AS MATERIALIZED (
         SELECT DISTINCT r.site_id, c.route_id, c.visitor, c.device, c.referrer, c.page, to_char(c.at AT TIME ZONE 'UTC', 'HH24') AS hour
         FROM clicks c JOIN routes r ON r.id = c.route_id
         WHERE c.at >= $day::date::timestamp AT TIME ZONE 'UTC' AND c.at < ($day::date + 1)::timestamp AT TIME ZONE 'UTC' AND c.class = 'person'),
       counted AS (
         SELECT site_id, route_id, 'all' AS facet, '' AS key, count(DISTINCT visitor) AS visitors FROM raw GROUP BY GROUPING SETS ((site_id), (site_id, route_id))
         UNION ALL SELECT site_id, route_id, 'device', device, count(DISTINCT visitor) FROM raw GROUP BY GROUPING SETS ((site_id, device), (site_id, route_id, device))
         UNION ALL SELECT site_id, route_id, 'referrer', referrer, count(DISTINCT visitor) FROM raw GROUP BY GROUPING SETS ((site_id, referrer), (site_id, route_id, referrer))
         UNION ALL SELECT site_id, route_id, 'page', page, count(DISTINCT visitor) FROM raw GROUP BY GROUPING SETS ((site_id, page), (site_id, route_id, page))
         UNION ALL SELECT site_id, route_id, 'hour', hour, count(DISTINCT visitor) FROM raw GROUP BY GROUPING SETS ((site_id, hour), (site_id, route_id, hour)))
       UPDATE click_counts c SET visitors = n.visitors FROM counted n
       WHERE c.site_id = n.site_id AND c.route_id = coalesce(n.route_id, 0) AND c.facet = n.facet AND c.day = $day::date
         AND c.key = n.key AND c.class = 'person' AND c.visitors < n.visitors`,
      { day },
      transaction,
    );
    await store.rows(
      "DELETE FROM unsettled_days WHERE day = $day::date AND id <= $mark::bigint",
      { day, mark },
      transaction,
    );
    return true;
  });
}
