import type { SiteRow, HostRow } from "../../store/ground/models.ts";
import type { Partner } from "../../core/programs/partner.ts";
import { notFound, type Problem } from "../ground/problem.ts";
import { partnersOfSites } from "../../store/programs/programs.ts";
import type { WithStore } from "../ground/parts.ts";
import { findSite, hostsOf, type VariableRow, variableRows } from "../../store/sites/sites.ts";

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
  | "historyMonths"
  | "archivedAt"
  | "country"
  | "language"
  | "timeZone"
  | "defaults"
  | "delivered"
  | "origin"
  | "swaps"
  | "version"
  | "createdAt"
  | "updatedAt"
> {
  variables: Record<string, string>;
  /** The programs that were joined, as rules see them. */
  partners: Partner[];
  hosts: Pick<HostRow, "name" | "role">[];
  /** All of them, those too that only lead to others by now: an address on one of them is our own. */
  hostNames: string[];
  /** Those that answer themselves. */
  answeringHosts: string[];
  primary: string;
  /** The host that new short links go to: a short one when the site has one. */
  shortHost: string;
}

/** There is no such site, for anybody or for whoever asks. */
export function noSite(idOrKey: string): Problem {
  return notFound(`The site “${idOrKey}”`);
}

/** Finds a site by id or key. */
export async function openSite(desk: WithStore, idOrKey: string): Promise<OpenSite> {
  const row = await findSite(desk.store, idOrKey);
  if (!row) throw noSite(idOrKey);
  const [hosts, variables, partners] = await Promise.all([
    hostsOf(desk.store, [row.id]),
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
  const answering = hosts.filter(({ role }) => role !== "former");
  const usual = answering.find(({ name }) => name === row.defaults.shortHost);
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
    historyMonths: row.historyMonths,
    archivedAt: row.archivedAt,
    country: row.country,
    language: row.language,
    timeZone: row.timeZone,
    defaults: row.defaults,
    delivered: row.delivered,
    origin: row.origin,
    swaps: row.swaps,
    variables: Object.fromEntries(
      variables.filter(({ siteId }) => siteId === row.id).map(({ name, value }) => [name, value]),
    ),
    version: row.version,
    createdAt: row.createdAt,
    updatedAt: row.updatedAt,
    hosts: hosts.map(({ name, role }) => ({ name, role })),
    hostNames: hosts.map(({ name }) => name),
    primary,
    answeringHosts: answering.map(({ name }) => name),
    shortHost: (usual ?? hosts.find((host) => host.role === "short"))?.name ?? primary,
  };
}
