import type { z } from "zod";
import type { ReportColumns } from "../../core/earnings/earning.ts";
import type { Network, networkInputSchema } from "../../core/programs/program.ts";
import type { KnownNetwork } from "../../core/earnings/guess-network.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { beforeAndAfter } from "../ground/before-after.ts";
import { audited } from "../ground/audit.ts";
import type { WithStore } from "../ground/parts.ts";
import {
  networksOf,
  putNetwork,
  columnsOfNetwork,
  columnsOfNetworks,
  putColumns,
} from "../../store/programs/networks.ts";
import type { Actor } from "../../core/people/actor.ts";

/** The networks that a site works with, by name. */
export function listNetworks(desk: WithStore, site: OpenSite): Promise<Network[]> {
  return networksOf(desk.store, { site: site.id });
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
  const before = await networkNamed(desk, site, name);
  const detail = before
    ? beforeAndAfter(
        { hosts: before.hosts, catalogue: before.catalogue, report: before.report },
        { hosts, catalogue, report },
      )
    : {};
  const entry = { siteId: site.id, action: "network.keep", object: name, detail };
  const [kept] = await audited(desk, actor, entry, (transaction) =>
    putNetwork(desk.store, { site: site.id, name, hosts, catalogue, report }, transaction),
  );
  return kept!;
}

/** The columns of a network's report as they were named the last time. */
export async function keptColumns(
  desk: WithStore,
  site: OpenSite,
  network: string,
): Promise<ReportColumns | undefined> {
  const [row] = await columnsOfNetwork(desk.store, { site: site.id, network });
  return row?.columns ?? undefined;
}

/** The networks that a site works with, each with the columns of its last report. */
export function networksWithColumns(desk: WithStore, site: OpenSite): Promise<KnownNetwork[]> {
  return columnsOfNetworks(desk.store, { site: site.id });
}

/** Remembers them. */
export async function keepColumns(
  desk: WithStore,
  site: OpenSite,
  network: string,
  columns: ReportColumns,
): Promise<void> {
  await putColumns(desk.store, { site: site.id, network, columns: JSON.stringify(columns) });
}
