import type { Transaction } from "sequelize";
import type { Crop, Focus, KeptPicture } from "../../core/files/picture.ts";
import { LOCKS } from "../ground/locks.ts";
import type { Store } from "../ground/store.ts";

/** The forms of a row of `files`, from the smallest, as KeptPicture has them. */
export const FORMS_OF_FILE = `(SELECT coalesce(json_agg(json_build_object('name', m.name, 'type', m.media_type, 'width', m.width, 'height', m.height) ORDER BY m.width, m.name), '[]')
       FROM file_forms m WHERE m.file_id = files.id)`;

/** The pictures of a site at these paths, with their forms. */
export function picturesAtPaths(
  store: Store,
  of: { site: string; paths: readonly string[] },
): Promise<(KeptPicture & { path: string })[]> {
  return store.rows<KeptPicture & { path: string }>(
    `SELECT id::text, path, digest, width, height, formed, ${FORMS_OF_FILE} AS forms FROM files
     WHERE site_id = $site::bigint AND deleted_at IS NULL AND path = ANY($paths::text[])`,
    of,
  );
}

/** A picture whose forms are to be made. */
export interface UnformedPicture {
  id: string;
  siteId: string;
  path: string;
  mediaType: string;
  crop: Crop | null;
  focus: Focus | null;
  shape: number;
}

/** A form of a picture with its content. */
export interface MadeForm {
  name: string;
  mediaType: string;
  width: number;
  height: number;
  content: Buffer;
}

/** Whether it is this process's turn to make forms of pictures, until the transaction ends; one row. */
export function tryPicturesLock(store: Store, transaction: Transaction): Promise<{ mine: boolean }[]> {
  return store.rows<{ mine: boolean }>(
    "SELECT pg_try_advisory_xact_lock($lock) AS mine",
    { lock: LOCKS.pictures },
    transaction,
  );
}

/** The picture that has waited longest for its forms; undefined when none does. */
export async function unformedPicture(
  store: Store,
  types: readonly string[],
): Promise<UnformedPicture | undefined> {
  const [row] = await store.rows<UnformedPicture>(
    `SELECT id::text, site_id::text AS "siteId", path, media_type AS "mediaType", crop, focus, shape FROM files
     WHERE formed IS DISTINCT FROM shape AND deleted_at IS NULL AND media_type = ANY($types::text[]) ORDER BY id LIMIT 1`,
    { types },
  );
  return row;
}

/** Puts the forms of a picture's shape in place of those that there are; false when it has got another shape meanwhile. */
export async function putForms(
  store: Store,
  of: { id: string; shape: number },
  forms: readonly MadeForm[],
  transaction: Transaction,
): Promise<boolean> {
  const formed = await store.rows<{ id: string }>(
    "UPDATE files SET formed = $shape WHERE id = $id::bigint AND shape = $shape RETURNING id::text",
    of,
    transaction,
  );
  if (formed.length === 0) return false;
  await store.rows(
    "DELETE FROM file_forms WHERE file_id = $id::bigint RETURNING name",
    { id: of.id },
    transaction,
  );
  for (const { name, mediaType, width, height, content } of forms)
    await store.rows(
      `INSERT INTO file_forms (file_id, name, media_type, width, height, content)
       VALUES ($id::bigint, $name, $mediaType, $width, $height, $content::bytea) RETURNING name`,
      { id: of.id, name, mediaType, width, height, content },
      transaction,
    );
  return true;
}

/** One form of a picture; undefined when there is none of that name. */
export async function readForm(
  store: Store,
  of: { id: string; name: string },
): Promise<{ mediaType: string; content: Buffer } | undefined> {
  const [row] = await store.rows<{ mediaType: string; content: Buffer }>(
    `SELECT media_type AS "mediaType", content FROM file_forms WHERE file_id = $id::bigint AND name = $name`,
    of,
  );
  return row;
}
