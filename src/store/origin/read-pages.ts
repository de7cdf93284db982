import type { Transaction } from "sequelize";
import { noteChange } from "../ground/changes.ts";
import type { Store } from "../ground/store.ts";

// The words and links of a page g that are its own: what stands on many pages is kept once, elsewhere.
const OWN_HTML = `(SELECT coalesce(string_agg(b.value->>'html', E'\\n' ORDER BY b.ordinality), '') FROM jsonb_array_elements(g.blocks) WITH ORDINALITY b
  WHERE NOT EXISTS (SELECT 1 FROM repeated_keys k WHERE k.site_id = g.site_id AND k.key = b.value->>'key'))`;

/**
 * Brings the entries of pages up to what was last read of them: those that were read have one, with what is their own;
 * those that are gone, hidden or another's have none. What is as it was is not touched. Answers how many changed.
 */
export async function keepReadPages(
  store: Store,
  of: { site: string; ids: readonly string[] },
): Promise<number> {
  return store.transaction(async (transaction) => {
    await holdOrigin(store, of, transaction);
    const changed = [
      ...(await dropUnread(store, of, transaction)),
      ...(await changeKept(store, of, transaction)),
      ...(await addRead(store, of, transaction)),
    ];
    const led = await unsettleLinksTo(store, of, transaction);
    if (led.length > 0 && changed.length === 0)
      await noteChange(store, transaction, { siteId: of.site, kind: "page", objectId: led[0]!.id });
    const [first] = changed;
    if (first) await noteChange(store, transaction, { siteId: of.site, kind: "page", objectId: first.id });
    return changed.length;
  });
}

// Whoever names another origin, or none, forgets what was read of this one: before, or after, and not in between.
async function holdOrigin(store: Store, { site }: { site: string }, transaction: Transaction): Promise<void> {
  await store.rows("SELECT id FROM sites WHERE id = $site::bigint FOR SHARE", { site }, transaction);
}

async function isForgotten(store: Store, id: string, transaction: Transaction): Promise<boolean> {
  const rows = await store.rows("SELECT id FROM readings WHERE id = $id::bigint", { id }, transaction);
  return rows.length === 0;
}

// Entries of links that lead to what is gone or moved by now, or is so no more, are out of date.
function unsettleLinksTo(
  store: Store,
  of: { site: string; ids: readonly string[] },
  transaction: Transaction,
): Promise<{ id: string }[]> {
  return store.rows<{ id: string }>(
    `UPDATE ledger_sources s SET stamp = '' WHERE s.id IN (
       SELECT l.source_id FROM readings g JOIN ledger_links l ON l.site_id = g.site_id AND l.own_key = g.key
       WHERE g.site_id = $site::bigint AND g.id = ANY($ids::bigint[])
         AND ((g.state = 'gone') <> (l.kind = 'broken') OR (g.state = 'moved') <> ('redirected' = ANY(l.text_findings)))) RETURNING s.page_id::text AS id`,
    of,
    transaction,
  );
}

function dropUnread(
  store: Store,
  of: { site: string; ids: readonly string[] },
  transaction: Transaction,
): Promise<{ id: string }[]> {
  return store.rows<{ id: string }>(
    `DELETE FROM pages p USING readings g WHERE g.site_id = $site::bigint AND g.id = ANY($ids::bigint[]) AND g.page_id = p.id AND p.kind = 'read'
       AND g.state NOT IN ('read', 'scripts', 'failing', 'waiting') RETURNING p.id::text`,
    of,
    transaction,
  );
}

function changeKept(
  store: Store,
  of: { site: string; ids: readonly string[] },
  transaction: Transaction,
): Promise<{ id: string }[]> {
  return store.rows<{ id: string }>(
    `WITH now_read AS (
       SELECT g.page_id, g.title, g.description, g.part, ${OWN_HTML} AS html FROM readings g
       WHERE g.site_id = $site::bigint AND g.id = ANY($ids::bigint[]) AND g.state IN ('read', 'scripts') AND g.blocks IS NOT NULL)
     UPDATE pages p SET title = n.title, description = n.description, category = n.part, html = n.html, version = p.version + 1,
       published_version = p.version + 1, updated_at = now(), published = p.published || jsonb_build_object('title', n.title, 'category', n.part)
     FROM now_read n WHERE p.id = n.page_id AND (p.title, p.description, p.category, p.html) IS DISTINCT FROM (n.title, n.description, n.part, n.html)
     RETURNING p.id::text`,
    of,
    transaction,
  );
}

