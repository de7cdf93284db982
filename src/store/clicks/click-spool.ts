import { finished } from "node:stream/promises";
import { setImmediate as immediate } from "node:timers/promises";
import type pg from "pg";
import { from as copyFrom } from "pg-copy-streams";
import type { Transaction } from "sequelize";
import { isProbe } from "../../core/misses/probe.ts";
import { utcDay, type ClickRecord, type MissRecord, type SpoolRecord } from "../../core/clicks/record.ts";
import { keepWithinBound } from "../misses/miss-keeping.ts";
import { ensureMonths } from "./click-months.ts";
import { escaped } from "../ground/copy-text.ts";
import { addToCounts, tallyBatch } from "./click-rollups.ts";
import type { Store } from "../ground/store.ts";

/** A run of whole lines of one spool segment. */
export interface SpoolBatch {
  segment: string;
  /** Byte offsets in the segment: where the batch begins, and where the next one does. */
  from: number;
  to: number;
  records: readonly SpoolRecord[];
  /** Lines in it that nobody can read. */
  unreadable?: number;
}

const MAX_REFERRERS = 10;
const COPY_PIECE = 64 * 1024;

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
  await ensureMonths(
    store,
    batch.records.filter(({ kind }) => kind === "click").map(({ at }) => at),
  );
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
    await addLost(store, batch, transaction);
    return true;
  });
}

/**
 * Notes that a segment was copied whole and its file is gone. Its progress is kept for an hour: another process may
 * have read the file before it went, and must find that its batch was taken.
 */
export async function closeSegment(store: Store, segment: string): Promise<void> {
  await store.rows("UPDATE spool_progress SET closed_at = now() WHERE segment = $segment", { segment });
  await store.rows("DELETE FROM spool_progress WHERE closed_at < now() - interval '1 hour'");
}

async function addClicks(
  store: Store,
  clicks: readonly ClickRecord[],
  transaction: Transaction,
): Promise<void> {
  if (clicks.length === 0) return;
  // PostgreSQL takes the rows in while they are counted here.
  const written = copyClicks(transaction, clicks);
  const [tally] = await Promise.all([tallyBatch(store, clicks), written]);
  await addToCounts(store, tally, transaction);
}

// COPY takes rows several times faster than INSERT (measured by `npm run bench -- clicks`). It runs on the
// transaction's own connection.
async function copyClicks(transaction: Transaction, clicks: readonly ClickRecord[]): Promise<void> {
  const { connection } = transaction as Transaction & { connection: pg.Client };
  const sink = connection.query(
    copyFrom("COPY clicks (at, route_id, class, device, visitor, referrer, page) FROM STDIN"),
  );
  const written = finished(sink);
  let second = -1;
  let front = "";
  let text = "";
  for (const click of clicks) {
    // Most clicks share a second: only their milliseconds are written anew.
    const now = Math.floor(click.at / 1000);
    if (now !== second) front = new Date((second = now) * 1000).toISOString().slice(0, 20);
    text += `${front}${String(click.at - now * 1000).padStart(3, "0")}Z\t${click.route}\t${click.class}\t${click.device}\t${escaped(click.visitor)}\t${escaped(click.referrer)}\t${escaped(click.page)}\n`;
    if (text.length > COPY_PIECE) {
      sink.write(text);
      text = "";
      // Lets the piece leave: PostgreSQL works on it while the next is written.
      await immediate();
    }
  }
  sink.end(text);
  await written;
}

