import type { SiteRow, HostRow } from "../../store/ground/models.ts";
import type { Partner } from "../../core/programs/partner.ts";
import { notFound } from "../ground/problem.ts";
import { partnersOfSites } from "../../store/programs/programs.ts";
import type { WithStore } from "../ground/parts.ts";
import { type VariableRow, variableRows } from "../../store/sites/sites.ts";

/** A site with its hosts, as the desk works on it. */
export interface OpenSite extends Pick<
  SiteRow,
  | "id"
  | "key"
  | "name"
  | "tagline"
  | "shortPrefix"
  | "paidLimit"
  | "paidLimitLong"
  | "longWords"
  | "misses"
  | "disclosure"
  | "clickMonths"
  | "country"
  | "version"
  | "createdAt"
  | "updatedAt"
> {
  variables: Record<string, string>;
  /** The programs that were joined, as rules see them. */
  partners: Partner[];
  hosts: Pick<HostRow, "name" | "role">[];
  hostNames: string[];
  primary: string;
  /** The host that new short links go to: a short one when the site has one. */
  shortHost: string;
}

/** Finds a site by id or key. */
export async function openSite(desk: WithStore, idOrKey: string): Promise<OpenSite> {
  const where = /^\d{1,18}$/.test(idOrKey) ? { id: idOrKey } : { key: idOrKey };
  const row = await desk.store.sites.findOne({ where });
  if (!row) throw notFound(`The site “${idOrKey}”`);
  const hosts = await desk.store.hosts.findAll({ where: { siteId: row.id }, order: [["id", "ASC"]] });
  const [variables, partners] = await Promise.all([
    variablesOf(desk, [row.id]),
    partnersOfSites(desk.store, [row.id]),
  ]);
  return withHosts(row, hosts, variables, partners);
}

export function variablesOf(desk: WithStore, ids: readonly string[]): Promise<VariableRow[]> {
  return variableRows(desk.store, { ids });
}

export function withHosts(
  row: SiteRow,
  hosts: HostRow[],
  variables: readonly VariableRow[],
  partners: ReadonlyMap<string, Partner[]>,
): OpenSite {
  const primary = hosts.find((host) => host.role === "primary")!.name;
  return {
    id: row.id,
    key: row.key,
    name: row.name,
    tagline: row.tagline,
    shortPrefix: row.shortPrefix,
    paidLimit: row.paidLimit,
    paidLimitLong: row.paidLimitLong,
    longWords: row.longWords,
    misses: row.misses,
    partners: partners.get(row.id) ?? [],
    disclosure: row.disclosure,
    clickMonths: row.clickMonths,
    country: row.country,
    variables: Object.fromEntries(
      variables.filter(({ siteId }) => siteId === row.id).map(({ name, value }) => [name, value]),
    ),
    version: row.version,
    createdAt: row.createdAt,
    updatedAt: row.updatedAt,
    hosts: hosts.map(({ name, role }) => ({ name, role })),
    hostNames: hosts.map(({ name }) => name),
    primary,
    shortHost: hosts.find((host) => host.role === "short")?.name ?? primary,
  };
}
