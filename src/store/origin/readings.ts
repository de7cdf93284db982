import type { Transaction } from "sequelize";
import type { ReadingState } from "../../core/origin/origin.ts";
import { containing } from "../ground/like.ts";
import { limitOf, orderOf, type Portion } from "../ground/portions.ts";
import type { Store } from "../ground/store.ts";

/** An address that was found, before anybody has asked for it. */
export interface FoundAddress {
  path: string;
  key: string;
  part: string;
  /** The site's own sitemap or feed names it, and says when it last changed. */
  named: boolean;
  namedChange: string | null;
  /** Steps from what was named first. */
  depth: number;
  state: "found" | "waiting" | "forbidden";
}

/** Keeps addresses that were found; of those that are known, what a sitemap says of them is brought up to date. Answers how many are new: none where
 * the site's pages stand elsewhere by now. */
export async function addFound(
  store: Store,
  of: { site: string; origin: string; rows: readonly FoundAddress[] },
): Promise<number> {
  if (of.rows.length === 0) return 0;
  const [row] = await store.rows<{ added: number }>(
    `WITH kept AS (
       INSERT INTO readings AS g (site_id, path, key, part, named, named_change, depth, state)
       SELECT $site::bigint, path, key, part, named, "namedChange", depth, state
       FROM jsonb_to_recordset($rows::jsonb) AS r (path text, key text, part text, named boolean, "namedChange" timestamptz, depth integer, state text)
       CROSS JOIN (SELECT id FROM sites WHERE id = $site::bigint AND origin->>'address' = $origin FOR SHARE) AS still
       ON CONFLICT (site_id, path) DO UPDATE SET named = g.named OR excluded.named, named_change = coalesce(excluded.named_change, g.named_change),
         next_at = CASE WHEN excluded.named_change > g.read_at THEN now() ELSE g.next_at END
       WHERE excluded.named
       RETURNING (xmax = 0) AS new)
     SELECT count(*) FILTER (WHERE new)::int AS added FROM kept`,
    { site: of.site, origin: of.origin, rows: JSON.stringify(of.rows) },
  );
  return row!.added;
}

// Whether a page is to be read: of the chosen parts, and not left out.
const CHOSEN = `((cardinality($parts::text[]) = 0 OR part = ANY($parts::text[]))
  AND NOT EXISTS (SELECT 1 FROM unnest($leaveOut::text[]) AS start WHERE starts_with(path, start) OR split_part(path, '?', 1) || '/' = start))`;

/**
 * Puts those that were found in the chosen parts in line to be read, at most so many in all, and takes out of it what is left out.
 * Answers which pages had been read and are left out by now: they are no more than found.
 */
export async function lineUp(
  store: Store,
  of: { site: string; parts: readonly string[]; leaveOut: readonly string[]; most: number },
): Promise<string[]> {
  const { site, parts, leaveOut } = of;
  await store.rows(
    `UPDATE readings SET state = 'found' WHERE site_id = $site::bigint AND state = 'waiting' AND read_at IS NULL RETURNING id`,
    { site },
  );
  const left = await store.rows<{ id: string }>(
    `UPDATE readings SET state = 'found', read_at = NULL, next_at = NULL, tries = 0
     WHERE site_id = $site::bigint AND state <> 'found' AND NOT ${CHOSEN} RETURNING id::text`,
    { site, parts, leaveOut },
  );
  await store.rows(
    `UPDATE readings SET state = 'waiting' WHERE id IN (
       SELECT id FROM readings WHERE site_id = $site::bigint AND state = 'found' AND ${CHOSEN}
       ORDER BY named DESC, depth, id
       LIMIT greatest(0, $most::int - (SELECT count(*)::int FROM readings WHERE site_id = $site::bigint AND read_at IS NOT NULL))) RETURNING id`,
    of,
  );
  return left.map(({ id }) => id);
}

/** Puts pages in line whose time to be read again has come; all that were ever read where `all` is set. Answers how many wait. */
export async function lineUpAgain(store: Store, of: { site: string; all: boolean }): Promise<number> {
  await store.rows(
    `UPDATE readings SET state = 'waiting', tries = 0, next_at = NULL WHERE site_id = $site::bigint AND state NOT IN ('found', 'waiting')
       AND ($all::boolean OR (next_at <= now() AND state <> 'forbidden')) RETURNING id`,
    of,
  );
  const [row] = await store.rows<{ waiting: number }>(
    "SELECT count(*)::int AS waiting FROM readings WHERE site_id = $site::bigint AND state = 'waiting'",
    { site: of.site },
  );
  return row!.waiting;
}

/** Puts these pages first in line. */
export async function lineUpNow(store: Store, of: { site: string; paths: readonly string[] }): Promise<void> {
  await store.rows(
    "UPDATE readings SET state = 'waiting', tries = 0, depth = -1 WHERE site_id = $site::bigint AND path = ANY($paths::text[]) RETURNING id",
    of,
  );
}

/** A page whose turn it is, with what the last reading is told again by. */
export interface WaitingReading {
  id: string;
  path: string;
  depth: number;
  named: boolean;
  tries: number;
  etag: string | null;
  lastModified: string | null;
  digest: string | null;
  waitedMs: string | null;
  hasBlocks: boolean;
}

