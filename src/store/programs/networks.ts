import type { Network } from "../../core/programs/program.ts";
import type { Store } from "../ground/store.ts";
import type { Transaction } from "sequelize";
import type { ReportColumns } from "../../core/earnings/earning.ts";
import type { KnownNetwork } from "../../core/earnings/guess-network.ts";

const COLUMNS = "id::text, name, hosts, catalogue, report";

/** The networks of a site, by name. */
export function networksOf(store: Store, of: { site: string }): Promise<Network[]> {
  return store.rows<Network>(
    `SELECT ${COLUMNS} FROM networks WHERE site_id = $site::bigint ORDER BY lower(name)`,
    of,
  );
}

/** Says what a network is; one of its name is replaced. */
export function putNetwork(
  store: Store,
  of: { site: string; name: string; hosts: readonly string[]; catalogue: string; report: string },
  transaction: Transaction,
): Promise<Network[]> {
  return store.rows<Network>(
    `WITH kept AS (INSERT INTO networks (site_id, name, hosts, catalogue, report) VALUES ($site::bigint, $name, $hosts::text[], $catalogue, $report)
       ON CONFLICT (site_id, name) DO UPDATE SET hosts = excluded.hosts, catalogue = excluded.catalogue, report = excluded.report RETURNING *)
     SELECT ${COLUMNS} FROM kept`,
    of,
    transaction,
  );
}

/** A network's catalogue as it was given, from this address; no row when it was never asked there. */
export function keptCatalogue(
  store: Store,
  of: { network: string; address: string },
): Promise<{ isJson: boolean; bytes: Uint8Array; pulledAt: Date }[]> {
  return store.rows<{ isJson: boolean; bytes: Uint8Array; pulledAt: Date }>(
    `SELECT is_json AS "isJson", bytes, pulled_at AS "pulledAt" FROM catalogues WHERE network_id = $network::bigint AND address = $address`,
    of,
  );
}

/** Keeps a catalogue in the place of the one before. */
export function putCatalogue(
  store: Store,
  of: { network: string; address: string; isJson: boolean; bytes: Uint8Array },
): Promise<{ pulledAt: Date }[]> {
  return store.rows<{ pulledAt: Date }>(
    `INSERT INTO catalogues (network_id, address, is_json, bytes) VALUES ($network::bigint, $address, $isJson, $bytes::bytea)
     ON CONFLICT (network_id) DO UPDATE SET address = excluded.address, is_json = excluded.is_json, bytes = excluded.bytes, pulled_at = now()
     RETURNING pulled_at AS "pulledAt"`,
    { ...of, bytes: Buffer.from(of.bytes) },
  );
}

/** The columns of a network's report as they were named the last time. */
export function columnsOfNetwork(
  store: Store,
  of: { site: string; network: string },
): Promise<{ columns: ReportColumns | null }[]> {
  return store.rows<{ columns: ReportColumns | null }>(
    "SELECT columns FROM networks WHERE site_id = $site::bigint AND name = $network",
    of,
  );
}

/** The networks of a site with the columns of their reports. */
export function columnsOfNetworks(store: Store, of: { site: string }): Promise<KnownNetwork[]> {
  return store.rows<KnownNetwork>(
    "SELECT name, columns FROM networks WHERE site_id = $site::bigint ORDER BY name",
    of,
  );
}

/** Remembers what the columns of a network's report mean. */
export function putColumns(
  store: Store,
  of: { site: string; network: string; columns: string },
): Promise<object[]> {
  return store.rows(
    `INSERT INTO networks (site_id, name, columns) VALUES ($site::bigint, $network, $columns::jsonb)
     ON CONFLICT (site_id, name) DO UPDATE SET columns = excluded.columns`,
    of,
  );
}
