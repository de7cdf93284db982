import { amongKeys } from "../ground/any-letters.ts";
import { inOrder } from "../ground/in-order.ts";
import { isRowId } from "../ground/row-ids.ts";
import type { FileRow, Row } from "../ground/models.ts";
import { containing } from "../ground/like.ts";
import { orderOf, limitOf, type Portion } from "../ground/portions.ts";
import type { CreationAttributes, Transaction } from "sequelize";
import type { Store } from "../ground/store.ts";

// Beside its row: every process that shares the database can deliver it.
async function writeContent(
  store: Store,
  id: string,
  content: Uint8Array,
  transaction: Transaction,
): Promise<void> {
  await store.rows(
    "INSERT INTO file_contents (file_id, content) VALUES ($id::bigint, $content::bytea) ON CONFLICT (file_id) DO UPDATE SET content = excluded.content",
    { id, content: Buffer.from(content) },
    transaction,
  );
}

/** A file's content; undefined when it is gone. */
export async function readContent(store: Store, id: string): Promise<Buffer | undefined> {
  const [row] = await store.rows<{ content: Buffer }>(
    "SELECT content FROM file_contents WHERE file_id = $id::bigint",
    { id },
  );
  return row?.content;
}

/** A page or block that uses an address in its draft or in what is published. */
export interface AddressUse {
  id: string;
  title: string;
  path: string;
  kind: "page" | "block";
  address: string;
}

/**
 * Pages and blocks in whose draft or published HTML one of these addresses stands, as a link or as a picture.
 * Looked for as text: an address that only begins like another is told apart by the caller's exact check.
 */
export async function usesOfAddresses(
  store: Store,
  siteId: string,
  addresses: readonly string[],
): Promise<AddressUse[]> {
  if (addresses.length === 0) return [];
  return store.rows<AddressUse>(
    `SELECT p.id::text, p.title, p.path, p.kind, a.address FROM pages p
     JOIN unnest($addresses::text[]) AS a (address)
       ON strpos(p.html, a.address) > 0 OR strpos(coalesce(p.published->>'html', ''), a.address) > 0
     WHERE p.site_id = $site::bigint AND p.kind IN ('page', 'block') AND p.deleted_at IS NULL ORDER BY p.title, p.id`,
    { site: siteId, addresses },
  );
}

/** Which of these paths are files of the site; in any letter case where they are found so. */
export function filesAtPaths(
  store: Store,
  { anyLetters = false, ...of }: { site: string; keys: readonly string[]; anyLetters?: boolean },
): Promise<{ path: string }[]> {
  return store.rows<{ path: string }>(
    `SELECT path FROM files WHERE site_id = $site::bigint AND deleted_at IS NULL AND ${amongKeys("path", anyLetters)}`,
    of,
  );
}

/** The paths of a site's files. */
export function filePaths(store: Store, of: { site: string }): Promise<{ path: string }[]> {
  return store.rows<{ path: string }>(
    "SELECT path FROM files WHERE site_id = $site::bigint AND deleted_at IS NULL",
    of,
  );
}

export const FILE_SORTS = {
  createdAt: "created_at",
  name: "name",
  path: "path",
  bytes: "bytes",
  mediaType: "media_type",
};

/** Ids of a portion of the site's files, each with how many there are; `q` looks in name, path and alternative text. */
export function fileIds(
  store: Store,
  of: { site: string; q: string | undefined },
  portion: Portion,
): Promise<{ id: string; total: string }[]> {
  return store.rows<{ id: string; total: string }>(
    `SELECT id::text, count(*) OVER ()::text AS total FROM files
     WHERE site_id = $site::bigint AND deleted_at IS NULL ${of.q ? "AND (name ILIKE $q OR path ILIKE $q OR alt ILIKE $q)" : ""}
     ORDER BY ${orderOf(FILE_SORTS, portion.sort)}, id ${limitOf(portion)}`,
    { site: of.site, ...(of.q ? { q: containing(of.q) } : {}) },
  );
}

/** A file of a site; undefined when there is none, or, unless asked for, when it was deleted. */
export async function findFile(
  store: Store,
  { id, siteId, evenDeleted = false }: { id: string; siteId: string; evenDeleted?: boolean },
): Promise<Row<FileRow> | undefined> {
  if (!isRowId(id)) return undefined;
  const where = { id, siteId, ...(evenDeleted ? {} : { deletedAt: null }) };
  return (await store.files.findOne({ where })) ?? undefined;
}

/** The file that holds this content, by its digest. */
export async function findFileOf(
  store: Store,
  { siteId, digest }: { siteId: string; digest: string },
): Promise<FileRow | undefined> {
  return (await store.files.findOne({ where: { siteId, digest, deletedAt: null } })) ?? undefined;
}

/** Files by their ids, in that order. */
export async function filesById(store: Store, ids: readonly string[]): Promise<FileRow[]> {
  const rows = await store.files.findAll({ where: { id: [...ids] } });
  return inOrder(rows, ids);
}

/** Makes a file with its content. Throws where its path is taken (index `files_path`). */
export async function insertFile(
  store: Store,
  values: CreationAttributes<Row<FileRow>>,
  content: Uint8Array,
  transaction: Transaction,
): Promise<Row<FileRow>> {
  const row = await store.files.create(values, { transaction });
  await writeContent(store, row.id, content, transaction);
  return row;
}

/** A site's files, as they are listed. */
export function filesOfSite(
  store: Store,
  of: { site: string },
): Promise<{ id: string; path: string; bytes: string }[]> {
  return store.rows<{ id: string; path: string; bytes: string }>(
    `SELECT f.id::text, f.path, octet_length(c.content)::text AS bytes FROM files f JOIN file_contents c ON c.file_id = f.id
     WHERE f.site_id = $site::bigint AND f.deleted_at IS NULL ORDER BY f.id`,
    of,
  );
}
