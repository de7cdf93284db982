import type { Transaction } from "sequelize";
import { writeVersioned } from "../ground/write-versioned.ts";
import { publicAddress } from "../../core/address/public-address.ts";
import type { Site, SiteChange, SiteInput } from "../../core/sites/site.ts";
import { noteChange } from "../../store/ground/changes.ts";
import { partnersOfSites } from "../../store/programs/programs.ts";
import { violatedIndex } from "../../store/ground/store.ts";
import { invalid, stale } from "../ground/problem.ts";
import { adviseMisses } from "../misses/miss-policy.ts";
import { type OpenSite, openSite, variablesOf, withHosts } from "./open-site.ts";
import { audit } from "../ground/audit.ts";
import type { WithStore, WithDeliveryPort, WithWorkspaceHosts } from "../ground/parts.ts";
import { dropVariables, addVariables } from "../../store/sites/sites.ts";
import type { Actor } from "../../core/people/actor.ts";

/** All sites, by name. */
export async function listSites(desk: WithStore & WithDeliveryPort): Promise<Site[]> {
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

/** Changes what a site is called, its variables and its limits, over the version it was read at. */
export async function changeSite(
  desk: WithStore & WithDeliveryPort,
  actor: Actor,
  site: OpenSite,
  change: SiteChange,
): Promise<Site> {
  const { version, variables, ...fields } = change;
  const advice = change.misses ? await adviseMisses(desk, site, change.misses) : [];
  const replaceVariables = async (transaction: Transaction): Promise<void> => {
    if (variables) {
      await dropVariables(desk.store, { id: site.id }, transaction);
      await addVariables(
        desk.store,
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
    entry: {
      siteId: site.id,
      action: "site.change",
      object: site.key,
      detail: { fields: Object.keys(change).filter((name) => name !== "version") },
    },
    change: { siteId: site.id, kind: "site" },
    stale: async () => stale(siteView(desk, await openSite(desk, site.id))),
  });
  const changed = siteView(desk, await openSite(desk, site.id));
  return advice.length > 0 ? { ...changed, advice } : changed;
}

/** Makes a site with its hosts and an empty set of rules. */
export async function createSite(
  desk: WithStore & WithDeliveryPort & WithWorkspaceHosts,
  actor: Actor,
  input: SiteInput,
): Promise<Site> {
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
export function siteView(desk: WithDeliveryPort, site: OpenSite): Site {
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
