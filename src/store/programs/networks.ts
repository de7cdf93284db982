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
