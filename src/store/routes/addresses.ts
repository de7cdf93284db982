import type { Store } from "../ground/store.ts";
import type { Transaction } from "sequelize";

/** Takes the places of these routes away. */
export function dropAddresses(
  store: Store,
  of: { ids: readonly string[] },
  transaction: Transaction,
): Promise<object[]> {
  return store.rows("DELETE FROM route_addresses WHERE route_id = ANY($ids::bigint[])", of, transaction);
}

/** Gives routes their places: a host and a key each. */
export function addAddresses(
  store: Store,
  of: { site: string; host: readonly string[]; key: readonly string[]; id: readonly string[] },
  transaction: Transaction,
): Promise<object[]> {
  return store.rows(
    `INSERT INTO route_addresses (site_id, host, key, route_id)
     SELECT $site::bigint, host, key, id FROM unnest($host::text[], $key::text[], $id::bigint[]) AS b (host, key, id)`,
    of,
    transaction,
  );
}
export interface Claim {
  host: string;
  key: string;
  id: string;
  version: number;
  first: boolean;
}

/** The routes that have these places, and whether a place is their first. */
export function claimsAt(store: Store, of: { site: string; keys: readonly string[] }): Promise<Claim[]> {
  return store.rows<Claim>(
    `SELECT a.host, a.key, r.id::text, r.version, a.key = any(ARRAY[r.address, lower(r.address), r.match || ':' || r.address]) AS first
         FROM route_addresses a JOIN routes r ON r.id = a.route_id WHERE a.site_id = $site::bigint AND a.key = ANY($keys::text[])`,
    of,
  );
}

/** The keys that are taken on a host, by its own routes and by those of every host. */
export function keysTaken(store: Store, of: { site: string; host: string }): Promise<{ key: string }[]> {
  return store.rows<{ key: string }>(
    "SELECT key FROM route_addresses WHERE site_id = $site::bigint AND host IN ('*', $host)",
    of,
  );
}

/** Gives a route its places on a host. */
export function putAddresses(
  store: Store,
  of: { site: string; host: string; id: string; keys: readonly string[] },
  transaction: Transaction,
): Promise<object[]> {
  return store.rows(
    "INSERT INTO route_addresses (site_id, host, key, route_id) SELECT $site::bigint, $host::text, key, $id::bigint FROM unnest($keys::text[]) AS key",
    of,
    transaction,
  );
}

/** How many pattern routes a site has besides one; one row. */
export function patternCount(store: Store, of: { site: string; except: string }): Promise<{ n: number }[]> {
  return store.rows<{ n: number }>(
    "SELECT count(*)::int AS n FROM routes WHERE site_id = $site::bigint AND match = 'pattern' AND deleted_at IS NULL AND id <> $except::bigint",
    of,
  );
}