async function addRead(
  store: Store,
  of: { site: string; ids: readonly string[] },
  transaction: Transaction,
): Promise<{ id: string }[]> {
  return store.rows<{ id: string }>(
    `WITH made AS (
       INSERT INTO pages (site_id, kind, path, key, title, description, category, body, html, published, published_key, published_version, published_at, version, updated_by, admitted)
       SELECT g.site_id, 'read', g.path, g.key, g.title, g.description, g.part, '{"type": "doc", "content": []}', ${OWN_HTML},
         jsonb_build_object('path', g.path, 'title', g.title, 'description', g.description, 'category', g.part, 'inNavigation', false, 'html', ''),
         g.key, 1, now(), 1, '', true
       FROM readings g WHERE g.site_id = $site::bigint AND g.id = ANY($ids::bigint[]) AND g.state IN ('read', 'scripts') AND g.blocks IS NOT NULL AND g.page_id IS NULL
       ON CONFLICT DO NOTHING RETURNING id, key)
     UPDATE readings g SET page_id = m.id FROM made m WHERE g.site_id = $site::bigint AND g.id = ANY($ids::bigint[]) AND g.key = m.key RETURNING m.id::text`,
    of,
    transaction,
  );
}

/** Where a site's pages stand elsewhere, with their titles. */
export function pagesElsewhere(
  store: Store,
  of: { site: string; most: number },
): Promise<{ address: string; title: string }[]> {
  return store.rows<{ address: string; title: string }>(
    "SELECT path AS address, title FROM pages WHERE site_id = $site::bigint AND kind = 'read' AND deleted_at IS NULL ORDER BY id LIMIT $most::int",
    of,
  );
}

/**
 * The keys of pages elsewhere that carry paid links, of their own or in what stands on many pages, and do not tell their
 * readers so themselves.
 */
export async function paidElsewhere(store: Store, of: { site: string }): Promise<string[]> {
  const rows = await store.rows<{ key: string }>(
    `WITH marked AS MATERIALIZED (
       SELECT s.page_id, s.kind, s.tells, EXISTS (SELECT FROM ledger_links l WHERE l.source_id = s.id
         AND (cardinality(l.programs) > 0 OR 'sponsored' = ANY(string_to_array(l.rel, ' ')))) AS paid
       FROM ledger_sources s WHERE s.site_id = $site::bigint AND s.kind IN ('read', 'repeated') AND s.live),
     repeated AS MATERIALIZED (
       SELECT k.key, m.paid, m.tells FROM marked m JOIN repeated_keys k ON k.page_id = m.page_id WHERE m.kind = 'repeated' AND (m.paid OR m.tells)),
     standing AS (
       SELECT g.key, m.paid, m.tells FROM marked m JOIN readings g ON g.page_id = m.page_id WHERE m.kind = 'read' AND (m.paid OR m.tells)
       UNION ALL
       SELECT g.key, r.paid, r.tells FROM readings g CROSS JOIN LATERAL jsonb_array_elements(g.blocks) b JOIN repeated r ON r.key = b.value->>'key'
       WHERE g.site_id = $site::bigint AND EXISTS (SELECT FROM repeated) AND g.blocks IS NOT NULL)
     SELECT key FROM standing GROUP BY key HAVING bool_or(paid) AND NOT bool_or(tells)`,
    of,
  );
  return rows.map(({ key }) => key);
}

/** A page's blocks by their keys, as their repeats are looked for. */
export function keysOfReadings(
  store: Store,
  of: { site: string; after: string; most: number },
): Promise<{ id: string; part: string; keys: string }[]> {
  return store.rows<{ id: string; part: string; keys: string }>(
    `SELECT id::text, part, keys FROM readings WHERE site_id = $site::bigint AND state IN ('read', 'scripts') AND id > $after::bigint ORDER BY id LIMIT $most::int`,
    of,
  );
}