/** The next pages in line. */
export function nextWaiting(store: Store, of: { site: string; most: number }): Promise<WaitingReading[]> {
  return store.rows<WaitingReading>(
    `SELECT id::text, path, depth, named, tries, etag, last_modified AS "lastModified", digest, waited_ms::text AS "waitedMs", blocks IS NOT NULL AS "hasBlocks"
     FROM readings WHERE site_id = $site::bigint AND state = 'waiting' ORDER BY tries, (depth < 0) DESC, named DESC, depth, id LIMIT $most::int`,
    of,
  );
}

/** How much is done and to do. */
export async function readingProgress(
  store: Store,
  of: { site: string },
): Promise<{ done: number; waiting: number }> {
  const [row] = await store.rows<{ done: number; waiting: number }>(
    `SELECT count(*) FILTER (WHERE state NOT IN ('waiting', 'found', 'forbidden'))::int AS done, count(*) FILTER (WHERE state = 'waiting')::int AS waiting
     FROM readings WHERE site_id = $site::bigint`,
    of,
  );
  return row!;
}

/** What came of asking for a page. */
export interface TakenReading {
  id: string;
  state: ReadingState;
  status: number | null;
  note: string;
  leadsTo: string | null;
  /** Null: what was read before stands as it is. */
  content: {
    title: string;
    description: string;
    language: string;
    words: number;
    blocks: string;
    keys: string;
    digest: string;
  } | null;
  etag: string | null;
  lastModified: string | null;
  tries: number;
  waitedMs: number | null;
  hasChanged: boolean;
}

/** Writes down what came of asking for pages. */
export async function noteReadings(store: Store, rows: readonly TakenReading[]): Promise<void> {
  if (rows.length === 0) return;
  await store.rows(
    `UPDATE readings g SET state = r.state, status = r.status, note = r.note, leads_to = r."leadsTo", etag = r.etag, last_modified = r."lastModified", tries = r.tries,
       title = coalesce(r.content->>'title', g.title), description = coalesce(r.content->>'description', g.description),
       language = coalesce(r.content->>'language', g.language), words = coalesce((r.content->>'words')::int, g.words),
       blocks = coalesce((r.content->>'blocks')::jsonb, g.blocks), keys = coalesce(r.content->>'keys', g.keys), digest = coalesce(r.content->>'digest', g.digest),
       read_at = CASE WHEN r.state = 'waiting' THEN g.read_at ELSE now() END,
       changed_at = CASE WHEN r."hasChanged" THEN now() ELSE g.changed_at END, waited_ms = r."waitedMs",
       next_at = CASE WHEN r.state = 'waiting' OR r."waitedMs" IS NULL THEN NULL ELSE now() + r."waitedMs" * interval '1 millisecond' END,
       depth = greatest(g.depth, 0)
     FROM jsonb_to_recordset($rows::jsonb) AS r (id bigint, state text, status integer, note text, "leadsTo" text, content jsonb, etag text, "lastModified" text,
       tries integer, "waitedMs" bigint, "hasChanged" boolean)
     WHERE g.id = r.id RETURNING g.id`,
    { rows: JSON.stringify(rows) },
  );
}

export interface ReadingRow {
  id: string;
  path: string;
  state: ReadingState;
  status: number | null;
  note: string;
  leadsTo: string | null;
  title: string;
  language: string;
  words: number;
  readAt: Date | null;
  changedAt: Date | null;
  nextAt: Date | null;
  pageId: string | null;
  total: string;
}

export const READING_SORTS = {
  path: "path",
  title: "title",
  state: "state",
  readAt: "read_at",
  changedAt: "changed_at",
  words: "words",
};

/** A portion of a site's pages as they were read, each with how many there are. */
export function listReadings(
  store: Store,
  of: { site: string; state: ReadingState | undefined; q: string | undefined },
  portion: Portion,
): Promise<ReadingRow[]> {
  return store.rows<ReadingRow>(
    `SELECT id::text, path, state, status, note, leads_to AS "leadsTo", title, language, words, read_at AS "readAt", changed_at AS "changedAt",
       next_at AS "nextAt", page_id::text AS "pageId", count(*) OVER ()::text AS total FROM readings
     WHERE site_id = $site::bigint AND ($state::text IS NULL OR state = $state::text) AND ($q::text IS NULL OR path ILIKE $q::text OR title ILIKE $q::text)
     ORDER BY ${orderOf(READING_SORTS, portion.sort)}, id ${limitOf(portion)}`,
    { site: of.site, state: of.state ?? null, q: of.q ? containing(of.q) : null },
  );
}

export interface ReadingThere {
  key: string;
  state: ReadingState;
  leadsTo: string | null;
}

/** What is known of places of the origin by their path keys. */
export function readingsAtKeys(
  store: Store,
  of: { site: string; keys: readonly string[] },
): Promise<ReadingThere[]> {
  return store.rows<ReadingThere>(
    `SELECT key, state, leads_to AS "leadsTo" FROM readings WHERE site_id = $site::bigint AND key = ANY($keys::text[])`,
    of,
  );
}

/** Forgets all pages that were read of a site, with their entries; whoever keeps some at the moment is waited for. */
export async function forgetReadings(
  store: Store,
  of: { site: string },
  transaction: Transaction,
): Promise<void> {
  await store.rows("SELECT id FROM sites WHERE id = $site::bigint FOR UPDATE", of, transaction);
  await store.rows(
    "DELETE FROM pages WHERE site_id = $site::bigint AND kind IN ('read', 'repeated') RETURNING id",
    of,
    transaction,
  );
  await store.rows("DELETE FROM readings WHERE site_id = $site::bigint RETURNING id", of, transaction);
}
