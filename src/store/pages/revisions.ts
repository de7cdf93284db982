import type { Store } from "../ground/store.ts";
import type { Transaction } from "sequelize";
import type { Revision, RevisionFull } from "../../core/pages/page.ts";

/** Keeps a publication of a page. */
export function addRevision(
  store: Store,
  of: { page: string; version: number; snapshot: string; by: string },
  transaction: Transaction,
): Promise<object[]> {
  return store.rows(
    `INSERT INTO revisions (page_id, version, snapshot, created_by) VALUES ($page::bigint, $version, $snapshot::jsonb, $by) ON CONFLICT DO NOTHING`,
    of,
    transaction,
  );
}
const COLUMNS = `r.id::text, r.version, r.kind, r.snapshot->>'title' AS title, r.snapshot->>'path' AS path,
  r.created_by AS "createdBy", r.created_at AS "createdAt"`;
export interface RevisionRow extends Omit<RevisionFull, "createdAt"> {
  createdAt: Date;
}

/** The same without its text. */
export type RevisionSummaryRow = Omit<Revision, "createdAt"> & { createdAt: Date };

/** The kept versions of a page, the newest first. */
export function revisionsOfPage(store: Store, of: { id: string }): Promise<RevisionSummaryRow[]> {
  return store.rows<RevisionSummaryRow>(
    `SELECT ${COLUMNS} FROM revisions r WHERE r.page_id = $id::bigint ORDER BY r.id DESC LIMIT 500`,
    of,
  );
}

/** A kept version of a page, with its text. */
export function revisionOfPage(store: Store, of: { id: string; revision: string }): Promise<RevisionRow[]> {
  return store.rows<RevisionRow>(
    `SELECT ${COLUMNS}, coalesce(r.snapshot->>'description', '') AS description, coalesce(r.snapshot->>'category', '') AS category,
           coalesce((r.snapshot->>'inNavigation')::boolean, false) AS "inNavigation", coalesce(r.snapshot->'search', '{}') AS search, r.snapshot->>'html' AS html, r.snapshot->'body' AS body
         FROM revisions r WHERE r.page_id = $id::bigint AND r.id = $revision::bigint`,
    of,
  );
}

/** Keeps a text beside the draft, among the page's versions. */
export function addStash(
  store: Store,
  of: { id: string; version: number; snapshot: string; by: string },
  transaction: Transaction,
): Promise<object[]> {
  return store.rows(
    "INSERT INTO revisions (page_id, version, snapshot, created_by, kind) VALUES ($id::bigint, $version, $snapshot::jsonb, $by, 'aside')",
    of,
    transaction,
  );
}
