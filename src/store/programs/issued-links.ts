import { LOCKS } from "../ground/locks.ts";
import type { Store } from "../ground/store.ts";
import type { Transaction } from "sequelize";

/** Notes that a tracked link was made; one that was made before keeps its label, and gets its page. */
export function addIssuedLink(
  store: Store,
  of: {
    site: string;
    program: string;
    subId: string;
    page: null | string;
    destination: string;
    address: string;
    by: string;
  },
  transaction?: Transaction,
): Promise<object[]> {
  return store.rows(
    `INSERT INTO issued_links (site_id, program_id, sub_id, page_id, destination, address, made_by)
     VALUES ($site::bigint, $program::bigint, $subId, $page::bigint, $destination, $address, $by)
     ON CONFLICT (site_id, address) DO UPDATE SET page_id = coalesce(excluded.page_id, issued_links.page_id)`,
    of,
    transaction,
  );
}

/** Waits until no other transaction chooses labels for this site. */
export function lockLabels(store: Store, of: { site: number }, transaction: Transaction): Promise<object[]> {
  return store.rows(
    "SELECT pg_advisory_xact_lock($lock::int, $site::int)",
    { lock: LOCKS.labels, ...of },
    transaction,
  );
}
/** The page that a link is for. */
export interface PageOfLink {
  id: string;
  path: string;
}

/** The page that a tracked link is made for. */
export function pagesForLinks(store: Store, of: { id: string; site: string }): Promise<PageOfLink[]> {
  return store.rows<PageOfLink>(
    "SELECT id::text, path FROM pages WHERE id = $id::bigint AND site_id = $site::bigint AND deleted_at IS NULL",
    of,
  );
}

/** The labels of the site's tracked links, and whether this very placement has one. */
export function labelsOfSite(
  store: Store,
  of: { site: string; program: string; destination: string; pageId: string | null },
  transaction: Transaction,
): Promise<{ sub_id: string; again: boolean }[]> {
  return store.rows<{ sub_id: string; again: boolean }>(
    `SELECT sub_id, program_id = $program::bigint AND destination = $destination AND page_id IS NOT DISTINCT FROM $pageId::bigint AS again
       FROM issued_links WHERE site_id = $site::bigint`,
    of,
    transaction,
  );
}

/** Another program whose tracked link has this label. */
export function programsWithSubId(
  store: Store,
  of: { site: string; program: string; subId: string },
): Promise<{ name: string }[]> {
  return store.rows<{ name: string }>(
    `SELECT p.name FROM issued_links i JOIN programs p ON p.id = i.program_id AND p.deleted_at IS NULL
     WHERE i.site_id = $site::bigint AND i.sub_id = $subId AND i.program_id <> $program::bigint LIMIT 1`,
    of,
  );
}
