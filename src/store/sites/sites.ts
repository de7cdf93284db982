import { isRowId } from "../ground/row-ids.ts";
import type { HostRow, SiteRow } from "../ground/models.ts";
import type { Store } from "../ground/store.ts";
import type { Transaction } from "sequelize";

/** Ids of all sites. */
export function siteIds(store: Store): Promise<{ id: string }[]> {
  return store.rows<{ id: string }>("SELECT id::text FROM sites ORDER BY id");
}
export interface VariableRow {
  siteId: string;
  name: string;
  value: string;
}

/** The variables of these sites, by name. */
export function variableRows(store: Store, of: { ids: readonly string[] }): Promise<VariableRow[]> {
  return store.rows<VariableRow>(
    'SELECT site_id::text AS "siteId", name, value FROM site_variables WHERE site_id = ANY($ids::bigint[]) ORDER BY name',
    of,
  );
}

/** Takes all variables of a site away. */
export function dropVariables(store: Store, of: { id: string }, transaction: Transaction): Promise<object[]> {
  return store.rows("DELETE FROM site_variables WHERE site_id = $id", of, transaction);
}

/** Sets variables of a site. */
export function addVariables(
  store: Store,
  of: { id: string; names: readonly string[]; values: readonly string[] },
  transaction: Transaction,
): Promise<object[]> {
  return store.rows(
    `INSERT INTO site_variables (site_id, name, value)
         SELECT $id::bigint, name, value FROM unnest($names::text[], $values::text[]) AS t (name, value)`,
    of,
    transaction,
  );
}

/** A site by its id or its key; undefined when there is none. */
export async function findSite(store: Store, idOrKey: string): Promise<SiteRow | undefined> {
  const where = isRowId(idOrKey) ? { id: idOrKey } : { key: idOrKey };
  return (await store.sites.findOne({ where })) ?? undefined;
}

/** All sites, by name. */
export function allSites(store: Store): Promise<SiteRow[]> {
  return store.sites.findAll({ order: [["name", "ASC"]] });
}

/** The hosts of sites, the oldest first. */
export function hostsOf(store: Store, siteIds: readonly string[]): Promise<HostRow[]> {
  return store.hosts.findAll({ where: { siteId: [...siteIds] }, order: [["id", "ASC"]] });
}

/** Makes a site with its hosts. Throws where the key or a host is taken (indexes `sites_key_key`, `hosts_name_key`). */
export async function insertSite(
  store: Store,
  site: Pick<SiteRow, "key" | "name" | "shortPrefix">,
  hosts: readonly Pick<HostRow, "name" | "role">[],
  transaction: Transaction,
): Promise<{ id: string }> {
  const { id } = await store.sites.create({ ...site, tagline: "", version: 1 }, { transaction });
  await store.hosts.bulkCreate(
    hosts.map((host) => ({ ...host, siteId: id, leadsTo: null })),
    { transaction },
  );
  return { id };
}

/** Takes a site away with all that belongs to it. */
export async function removeSite(store: Store, key: string, transaction?: Transaction): Promise<void> {
  await store.sites.destroy({ where: { key }, transaction });
}

/** Notes that a site rests from now on, or that it does no more. */
export async function setArchived(
  store: Store,
  of: { site: string; rests: boolean },
  transaction: Transaction,
): Promise<void> {
  await store.rows(
    "UPDATE sites SET archived_at = CASE WHEN $rests::boolean THEN now() END, version = version + 1 WHERE id = $site::bigint RETURNING id",
    of,
    transaction,
  );
}

/** Gives a new site the settings of another one. */
export async function copySettings(
  store: Store,
  of: { to: string; from: string },
  transaction: Transaction,
): Promise<void> {
  await store.rows(
    `UPDATE sites n SET short_prefix = o.short_prefix, paid_limit = o.paid_limit, paid_limit_long = o.paid_limit_long, long_words = o.long_words,
       disclosure = o.disclosure, click_months = o.click_months, history_months = o.history_months, country = o.country,
       language = o.language, time_zone = o.time_zone, defaults = o.defaults - 'shortHost', delivered = o.delivered - 'icon', tagline = o.tagline
     FROM sites o WHERE n.id = $to::bigint AND o.id = $from::bigint RETURNING n.id`,
    of,
    transaction,
  );
  await store.rows(
    "INSERT INTO site_variables (site_id, name, value) SELECT $to::bigint, name, value FROM site_variables WHERE site_id = $from::bigint RETURNING name",
    of,
    transaction,
  );
}

