import type { Transaction } from "sequelize";
import type { Swap } from "../../core/rules/swaps/swap.ts";
import type { Store } from "../ground/store.ts";

/** Sets are listed up to so many. */
export const MOST_SWAP_SETS = 200;

export interface SwapSetRow {
  version: number;
  swaps: Swap[];
  createdBy: string;
  createdAt: Date;
}

const COLUMNS = `version, swaps, created_by AS "createdBy", created_at AS "createdAt"`;

/** The sets of swaps that a site had, newest first. */
export function swapSetRows(store: Store, of: { site: string }): Promise<SwapSetRow[]> {
  return store.rows<SwapSetRow>(
    `SELECT ${COLUMNS} FROM swap_sets WHERE site_id = $site::bigint ORDER BY version DESC LIMIT ${MOST_SWAP_SETS}`,
    of,
  );
}

/** The set of swaps of a version. */
export async function swapSetRow(
  store: Store,
  of: { site: string; version: number },
): Promise<SwapSetRow | undefined> {
  const sql = `SELECT ${COLUMNS} FROM swap_sets WHERE site_id = $site::bigint AND version = $version::int`;
  return (await store.rows<SwapSetRow>(sql, of))[0];
}

/** The version of the swaps in force; 0 while there were none. */
export async function newestSwaps(store: Store, of: { site: string }): Promise<number> {
  const [row] = await store.rows<{ version: number }>(
    "SELECT coalesce(max(version), 0) AS version FROM swap_sets WHERE site_id = $site::bigint",
    of,
  );
  return row!.version;
}

/** Adds a set over the version that it was made on and brings it into force; false when another came before it. */
export async function addSwapSet(
  store: Store,
  of: { site: string; version: number; swaps: string; by: string },
  transaction: Transaction,
): Promise<boolean> {
  const rows = await store.rows(
    `WITH saved AS (INSERT INTO swap_sets (site_id, version, swaps, created_by)
         SELECT $site::bigint, $version::int + 1, $swaps::jsonb, $by::text
         WHERE (SELECT coalesce(max(version), 0) FROM swap_sets WHERE site_id = $site::bigint) = $version::int
         ON CONFLICT DO NOTHING RETURNING site_id, swaps)
     UPDATE sites s SET swaps = saved.swaps FROM saved WHERE s.id = saved.site_id RETURNING s.id::text`,
    of,
    transaction,
  );
  return rows.length > 0;
}
