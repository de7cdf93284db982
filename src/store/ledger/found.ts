import type { Store } from "../ground/store.ts";

/** Ids of the ledger's links that use a creative. */
export function ledgerLinksOfCreative(
  store: Store,
  of: { site: string; id: string; other: string },
): Promise<{ id: string }[]> {
  return store.rows<{ id: string }>(
    "SELECT id::text FROM ledger_links WHERE site_id = $site::bigint AND creative_id = $id::bigint AND edition <> $other",
    of,
  );
}

/** Ids of the ledger's links that lead through these routes. */
export function linksThroughRoutes(
  store: Store,
  of: { routes: readonly string[]; other: string; most: number },
): Promise<{ id: string }[]> {
  return store.rows<{ id: string }>(
    "SELECT id::text FROM ledger_links WHERE route_id = ANY($routes::bigint[]) AND edition <> $other LIMIT $most",
    of,
  );
}