/** The blocks of pages, to read what repeats in them from. */
export function blocksOfReadings(
  store: Store,
  of: { site: string; ids: readonly string[] },
): Promise<{ blocks: StoredBlock[] }[]> {
  return store.rows<{ blocks: StoredBlock[] }>(
    "SELECT blocks FROM readings WHERE site_id = $site::bigint AND id = ANY($ids::bigint[]) AND blocks IS NOT NULL",
    of,
  );
}

/** A block as it is kept: by the key of its words and links. */
export interface StoredBlock {
  key: string;
  html: string;
}

/** What stands together on many pages, and is kept once. */
export interface RepeatedPartRow {
  /** By which it is known again in the next round. */
  name: string;
  title: string;
  html: string;
  keys: readonly string[];
  pages: number;
}

/** Keeps what stands on many pages: an entry for each part. Parts that are no more are forgotten; `foundIn` is a page that they were
 * found in. Answers whether anything is another than before. */
export async function keepRepeated(
  store: Store,
  of: { site: string; foundIn: string | undefined; parts: readonly RepeatedPartRow[] },
): Promise<boolean> {
  const rows = JSON.stringify(of.parts);
  return store.transaction(async (transaction) => {
    await holdOrigin(store, of, transaction);
    // What was read is forgotten by now, and what repeated in it with it.
    if (of.foundIn !== undefined && (await isForgotten(store, of.foundIn, transaction))) return false;
    const gone = await store.rows(
      "DELETE FROM pages WHERE site_id = $site::bigint AND kind = 'repeated' AND key <> ALL($names::text[]) RETURNING id",
      { site: of.site, names: of.parts.map(({ name }) => name) },
      transaction,
    );
    const changed = await store.rows<{ id: string }>(
      `INSERT INTO pages AS o (site_id, kind, path, key, title, body, html, published, published_version, published_at, version, updated_by, admitted, on_pages)
       SELECT $site::bigint, 'repeated', name, name, title, '{"type": "doc", "content": []}', html,
         jsonb_build_object('path', name, 'title', title, 'description', '', 'category', '', 'inNavigation', false, 'html', ''), 1, now(), 1, '', true, pages
       FROM jsonb_to_recordset($rows::jsonb) AS r (name text, title text, html text, pages integer)
       ON CONFLICT (site_id, key) WHERE deleted_at IS NULL DO UPDATE SET title = excluded.title, html = excluded.html, on_pages = excluded.on_pages,
         version = o.version + 1, published_version = o.version + 1, updated_at = now()
       WHERE (o.html, o.on_pages) IS DISTINCT FROM (excluded.html, excluded.on_pages) RETURNING o.id::text`,
      { site: of.site, rows },
      transaction,
    );
    await store.rows(
      "DELETE FROM repeated_keys WHERE site_id = $site::bigint RETURNING key",
      { site: of.site },
      transaction,
    );
    await store.rows(
      `INSERT INTO repeated_keys (site_id, key, page_id)
       SELECT $site::bigint, w.key, o.id FROM jsonb_to_recordset($rows::jsonb) AS r (name text, keys text[])
       JOIN pages o ON o.site_id = $site::bigint AND o.key = r.name AND o.deleted_at IS NULL CROSS JOIN LATERAL unnest(r.keys) AS w (key)
       ON CONFLICT DO NOTHING RETURNING key`,
      { site: of.site, rows },
      transaction,
    );
    if (changed.length + gone.length > 0)
      await noteChange(store, transaction, { siteId: of.site, kind: "site" });
    return changed.length + gone.length > 0;
  });
}

/** What stands on many pages, with its links, the most frequent first. */
export function repeatedOf(
  store: Store,
  of: { site: string },
): Promise<{ id: string; title: string; onPages: number; links: number }[]> {
  return store.rows<{ id: string; title: string; onPages: number; links: number }>(
    `SELECT p.id::text, p.title, p.on_pages AS "onPages",
       (SELECT count(*)::int FROM ledger_links l JOIN ledger_sources s ON s.id = l.source_id WHERE s.site_id = p.site_id AND s.page_id = p.id) AS links
     FROM pages p WHERE p.site_id = $site::bigint AND p.kind = 'repeated' ORDER BY p.on_pages DESC, p.id`,
    of,
  );
}