async function addMisses(
  store: Store,
  misses: readonly MissRecord[],
  transaction: Transaction,
): Promise<void> {
  if (misses.length === 0) return;
  const grouped = new Map<string, MissRecord[]>();
  for (const miss of misses) {
    const key = `${miss.site}\t${miss.host}\t${miss.key}`;
    const there = grouped.get(key);
    if (there) there.push(miss);
    else grouped.set(key, [miss]);
  }
  const groups = [...grouped].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, group]) => group);
  const each = <T>(value: (group: readonly MissRecord[]) => T): T[] => groups.map(value);
  const robots = (group: readonly MissRecord[]): number =>
    group.filter((miss) => miss.class !== "person").length;
  const moment = (at: number): string => new Date(at).toISOString();
  const written = await store.rows<{ site: string; isNew: boolean }>(
    `INSERT INTO misses AS m (site_id, host, key, probe, times, bots, first_seen, last_seen, referrers)
     SELECT b.site, b.host, b.key, b.probe, b.times, b.bots, b.first, b.last, ARRAY(SELECT jsonb_array_elements_text(b.referrers))
     FROM unnest($site::bigint[], $host::text[], $key::text[], $probe::boolean[], $times::int[], $bots::int[], $first::timestamptz[], $last::timestamptz[], $referrers::jsonb[])
       AS b (site, host, key, probe, times, bots, first, last, referrers) JOIN sites s ON s.id = b.site
     ON CONFLICT (site_id, host, key) DO UPDATE SET times = m.times + excluded.times, bots = m.bots + excluded.bots,
       last_seen = greatest(m.last_seen, excluded.last_seen), resolved_at = NULL,
       referrers = (SELECT coalesce(array_agg(r), '{}') FROM (SELECT DISTINCT r FROM unnest(m.referrers || excluded.referrers) AS r LIMIT ${MAX_REFERRERS}) AS few)
     RETURNING site_id::text AS site, (xmax = 0) AS "isNew"`,
    {
      site: each((group) => group[0]!.site),
      host: each((group) => group[0]!.host),
      key: each((group) => group[0]!.key),
      probe: each((group) => isProbe(group[0]!.key)),
      times: each((group) => group.length - robots(group)),
      bots: each(robots),
      first: each((group) => moment(group.reduce((least, { at }) => Math.min(least, at), Infinity))),
      last: each((group) => moment(group.reduce((most, { at }) => Math.max(most, at), 0))),
      referrers: each((group) =>
        JSON.stringify(
          [...new Set(group.map((miss) => miss.referrer).filter(Boolean))].slice(0, MAX_REFERRERS),
        ),
      ),
    },
    transaction,
  );
  // Only what is new makes more of them.
  const grown = [...new Set(written.flatMap(({ site, isNew }) => (isNew ? site : [])))];
  if (grown.length > 0) await keepWithinBound(store, grown, transaction);
}

async function addLost(
  store: Store,
  { records, unreadable = 0 }: SpoolBatch,
  transaction: Transaction,
): Promise<void> {
  const lost = records.filter((record) => record.kind === "lost");
  if (lost.length === 0 && unreadable === 0) return;
  await store.rows(
    `INSERT INTO lost_records (at, records, why)
     SELECT *, 'disk' FROM unnest($at::timestamptz[], $records::bigint[])
     UNION ALL SELECT now(), $unreadable::bigint, 'unreadable' WHERE $unreadable::bigint > 0 RETURNING records`,
    {
      at: lost.map(({ at }) => new Date(at).toISOString()),
      records: lost.map(({ records: count }) => count),
      unreadable,
    },
    transaction,
  );
}

/** True for a refusal of what was to be written (SQLSTATE classes 22 and 23), not of writing as such. */
export function isDataFault(error: unknown): boolean {
  const { parent, code } = error as { parent?: { code?: string }; code?: string };
  return /^2[23]/.test(parent?.code ?? code ?? "");
}

/** How many records were lost between two moments, all sites together. */
export async function lostRecords(store: Store, from: Date, to: Date): Promise<number> {
  const [row] = await store.rows<{ records: string }>(
    "SELECT coalesce(sum(records), 0)::text AS records FROM lost_records WHERE at >= $from AND at < $to",
    { from: from.toISOString(), to: to.toISOString() },
  );
  return Number(row!.records);
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
