import type { Transaction } from "sequelize";
import { writeVersioned } from "../ground/write-versioned.ts";
import { publicAddress } from "../../core/address/public-address.ts";
import type { Site, SiteChange, SiteInput } from "../../core/sites/site.ts";
import { noteChange } from "../../store/ground/changes.ts";
import { partnersOfSites } from "../../store/programs/programs.ts";
import { violatedIndex } from "../../store/ground/store.ts";
import type { Rule } from "../../core/rules/rule.ts";
import { addRuleSet, latestRuleSet } from "../../store/rules/rule-sets.ts";
import { idsOfSites } from "../people/tokens.ts";
import { invalid, Problem, stale } from "../ground/problem.ts";
import { adviseDelivered } from "./delivered-settings.ts";
import { adviseMisses } from "../misses/miss-policy.ts";
import { type OpenSite, openSite, variablesOf, withHosts } from "./open-site.ts";
import { beforeAndAfter, isSame } from "../ground/before-after.ts";
import { audit } from "../ground/audit.ts";
import type { WithStore, WithDeliveryPort, WithWorkspaceHosts } from "../ground/parts.ts";
import {
  addVariables,
  allSites,
  copySettings,
  dropVariables,
  hostsOf,
  insertSite,
} from "../../store/sites/sites.ts";
import { isWorkspace } from "./hosts.ts";
import type { Actor } from "../../core/people/actor.ts";
import { roleOn } from "../../core/people/roles.ts";

/** The sites that an actor may come into, by name. */
export async function listSites(desk: WithStore & WithDeliveryPort, actor: Actor): Promise<Site[]> {
  const rows = (await allSites(desk.store)).filter(({ id }) => roleOn(actor, id) !== null);
  const ids = rows.map(({ id }) => id);
  const [hosts, variables, partners] = await Promise.all([
    hostsOf(desk.store, ids),
    variablesOf(desk, ids),
    partnersOfSites(desk.store, ids),
  ]);
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
  const { shortHost } = change.defaults ?? {};
  if (
    shortHost !== undefined &&
    !site.hosts.some(({ name, role }) => name === shortHost && role !== "former")
  )
    throw invalid([
      { path: "defaults.shortHost", message: `${shortHost} is no host of this site; add it first.` },
    ]);
  const advice = [
    ...(change.misses ? await adviseMisses(desk, site, change.misses) : []),
    ...(change.delivered ? await adviseDelivered(desk, site, change.delivered) : []),
  ];
  const before = changedOf(site, change);
  if (version === site.version && isSame(before, { ...fields, ...(variables ? { variables } : {}) }))
    return { ...siteView(desk, site), ...(advice.length > 0 ? { advice } : {}) };
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
      detail: beforeAndAfter(before, { ...fields, ...(variables ? { variables } : {}) }),
    },
    change: { siteId: site.id, kind: "site" },
    stale: async () => stale(siteView(desk, await openSite(desk, site.id))),
  });
  const changed = siteView(desk, await openSite(desk, site.id));
  return advice.length > 0 ? { ...changed, advice } : changed;
}

// What the fields of a change are before it.
function changedOf(site: OpenSite, { version: _, ...change }: SiteChange): Record<string, unknown> {
  return Object.fromEntries(Object.keys(change).map((name) => [name, site[name as keyof OpenSite]]));
}

/** Makes a site with its hosts and an empty set of rules. */
export async function createSite(
  desk: WithStore & WithDeliveryPort & WithWorkspaceHosts,
  actor: Actor,
  input: SiteInput,
): Promise<Site> {
  const { store } = desk;
  const own = input.hosts.findIndex(({ name }) => isWorkspace(desk, name));
  if (own !== -1)
    throw invalid([
      {
        path: `hosts.${own}.name`,
        message: "The workspace itself is found under this name; readers need another.",
      },
    ]);
  const copied = input.copyOf === undefined ? undefined : await copiedFrom(desk, actor, input.copyOf);
  try {
    const id = await store.transaction(async (transaction) => {
      const { key, name, shortPrefix = "/to/" } = input;
      const row = await insertSite(store, { key, name, shortPrefix }, input.hosts, transaction);
      if (copied) {
        await copySettings(store, { to: row.id, from: copied.id }, transaction);
        if (input.copyRules && copied.rules.length > 0)
          await addRuleSet(
            store,
            { site: row.id, next: 1, version: 0, rules: JSON.stringify(copied.rules), by: actor.name },
            transaction,
          );
      }
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

// What a new site takes over, of one that whoever makes it may come into.
async function copiedFrom(
  desk: WithStore,
  actor: Actor,
  named: string,
): Promise<{ id: string; rules: readonly Rule[] }> {
  const [id] = await idsOfSites(desk, actor, [named], "copyOf").catch((error: unknown) => {
    if (!(error instanceof Problem)) throw error;
    throw invalid([{ path: "copyOf", message: `There is no site ${named}.` }]);
  });
  return { id: id!, rules: (await latestRuleSet(desk.store, id!))?.rules ?? [] };
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
    historyMonths: site.historyMonths,
    archivedAt: site.archivedAt?.toISOString() ?? null,
    country: site.country,
    language: site.language,
    timeZone: site.timeZone,
    defaults: site.defaults,
    delivered: site.delivered,
    origin: site.origin,
    version: site.version,
    createdAt: site.createdAt.toISOString(),
    updatedAt: site.updatedAt.toISOString(),
  };
}
