import type { Store } from "../ground/store.ts";
import type { Transaction } from "sequelize";
import type { PublishedPage } from "../ground/models.ts";
import type { StoredItem } from "../../core/navigation/navigation.ts";

/** Keeps what a change of many links was made on, for its undo; answers its id. */
export function addLinkBatch(
  store: Store,
  of: { site: string; action: string; before: string; by: string },
  transaction: Transaction,
): Promise<{ id: string }[]> {
  return store.rows<{ id: string }>(
    `WITH kept AS (INSERT INTO link_batches (site_id, action, before, made_by) VALUES ($site::bigint, $action::jsonb, $before::jsonb, $by) RETURNING id) SELECT id::text FROM kept`,
    of,
    transaction,
  );
}
/** What a change of many keeps for its undo. */
export interface KeptBefore {
  pages: BeforePage[];
  /** The batch of routes that were changed with it. */
  routes: string | null;
  /** Ids of the short links that were made for it; absent in what was kept before they were noted. */
  made?: string[];
  /** What was put on the list to do elsewhere; absent in batches from before there was one. */
  todos?: string[];
}

/** Marks a change of many links as undone, and answers what it was made on; none when it was undone already. */
export function undoLinkBatch(
  store: Store,
  of: { id: string; site: string },
  transaction: Transaction,
): Promise<{ before: KeptBefore }[]> {
  return store.rows<{ before: KeptBefore }>(
    "WITH undone AS (UPDATE link_batches SET undone_at = now() WHERE id = $id::bigint AND site_id = $site::bigint AND undone_at IS NULL RETURNING before) SELECT before FROM undone",
    of,
    transaction,
  );
}
/** A page, block or the navigation as it was, and the version by which it is told that nobody has changed it since. */
export interface BeforePage {
  id: string;
  where: string;
  /** Version after the change. */
  version: number;
  html?: string;
  /** Readers got the draft as it was. */
  same?: boolean;
  published?: PublishedPage | null;
  items?: StoredItem[];
}