/** A host with the number of routes that answer on it alone. */
export interface HostWithRoutes {
  name: string;
  role: HostRow["role"];
  leadsTo: string | null;
  routes: number;
  shortLinks: number;
  pages: number;
  links: number;
}

/** The hosts of a site with what hangs on them, the oldest first. */
export function hostsWithRoutes(store: Store, of: { site: string }): Promise<HostWithRoutes[]> {
  return store.rows<HostWithRoutes>(
    `SELECT h.name, h.role, h.leads_to AS "leadsTo",
       (SELECT count(*)::int FROM routes r WHERE r.site_id = h.site_id AND r.host = h.name AND r.deleted_at IS NULL) AS routes,
       (SELECT count(*)::int FROM routes r WHERE r.site_id = h.site_id AND r.kind = 'short' AND r.deleted_at IS NULL
          AND (r.host = h.name OR r.host IS NULL AND h.role <> 'former')) AS "shortLinks",
       CASE WHEN h.role IN ('primary', 'other') THEN (SELECT count(*)::int FROM pages p WHERE p.site_id = h.site_id AND p.kind = 'page'
          AND p.published IS NOT NULL AND p.deleted_at IS NULL) ELSE 0 END AS pages,
       (SELECT count(*)::int FROM ledger_links l WHERE l.site_id = h.site_id AND lower(l.href) ~ ('^(?:https?:)?//' || replace(h.name, '.', '\\.') || '(?:[/:?#]|$)') AND l.edition <> 'published') AS links
     FROM hosts h WHERE h.site_id = $site::bigint ORDER BY h.id`,
    of,
  );
}

/** Adds a host. Throws where another site, or this one, has it (index `hosts_name_key`). */
export async function insertHost(
  store: Store,
  host: Pick<HostRow, "siteId" | "name" | "role" | "leadsTo">,
  transaction: Transaction,
): Promise<void> {
  await store.hosts.create(host, { transaction });
}

/** Changes what a host of a site is for. */
export async function updateHostRole(
  store: Store,
  { siteId, name, role }: Pick<HostRow, "siteId" | "name" | "role">,
  transaction: Transaction,
): Promise<void> {
  await store.hosts.update({ role, leadsTo: null }, { where: { siteId, name }, transaction });
}

/** Gives a host another name, with the routes and their places that are on it alone, and former hosts that lead to it. Answers the routes. */
export async function renameHost(
  store: Store,
  of: { site: string; name: string; next: string },
  transaction: Transaction,
): Promise<string[]> {
  await store.rows(
    "UPDATE hosts SET name = $next WHERE site_id = $site::bigint AND name = $name RETURNING id",
    of,
    transaction,
  );
  await store.rows(
    "UPDATE hosts SET leads_to = $next WHERE site_id = $site::bigint AND leads_to = $name RETURNING id",
    of,
    transaction,
  );
  const routes = await store.rows<{ id: string }>(
    "UPDATE routes SET host = $next, version = version + 1, updated_at = now() WHERE site_id = $site::bigint AND host = $name RETURNING id::text",
    of,
    transaction,
  );
  await store.rows(
    "UPDATE route_addresses SET host = $next WHERE site_id = $site::bigint AND host = $name RETURNING route_id",
    of,
    transaction,
  );
  return routes.map(({ id }) => id);
}

/** Takes a host away; former ones that lead to it lead to the primary one then. */
export async function removeHost(
  store: Store,
  { siteId, name, primary }: Pick<HostRow, "siteId" | "name"> & { primary: string },
  transaction: Transaction,
): Promise<void> {
  await store.hosts.update({ leadsTo: primary }, { where: { siteId, leadsTo: name }, transaction });
  await store.hosts.destroy({ where: { siteId, name }, transaction });
}
