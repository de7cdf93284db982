import { LOCKS } from "../ground/locks.ts";
import type { Store } from "../ground/store.ts";

/** A day whose clicks have changed since it was settled. */
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
 * Counts one day anew from its clicks: visitors, of the site and of each route, whole and by facet, and each route's
 * clicks by facet. What was counted before the day's clicks were dropped is never lowered. False when another process
 * is settling.
 */
export async function settleDay(store: Store, { day, mark }: UnsettledDay): Promise<boolean> {
  return store.transaction(async (transaction) => {
    const [lock] = await store.rows<{ mine: boolean }>(
      "SELECT pg_try_advisory_xact_lock($lock) AS mine",
      { lock: LOCKS.settling },
      transaction,
    );
    if (!lock!.mine) return false;
    await store.sequelize.query("SET LOCAL work_mem = '64MB'", { transaction });
    const facet = (name: string, column: string): string =>
      `SELECT site_id, route_id, '${name}' AS facet, ${column} AS key, class, sum(clicks) AS clicks, count(DISTINCT visitor) AS visitors
       FROM raw GROUP BY GROUPING SETS ((site_id, class, ${column}), (site_id, route_id, class, ${column}))`;
    // Clicks alike in everything are taken together first: what follows is read five times.
    await store.rows(
      `WITH raw AS MATERIALIZED (
         SELECT r.site_id, c.route_id, c.class, c.visitor, c.device, c.referrer, c.page, to_char(c.at AT TIME ZONE 'UTC', 'HH24') AS hour,
           ''::text AS nothing, count(*) AS clicks
         FROM clicks c JOIN routes r ON r.id = c.route_id
         WHERE c.at >= $day::date::timestamp AT TIME ZONE 'UTC' AND c.at < ($day::date + 1)::timestamp AT TIME ZONE 'UTC'
         GROUP BY 1, 2, 3, 4, 5, 6, 7, 8),
       counted AS (${facet("all", "nothing")} UNION ALL ${facet("device", "device")} UNION ALL ${facet("referrer", "referrer")}
         UNION ALL ${facet("page", "page")} UNION ALL ${facet("hour", "hour")})
       INSERT INTO click_counts AS c (site_id, route_id, facet, day, key, class, clicks, visitors)
         SELECT site_id, coalesce(route_id, 0), facet, $day::date, key, class, clicks, CASE class WHEN 'person' THEN visitors ELSE 0 END FROM counted
         ORDER BY 1, 2, 3, 4, 5, 6
         ON CONFLICT (site_id, route_id, facet, day, key, class) DO UPDATE
           SET clicks = greatest(c.clicks, excluded.clicks), visitors = greatest(c.visitors, excluded.visitors)
           WHERE c.clicks < excluded.clicks OR c.visitors < excluded.visitors`,
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
