import type { Address } from "../../core/address/address.ts";
import type { Store } from "../ground/store.ts";
import type { Transaction } from "sequelize";

export interface Before {
  id: string;
  address: string;
  version: number;
  tags: string[];
  enabled: boolean;
  destination: Address | null;
  /** Absent in what was kept before addresses could be moved. */
  aliases?: string[];
  /** Absent in what was kept before they could be changed together. */
  noindex?: boolean;
  nofollow?: boolean;
}

/** The routes of a change of many as they were, while it has not been undone. */
export function batchBefore(store: Store, of: { id: string; site: string }): Promise<{ before: Before[] }[]> {
  return store.rows<{ before: Before[] }>(
    "SELECT before FROM route_batches WHERE id = $id::bigint AND site_id = $site::bigint AND undone_at IS NULL",
    of,
  );
}

/** Notes that a change of many routes was undone. */
export function markBatchUndone(
  store: Store,
  of: { id: string },
  transaction: Transaction,
): Promise<object[]> {
  return store.rows("UPDATE route_batches SET undone_at = now() WHERE id = $id::bigint", of, transaction);
}

/** Keeps routes as they are before a change of many, for its undo; answers the batch's id. */
export function addBatch(
  store: Store,
  of: { site: string; action: string; ids: readonly string[]; by: string },
  transaction: Transaction,
): Promise<{ id: string }[]> {
  return store.rows<{ id: string }>(
    `WITH kept AS (INSERT INTO route_batches (site_id, action, before, made_by)
       SELECT $site::bigint, $action::jsonb, (SELECT jsonb_agg(jsonb_build_object('id', id::text, 'address', address, 'version', version, 'tags', tags, 'enabled', enabled, 'destination', destination, 'aliases', aliases, 'noindex', noindex, 'nofollow', nofollow))
         FROM routes WHERE id = ANY($ids::bigint[])), $by::text RETURNING id) SELECT id::text FROM kept`,
    of,
    transaction,
  );
}

/** Writes many routes at once, each its next version. */
export function updateRoutes(
  store: Store,
  of: {
    ids: readonly string[];
    tags: readonly string[];
    enabled: readonly boolean[];
    destination: readonly (null | string)[];
    key: readonly (null | string)[];
    address: readonly string[];
    aliases: readonly string[];
    search: readonly string[];
    noindex: readonly boolean[];
    nofollow: readonly boolean[];
    deleted: readonly boolean[];
  },
  transaction: Transaction,
): Promise<object[]> {
  return store.rows(
    `UPDATE routes r SET tags = ARRAY(SELECT jsonb_array_elements_text(b.tags)), enabled = b.enabled, destination = b.destination,
       destination_key = b.key, address = b.address, aliases = ARRAY(SELECT jsonb_array_elements_text(b.aliases)), search = b.search, noindex = b.noindex, nofollow = b.nofollow, deleted_at = CASE WHEN b.deleted THEN now() END, version = r.version + 1, updated_at = now()
     FROM unnest($ids::bigint[], $tags::jsonb[], $enabled::boolean[], $destination::text[], $key::text[], $address::text[], $aliases::jsonb[],
       $search::text[], $noindex::boolean[], $nofollow::boolean[], $deleted::boolean[]) AS b (id, tags, enabled, destination, key, address, aliases, search, noindex, nofollow, deleted) WHERE r.id = b.id`,
    of,
    transaction,
  );
}

/** Short links that were made for a change, each with why it must stay, if it must. */
export function lockMadeRoutes(
  store: Store,
  of: { site: string; ids: readonly string[] },
): Promise<{ id: string; address: string; reason: string | null }[]> {
  return store.rows<{ id: string; address: string; reason: string | null }>(
    `SELECT r.id::text, r.address, CASE WHEN r.version > 1 THEN 'was changed' WHEN c.clicks > 0 THEN 'was followed'
       WHEN EXISTS (SELECT FROM ledger_links l WHERE l.site_id = r.site_id AND l.route_id = r.id) THEN 'stands in a text' END AS reason
     FROM routes r LEFT JOIN route_clicks c ON c.route_id = r.id
     WHERE r.site_id = $site::bigint AND r.id = ANY($ids::bigint[]) AND r.deleted_at IS NULL`,
    of,
  );
}
