import type { Transaction } from "sequelize";
import { containing } from "../ground/like.ts";
import { limitOf, orderOf, type Portion } from "../ground/portions.ts";
import type { Store } from "../ground/store.ts";
import { DIFFERS_THERE } from "./results.ts";

// Links of pages that are read elsewhere, each with which of several alike on its page it is.
const THERE = `there AS (
  SELECT s.page_id, l.ordinal, l.href, l.words, l.stored_rel, l.stored_target, l.wanted_rel AS rel, l.wanted_target AS target, l.rules, ${DIFFERS_THERE} AS differs,
    row_number() OVER (PARTITION BY l.source_id, l.href, l.words ORDER BY l.ordinal)::int AS nth
  FROM ledger_links l JOIN ledger_sources s ON s.id = l.source_id WHERE l.site_id = $site::bigint AND l.source_kind IN ('read', 'repeated'))`;

/** A link that has just come onto the list, to find its sentence by. */
export interface NewTodo {
  id: string;
  pageId: string;
  ordinal: number;
}

/**
 * Brings the list up to what was read and what rules ask: what they ask of a link is on it while the link is another there,
 * done once it is as asked, and gone when the link is. What somebody asked for is done when it is found so. Answers what is new.
 */
export async function keepTodos(store: Store, of: { site: string }): Promise<NewTodo[]> {
  return store.transaction(async (transaction) => {
    await endTodos(store, of, transaction);
    return store.rows<NewTodo>(
      `WITH ${THERE}, kept AS (
         INSERT INTO todos AS t (site_id, page_id, asked, href, words, nth, before_rel, before_target, after_href, after_rel, after_target, why)
         SELECT $site::bigint, page_id, false, href, words, nth, stored_rel, stored_target, NULL, nullif(rel, ''), target, array_to_string(rules, ', ')
         FROM there WHERE differs ORDER BY page_id, ordinal
         ON CONFLICT (site_id, page_id, href, words, nth, asked) DO UPDATE SET before_rel = excluded.before_rel, before_target = excluded.before_target,
           after_rel = excluded.after_rel, after_target = excluded.after_target, why = excluded.why, state = 'open', ended_at = NULL
         WHERE (t.before_rel, t.before_target, t.after_rel, t.after_target, t.why, t.state)
           IS DISTINCT FROM (excluded.before_rel, excluded.before_target, excluded.after_rel, excluded.after_target, excluded.why, 'open')
         RETURNING t.id, t.page_id, t.href, t.words, t.nth, t.sentence)
       SELECT k.id::text, k.page_id::text AS "pageId", there.ordinal FROM kept k
       JOIN there ON there.page_id = k.page_id AND there.href = k.href AND there.words = k.words AND there.nth = k.nth WHERE k.sentence = ''`,
      of,
      transaction,
    );
  });
}

async function endTodos(store: Store, of: { site: string }, transaction: Transaction): Promise<void> {
  await store.rows(
    `WITH ${THERE}
     UPDATE todos t SET ended_at = now(), state = CASE
         WHEN t.asked AND EXISTS (SELECT 1 FROM there l WHERE l.page_id = t.page_id AND l.words = t.words AND l.href = t.after_href) THEN 'done'
         WHEN t.asked THEN 'gone'
         WHEN EXISTS (SELECT 1 FROM there l WHERE l.page_id = t.page_id AND l.href = t.href AND l.words = t.words AND NOT l.differs) THEN 'done'
         ELSE 'gone' END
     WHERE t.site_id = $site::bigint AND t.state = 'open' AND (
       (t.asked AND (NOT EXISTS (SELECT 1 FROM there l WHERE l.page_id = t.page_id AND l.href = t.href AND l.words = t.words AND l.nth = t.nth)))
       OR (NOT t.asked AND NOT EXISTS (SELECT 1 FROM there l WHERE l.page_id = t.page_id AND l.href = t.href AND l.words = t.words AND l.nth = t.nth AND l.differs)))
     RETURNING t.id`,
    of,
    transaction,
  );
}

