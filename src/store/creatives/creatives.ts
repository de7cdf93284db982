import type { Store } from "../ground/store.ts";
import type { Transaction } from "sequelize";
import type { ReadSnippet } from "../../core/creatives/snippet.ts";

/** Holds a creative at a version; none when it has another. */
export function lockCreative(
  store: Store,
  of: { id: string; version: number },
  transaction: Transaction,
): Promise<object[]> {
  return store.rows(
    "SELECT 1 AS one FROM creatives WHERE id = $id::bigint AND version = $version AND deleted_at IS NULL FOR UPDATE",
    of,
    transaction,
  );
}

/** Changes a creative over the version that it was read at. */
export function updateCreative(
  store: Store,
  of: { id: string; version: number; name: string; html: string; read: string },
  transaction: Transaction,
): Promise<CreativeRow[]> {
  return store.rows<CreativeRow>(
    `WITH saved AS (UPDATE creatives SET name = $name, html = $html, read = $read::jsonb, version = version + 1
         WHERE id = $id::bigint AND version = $version RETURNING *)
       SELECT ${COLUMNS} FROM saved`,
    of,
    transaction,
  );
}
const COLUMNS = "id::text, program_id::text AS program, name, html, read, version";
export interface CreativeRow {
  id: string;
  program: string;
  name: string;
  html: string;
  read: ReadSnippet;
  version: number;
}

/** The creatives of these programs, by name. */
export function creativesOfPrograms(
  store: Store,
  of: { programs: readonly string[] },
): Promise<CreativeRow[]> {
  return store.rows<CreativeRow>(
    `SELECT ${COLUMNS} FROM creatives WHERE program_id = ANY($programs::bigint[]) AND deleted_at IS NULL ORDER BY lower(name), id`,
    of,
  );
}

/** A creative of the site. */
export function creativeById(store: Store, of: { id: string; site: string }): Promise<CreativeRow[]> {
  return store.rows<CreativeRow>(
    `SELECT ${COLUMNS} FROM creatives WHERE id = $id::bigint AND site_id = $site::bigint AND deleted_at IS NULL`,
    of,
  );
}

/** Keeps a new creative. */
export function addCreative(
  store: Store,
  of: { site: string; program: string; name: string; html: string; read: string },
  transaction: Transaction,
): Promise<CreativeRow[]> {
  return store.rows<CreativeRow>(
    `WITH made AS (INSERT INTO creatives (site_id, program_id, name, html, read) VALUES ($site::bigint, $program::bigint, $name, $html, $read::jsonb) RETURNING *)
     SELECT ${COLUMNS} FROM made`,
    of,
    transaction,
  );
}

/** Takes a creative away or brings it back; none when it was so already. */
export function markCreativeDeleted(
  store: Store,
  of: { id: string; site: string; deleted: boolean },
  transaction: Transaction,
): Promise<{ name: string }[]> {
  return store.rows<{ name: string }>(
    `WITH changed AS (UPDATE creatives SET deleted_at = CASE WHEN $deleted THEN now() END
       WHERE id = $id::bigint AND site_id = $site::bigint AND (deleted_at IS NULL) = $deleted RETURNING name) SELECT name FROM changed`,
    of,
    transaction,
  );
}

/** The pages that use these creatives. */
export function pagesUsingCreatives(
  store: Store,
  of: { site: string; ids: readonly string[] },
): Promise<{ creative: string; page: string; title: string }[]> {
  return store.rows<{ creative: string; page: string; title: string }>(
    `SELECT DISTINCT l.creative_id::text AS creative, s.page_id::text AS page, s.title FROM ledger_links l JOIN ledger_sources s ON s.id = l.source_id
     WHERE l.site_id = $site::bigint AND l.creative_id = ANY($ids::bigint[]) ORDER BY s.title`,
    of,
  );
}
