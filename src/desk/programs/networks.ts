import type { z } from "zod";
import type { ReportColumns } from "../../core/earnings/earning.ts";
import type { Network, networkInputSchema } from "../../core/programs/program.ts";
import type { KnownNetwork } from "../../core/earnings/guess-network.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { audited, type Actor } from "../ground/audit.ts";
import type { WithStore } from "../ground/parts.ts";

const COLUMNS = "id::text, name, hosts, catalogue, report";

/** The networks that a site works with, by name. */
export function listNetworks(desk: WithStore, site: OpenSite): Promise<Network[]> {
  return desk.store.rows<Network>(
    `SELECT ${COLUMNS} FROM networks WHERE site_id = $site::bigint ORDER BY lower(name)`,
    { site: site.id },
  );
}

/** One of them by its name. */
export async function networkNamed(
  desk: WithStore,
  site: OpenSite,
  name: string,
): Promise<Network | undefined> {
  return (await listNetworks(desk, site)).find((one) => one.name === name);
}

/** Says what a network is; one of that name is replaced. */
export async function keepNetwork(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  { name, hosts, catalogue, report }: z.infer<typeof networkInputSchema>,
): Promise<Network> {
  const entry = { siteId: site.id, action: "network.keep", object: name };
  const [kept] = await audited(desk, actor, entry, (transaction) =>
    desk.store.rows<Network>(
      `WITH kept AS (INSERT INTO networks (site_id, name, hosts, catalogue, report) VALUES ($site::bigint, $name, $hosts::text[], $catalogue, $report)
       ON CONFLICT (site_id, name) DO UPDATE SET hosts = excluded.hosts, catalogue = excluded.catalogue, report = excluded.report RETURNING *)
     SELECT ${COLUMNS} FROM kept`,
      { site: site.id, name, hosts, catalogue, report },
      transaction,
    ),
  );
  return kept!;
}

/** The columns of a network's report as they were named the last time. */
export async function keptColumns(
  desk: WithStore,
  site: OpenSite,
  network: string,
): Promise<ReportColumns | undefined> {
  const [row] = await desk.store.rows<{ columns: ReportColumns | null }>(
    "SELECT columns FROM networks WHERE site_id = $site::bigint AND name = $network",
    { site: site.id, network },
  );
  return row?.columns ?? undefined;
}

/** The networks that a site works with, each with the columns of its last report. */
export function networksWithColumns(desk: WithStore, site: OpenSite): Promise<KnownNetwork[]> {
  return desk.store.rows<KnownNetwork>(
    "SELECT name, columns FROM networks WHERE site_id = $site::bigint ORDER BY name",
    { site: site.id },
  );
}

/** Remembers them. */
export async function keepColumns(
  desk: WithStore,
  site: OpenSite,
  network: string,
  columns: ReportColumns,
): Promise<void> {
  await desk.store.rows(
    `INSERT INTO networks (site_id, name, columns) VALUES ($site::bigint, $network, $columns::jsonb)
     ON CONFLICT (site_id, name) DO UPDATE SET columns = excluded.columns`,
    { site: site.id, network, columns: JSON.stringify(columns) },
  );
}