/** Puts what somebody asked for on the list: other addresses for links of pages that cannot be changed from here. */
export async function askTodos(
  store: Store,
  of: { site: string; by: string; why: string; rows: readonly { link: string; href: string }[] },
  transaction: Transaction,
): Promise<NewTodo[]> {
  return store.rows<NewTodo>(
    `WITH ${THERE}, wanted AS (SELECT * FROM jsonb_to_recordset($rows::jsonb) AS r (link bigint, href text)),
     named AS (
       SELECT s.page_id, l.ordinal, w.href AS after_href FROM wanted w JOIN ledger_links l ON l.id = w.link AND l.site_id = $site::bigint
       JOIN ledger_sources s ON s.id = l.source_id),
     kept AS (
       INSERT INTO todos AS t (site_id, page_id, asked, href, words, nth, before_rel, before_target, after_href, after_rel, after_target, why, made_by)
       SELECT $site::bigint, there.page_id, true, there.href, there.words, there.nth, there.stored_rel, there.stored_target, named.after_href, there.stored_rel,
         there.stored_target, $why, $by
       FROM named JOIN there ON there.page_id = named.page_id AND there.ordinal = named.ordinal
       ON CONFLICT (site_id, page_id, href, words, nth, asked) DO UPDATE SET after_href = excluded.after_href, why = excluded.why, made_by = excluded.made_by,
         state = 'open', made_at = now(), ended_at = NULL RETURNING t.id, t.page_id, t.href, t.words, t.nth)
     SELECT k.id::text, k.page_id::text AS "pageId", there.ordinal FROM kept k
     JOIN there ON there.page_id = k.page_id AND there.href = k.href AND there.words = k.words AND there.nth = k.nth`,
    { ...of, rows: JSON.stringify(of.rows) },
    transaction,
  );
}

/** Takes what was asked for off the list again, where nobody has done it yet. */
export async function dropTodos(
  store: Store,
  of: { site: string; ids: readonly string[] },
  transaction: Transaction,
): Promise<void> {
  await store.rows(
    "DELETE FROM todos WHERE site_id = $site::bigint AND id = ANY($ids::bigint[]) AND state = 'open' RETURNING id",
    of,
    transaction,
  );
}

/** The texts of pages, to find sentences in. */
export function htmlOfPages(
  store: Store,
  of: { site: string; ids: readonly string[] },
): Promise<{ id: string; html: string }[]> {
  return store.rows<{ id: string; html: string }>(
    "SELECT id::text, html FROM pages WHERE site_id = $site::bigint AND id = ANY($ids::bigint[])",
    of,
  );
}

/** Writes down the sentences that links stand in. */
export async function noteSentences(
  store: Store,
  rows: readonly { id: string; sentence: string }[],
): Promise<void> {
  if (rows.length === 0) return;
  await store.rows(
    `UPDATE todos t SET sentence = r.sentence FROM jsonb_to_recordset($rows::jsonb) AS r (id bigint, sentence text) WHERE t.id = r.id RETURNING t.id`,
    { rows: JSON.stringify(rows) },
  );
}

export interface TodoRow {
  id: string;
  path: string;
  kind: string;
  title: string;
  onPages: number;
  sentence: string;
  words: string;
  href: string;
  beforeRel: string | null;
  beforeTarget: string | null;
  afterHref: string | null;
  afterRel: string | null;
  afterTarget: string | null;
  why: string;
  state: "open" | "done" | "gone";
  madeAt: Date;
  endedAt: Date | null;
  total: string;
}

export const TODO_SORTS = {
  page: "p.path",
  words: "t.words",
  why: "t.why",
  madeAt: "t.made_at",
  endedAt: "t.ended_at",
};

/** A portion of the list, each with how many there are. */
export function listTodos(
  store: Store,
  of: { site: string; state: "open" | "done" | "gone"; q: string | undefined },
  portion: Portion,
): Promise<TodoRow[]> {
  return store.rows<TodoRow>(
    `SELECT t.id::text, p.path, p.kind, p.title, p.on_pages AS "onPages", t.sentence, t.words, t.href, t.before_rel AS "beforeRel", t.before_target AS "beforeTarget",
       t.after_href AS "afterHref", t.after_rel AS "afterRel", t.after_target AS "afterTarget", t.why, t.state, t.made_at AS "madeAt", t.ended_at AS "endedAt",
       count(*) OVER ()::text AS total
     FROM todos t JOIN pages p ON p.id = t.page_id
     WHERE t.site_id = $site::bigint AND t.state = $state ${of.q ? "AND (t.words ILIKE $q OR t.href ILIKE $q OR p.path ILIKE $q OR p.title ILIKE $q)" : ""}
     ORDER BY ${portion.sort ? orderOf(TODO_SORTS, portion.sort) : "p.on_pages DESC, p.path"}, t.id ${limitOf(portion)}`,
    { site: of.site, state: of.state, ...(of.q ? { q: containing(of.q) } : {}) },
  );
}

/** How many are open, done and gone. */
export function todoCounts(
  store: Store,
  of: { site: string },
): Promise<{ state: "open" | "done" | "gone"; links: number }[]> {
  return store.rows<{ state: "open" | "done" | "gone"; links: number }>(
    "SELECT state, count(*)::int AS links FROM todos WHERE site_id = $site::bigint GROUP BY state",
    of,
  );
}
