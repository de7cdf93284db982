import type { Transaction } from "sequelize";
import { utcDay, type ClickRecord, type MissRecord, type SpoolRecord } from "../core/clicks/record.ts";
import type { Store } from "./store.ts";

/** A run of whole lines of one spool segment. */
export interface SpoolBatch {
  segment: string;
  /** Byte offsets in the segment: where the batch begins, and where the next one does. */
  from: number;
  to: number;
  records: readonly SpoolRecord[];
}

const MOST_REFERRERS = 10;

/** How many bytes of a segment have been copied. */
export async function copiedBytes(store: Store, segment: string): Promise<number> {
  const [row] = await store.rows<{ bytes: string }>(
    "SELECT copied_bytes::text AS bytes FROM spool_progress WHERE segment = $segment",
    { segment },
  );
  return Number(row?.bytes ?? 0);
}

/**
 * Copies a batch exactly once: its clicks, roll-ups and the segment's progress are one transaction, and a
 * batch that does not begin where the segment's progress stands is not taken. Answers whether it was.
 */
export async function copyBatch(store: Store, batch: SpoolBatch): Promise<boolean> {
  return store.transaction(async (transaction) => {
    await store.rows(
      "INSERT INTO spool_progress (segment, copied_bytes) VALUES ($segment, 0) ON CONFLICT DO NOTHING",
      { segment: batch.segment },
      transaction,
    );
    const [claimed] = await store.rows<{ segment: string }>(
      `WITH claimed AS (UPDATE spool_progress SET copied_bytes = $to, updated_at = now()
        WHERE segment = $segment AND copied_bytes = $from RETURNING segment) SELECT segment FROM claimed`,
      { segment: batch.segment, from: batch.from, to: batch.to },
      transaction,
    );
    if (!claimed) return false;
    await addClicks(
      store,
      batch.records.filter((record) => record.kind === "click"),
      transaction,
    );
    await addMisses(
      store,
      batch.records.filter((record) => record.kind === "miss"),
      transaction,
    );
    return true;
  });
}

/** Forgets the progress of segments whose files are gone. */
export async function forgetSegment(store: Store, segment: string): Promise<void> {
  await store.rows("DELETE FROM spool_progress WHERE segment = $segment", { segment });
}

async function addClicks(
  store: Store,
  clicks: readonly ClickRecord[],
  transaction: Transaction,
): Promise<void> {
  if (clicks.length === 0) return;
  const columns = {
    at: clicks.map((click) => new Date(click.at).toISOString()),
    route: clicks.map((click) => click.route),
    class: clicks.map((click) => click.class),
    device: clicks.map((click) => click.device),
    visitor: clicks.map((click) => click.visitor),
    referrer: clicks.map((click) => click.referrer),
    page: clicks.map((click) => click.page),
  };
  // Sorted, so that two processes that copy at once lock the roll-up rows in the same order.
  await store.rows(
    `WITH batch AS (
       SELECT * FROM unnest($at::timestamptz[], $route::bigint[], $class::text[], $device::text[], $visitor::text[], $referrer::text[], $page::text[])
         AS t (at, route_id, class, device, visitor, referrer, page)),
     kept AS (INSERT INTO clicks SELECT * FROM batch),
     days AS (INSERT INTO click_days (route_id, day, class, device, referrer, clicks)
       SELECT route_id, (at AT TIME ZONE 'UTC')::date AS day, class, device, referrer, count(*) FROM batch
       GROUP BY 1, 2, 3, 4, 5 ORDER BY 2, 1, 3, 4, 5
       ON CONFLICT (day, route_id, class, device, referrer) DO UPDATE SET clicks = click_days.clicks + excluded.clicks),
     visitors AS (INSERT INTO click_visitors (route_id, day, visitor)
       SELECT DISTINCT route_id, (at AT TIME ZONE 'UTC')::date AS day, visitor FROM batch WHERE class = 'person' ORDER BY 2, 1, 3
       ON CONFLICT DO NOTHING)
     INSERT INTO route_clicks (route_id, clicks, last_at)
       SELECT route_id, count(*), max(at) FROM batch WHERE class = 'person' GROUP BY 1 ORDER BY 1
       ON CONFLICT (route_id) DO UPDATE SET clicks = route_clicks.clicks + excluded.clicks, last_at = greatest(route_clicks.last_at, excluded.last_at)`,
    columns,
    transaction,
  );
}

async function addMisses(
  store: Store,
  misses: readonly MissRecord[],
  transaction: Transaction,
): Promise<void> {
  const grouped = new Map<string, MissRecord[]>();
  for (const miss of misses) {
    const key = `${miss.site}\t${miss.host}\t${miss.key}`;
    grouped.set(key, [...(grouped.get(key) ?? []), miss]);
  }
  for (const [, group] of [...grouped].sort(([a], [b]) => (a < b ? -1 : 1))) {
    const times = group.map((miss) => miss.at);
    const bots = group.filter((miss) => miss.class !== "person").length;
    await store.rows(
      `INSERT INTO misses (site_id, host, key, times, bots, first_seen, last_seen, referrers)
       SELECT id, $host, $key, $times, $bots, $first, $last, $referrers FROM sites WHERE id = $site
       ON CONFLICT (site_id, host, key) DO UPDATE SET times = misses.times + excluded.times, bots = misses.bots + excluded.bots,
         last_seen = greatest(misses.last_seen, excluded.last_seen), resolved_at = NULL,
         referrers = (SELECT coalesce(array_agg(r), '{}') FROM (SELECT DISTINCT r FROM unnest(misses.referrers || excluded.referrers) AS r LIMIT ${MOST_REFERRERS}) AS few)`,
      {
        site: group[0]!.site,
        host: group[0]!.host,
        key: group[0]!.key,
        times: group.length - bots,
        bots,
        first: new Date(Math.min(...times)).toISOString(),
        last: new Date(Math.max(...times)).toISOString(),
        referrers: [...new Set(group.map((miss) => miss.referrer).filter(Boolean))].slice(0, MOST_REFERRERS),
      },
      transaction,
    );
  }
}

/** The salt of a day's visitor keys, shared by all processes; older days' salts are thrown away for good. */
export async function visitorSalt(store: Store, now: number, fresh: string): Promise<string> {
  const day = utcDay(now);
  await store.rows("DELETE FROM visitor_days WHERE day < $day", { day });
  await store.rows("INSERT INTO visitor_days (day, salt) VALUES ($day, $fresh) ON CONFLICT DO NOTHING", {
    day,
    fresh,
  });
  const [row] = await store.rows<{ salt: string }>("SELECT salt FROM visitor_days WHERE day = $day", { day });
  return row!.salt;
}
