import type { Transaction } from "sequelize";
import { writeVersioned } from "./write-versioned.ts";
import { publicAddress } from "../core/address/public-address.ts";
import type { Partner } from "../core/objects/partner.ts";
import type { Site, SiteChange, SiteInput } from "../core/objects/site.ts";
import { noteChange } from "../store/changes.ts";
import type { HostRow, SiteRow } from "../store/models.ts";
import { partnersOfSites } from "../store/programs.ts";
import { violatedIndex } from "../store/store.ts";
import { audit, type Actor, type Desk, type DeskCore } from "./desk.ts";
import { invalid, notFound, stale } from "./problem.ts";
import { adviseMisses } from "./routes/miss-policy.ts";

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
export async function openSite(desk: DeskCore, idOrKey: string): Promise<OpenSite> {
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

/** All sites, by name. */
export async function listSites(desk: Desk): Promise<Site[]> {
  const rows = await desk.store.sites.findAll({ order: [["name", "ASC"]] });
  const hosts = await desk.store.hosts.findAll({ order: [["id", "ASC"]] });
  const ids = rows.map(({ id }) => id);
  const [variables, partners] = await Promise.all([variablesOf(desk, ids), partnersOfSites(desk.store, ids)]);
  return rows.map((row) =>
    siteView(
      desk,
      withHosts(
        row,
        hosts.filter((host) => host.siteId === row.id),
        variables,
        partners,
      ),
    ),
  );
}

interface VariableRow {
  siteId: string;
  name: string;
  value: string;
}

function variablesOf(desk: DeskCore, ids: readonly string[]): Promise<VariableRow[]> {
  return desk.store.rows<VariableRow>(
    'SELECT site_id::text AS "siteId", name, value FROM site_variables WHERE site_id = ANY($ids::bigint[]) ORDER BY name',
    { ids },
  );
}

/** Changes what a site is called, its variables and its limits, over the version it was read at. */
export async function changeSite(
  desk: Desk,
  actor: Actor,
  site: OpenSite,
  change: SiteChange,
): Promise<Site> {
  const { version, variables, ...fields } = change;
  const advice = change.misses ? await adviseMisses(desk, site, change.misses) : [];
  const replaceVariables = async (transaction: Transaction): Promise<void> => {
    if (variables) {
      await desk.store.rows("DELETE FROM site_variables WHERE site_id = $id", { id: site.id }, transaction);
      await desk.store.rows(
        `INSERT INTO site_variables (site_id, name, value)
         SELECT $id::bigint, name, value FROM unnest($names::text[], $values::text[]) AS t (name, value)`,
        { id: site.id, names: Object.keys(variables), values: Object.values(variables) },
        transaction,
      );
    }
  };
  await writeVersioned(desk, actor, {
    table: desk.store.sites,
    where: { id: site.id, version },
    fields,
    alongside: replaceVariables,
    entry: { siteId: site.id, action: "site.change", object: site.key, detail: { fields: Object.keys(change).filter((name) => name !== "version") } },
    change: { siteId: site.id, kind: "site" },
    stale: async () => stale(siteView(desk, await openSite(desk, site.id))),
  }); // prettier-ignore
  const changed = siteView(desk, await openSite(desk, site.id));
  return advice.length > 0 ? { ...changed, advice } : changed;
}

/** Makes a site with its hosts and an empty set of rules. */
export async function createSite(desk: Desk, actor: Actor, input: SiteInput): Promise<Site> {
  const { store } = desk;
  const own = input.hosts.findIndex(({ name }) =>
    desk.workspaceHosts.some((host) => host.replace(/:\d+$/, "") === name),
  );
  if (own !== -1)
    throw invalid([
      {
        path: `hosts.${own}.name`,
        message: "The workspace itself is found under this name; readers need another.",
      },
    ]);
  try {
    const id = await store.transaction(async (transaction) => {
      const row = await store.sites.create(
        {
          key: input.key,
          name: input.name,
          tagline: "",
          shortPrefix: input.shortPrefix ?? "/to/",
          version: 1,
        },
        { transaction },
      );
      await store.hosts.bulkCreate(
        input.hosts.map((host) => ({ ...host, siteId: row.id })),
        { transaction },
      );
      await audit(desk, actor, { siteId: row.id, action: "site.create", object: input.key }, transaction);
      await noteChange(store, transaction, { siteId: row.id, kind: "site" });
      return row.id;
    });
    return siteView(desk, await openSite(desk, id));
  } catch (error) {
    const index = violatedIndex(error);
    if (index === "sites_key_key")
      throw invalid([{ path: "key", message: `There is a site “${input.key}” already.` }]);
    if (index === "hosts_name_key")
      throw invalid([{ path: "hosts", message: "One of these hosts belongs to another site already." }]);
    throw error;
  }
}

/** A site as the API answers it. */
export function siteView(desk: Desk, site: OpenSite): Site {
  return {
    id: site.id,
    key: site.key,
    name: site.name,
    tagline: site.tagline,
    hosts: site.hosts.map(({ name, role }) => ({
      name,
      role,
      url: publicAddress(name, "/", desk.deliveryPort),
    })),
    shortPrefix: site.shortPrefix,
    variables: site.variables,
    paidLimit: site.paidLimit,
    paidLimitLong: site.paidLimitLong,
    longWords: site.longWords,
    misses: site.misses,
    partners: site.partners,
    disclosure: site.disclosure,
    clickMonths: site.clickMonths,
    country: site.country,
    version: site.version,
    createdAt: site.createdAt.toISOString(),
    updatedAt: site.updatedAt.toISOString(),
  };
}

function withHosts(
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
