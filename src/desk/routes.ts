import { z } from "zod";
import type { Transaction } from "sequelize";
import { compareKey } from "../core/address/compare.ts";
import { splitOwnAddress } from "../core/objects/fields.ts";
import {
  ROUTE_KINDS,
  type Advice,
  type Route,
  type RouteChange,
  type RouteInput,
  type RouteKind,
  type RouteStatus,
} from "../core/objects/route.ts";
import { routeKey } from "../core/routes/advise.ts";
import { noteChange } from "../store/changes.ts";
import type { RouteRow, Row } from "../store/models.ts";
import { violatedIndex } from "../store/store.ts";
import { audit, type Actor, type Desk } from "./desk.ts";
import { containing, cursorOffset, listing, listQuery, orderBy, type Listing } from "./lists.ts";
import { invalid, notFound, stale, type FieldError } from "./problem.ts";
import { adviceFor, refusals } from "./route-advice.ts";
import { routeView, routeViews } from "./route-views.ts";
import type { OpenSite } from "./sites.ts";

/** What the list of routes can be narrowed by. */
export const routesQuery = listQuery.extend({
  kind: z.enum(ROUTE_KINDS, "kind is short, redirect or gone.").optional(),
  host: z.string().max(253).optional(),
  tag: z.string().max(60).optional(),
  program: z.string().max(120).optional(),
  state: z.enum(["on", "off"]).optional(),
});

const SORT = {
  createdAt: "r.id",
  address: "r.address",
  destination: "r.destination",
  title: "r.title",
  status: "r.status",
  clicks: "coalesce(c.clicks, 0)",
  lastClick: "c.last_at",
  updatedAt: "r.updated_at",
};

const DEFAULT_STATUS: Readonly<Record<RouteKind, RouteStatus>> = { short: 302, redirect: 301, gone: 410 };

/** The routes of a site, newest first unless sorted otherwise. */
export async function listRoutes(
  desk: Desk,
  site: OpenSite,
  query: z.infer<typeof routesQuery>,
): Promise<Listing<Route>> {
  const filters = ["r.site_id = $site::bigint", "r.deleted_at IS NULL"];
  const bind: Record<string, unknown> = { site: site.id };
  const narrow = (sql: string, name: string, value: unknown): void => {
    if (value === undefined || value === "") return;
    filters.push(sql);
    bind[name] = value;
  };
  narrow("r.kind = $kind", "kind", query.kind);
  narrow("r.host = $host", "host", query.host);
  narrow("$tag = ANY(r.tags)", "tag", query.tag);
  narrow("r.enabled = $enabled", "enabled", query.state && query.state === "on");
  narrow(
    "(r.address ILIKE $q OR r.title ILIKE $q OR r.destination ILIKE $q OR array_to_string(r.aliases, ' ') ILIKE $q)",
    "q",
    query.q && containing(query.q),
  );
  // Programs are not kept yet, so none of the routes belongs to one.
  if (query.program) filters.push("false");
  const ids = await desk.store.rows<{ id: string; total: string }>(
    `SELECT r.id::text, count(*) OVER ()::text AS total FROM routes r LEFT JOIN route_clicks c ON c.route_id = r.id
     WHERE ${filters.join(" AND ")} ORDER BY ${orderBy(query.sort, SORT)}, r.id DESC LIMIT ${query.limit} OFFSET ${cursorOffset(query.cursor)}`,
    bind,
  );
  const rows = await desk.store.routes.findAll({ where: { id: ids.map(({ id }) => id) } });
  const byId = new Map(rows.map((row) => [row.id, row]));
  const items = await routeViews(
    desk,
    site,
    ids.map(({ id }) => byId.get(id)!),
  );
  return listing(items, Number(ids[0]?.total ?? 0), query);
}

/** One route. */
export async function readRoute(desk: Desk, site: OpenSite, id: string): Promise<Route> {
  return routeView(desk, site, await routeRow(desk, site, id));
}

/** Makes a route; refused with messages at its fields when the linter finds an error. */
export async function createRoute(
  desk: Desk,
  actor: Actor,
  site: OpenSite,
  input: RouteInput,
): Promise<Route> {
  const values = completed(site, input);
  const advice = await checked(desk, site, values);
  const row = await writing(values.address, () =>
    desk.store.transaction(async (transaction) => {
      const created = await desk.store.routes.create(
        { ...values, siteId: site.id, version: 1 },
        { transaction },
      );
      await claimAddresses(desk, created, transaction);
      await noteChange(desk.store, transaction, { siteId: site.id, kind: "route", objectId: created.id });
      return created;
    }),
  );
  await audit(desk, actor, {
    siteId: site.id,
    action: "route.create",
    object: row.id,
    detail: { address: values.address },
  });
  return routeView(desk, site, row, advice);
}

/** Changes a route; refused when somebody saved it since `change.version`. */
export async function changeRoute(
  desk: Desk,
  actor: Actor,
  site: OpenSite,
  id: string,
  change: RouteChange,
): Promise<Route> {
  const row = await routeRow(desk, site, id);
  if (row.version !== change.version) throw stale(await routeView(desk, site, row));
  const { version, ...fields } = change;
  const present = Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined));
  const values = completed(site, { ...inputOf(row), ...present, ...statusForKind(row, change) });
  const advice = await checked(desk, site, values, id);
  await writing(values.address, () =>
    desk.store.transaction(async (transaction) => {
      const [saved] = await desk.store.routes.update(
        { ...values, version: version + 1 },
        { where: { id, version, deletedAt: null }, transaction },
      );
      if (saved === 0) throw stale(await readRoute(desk, site, id));
      await row.reload({ transaction });
      await claimAddresses(desk, row, transaction);
      await noteChange(desk.store, transaction, { siteId: site.id, kind: "route", objectId: id });
    }),
  );
  await audit(desk, actor, { siteId: site.id, action: "route.change", object: id, detail: present });
  return routeView(desk, site, row, advice);
}

/** Deletes a route: its addresses are free at once, and `restoreRoute` brings it back. */
export async function deleteRoute(desk: Desk, actor: Actor, site: OpenSite, id: string): Promise<void> {
  const row = await routeRow(desk, site, id);
  await desk.store.transaction(async (transaction) => {
    await row.update({ deletedAt: new Date() }, { transaction, silent: true });
    await desk.store.rows("DELETE FROM route_addresses WHERE route_id = $id::bigint", { id }, transaction);
    await noteChange(desk.store, transaction, { siteId: site.id, kind: "route", objectId: id });
  });
  await audit(desk, actor, {
    siteId: site.id,
    action: "route.delete",
    object: id,
    detail: { address: row.address },
  });
}

/** Brings a deleted route back; refused when its address was given away meanwhile. */
export async function restoreRoute(desk: Desk, actor: Actor, site: OpenSite, id: string): Promise<Route> {
  const row = /^\d{1,18}$/.test(id)
    ? await desk.store.routes.findOne({ where: { id, siteId: site.id } })
    : null;
  if (!row) throw notFound("This route");
  if (row.deletedAt) {
    await checked(desk, site, completed(site, inputOf(row)), id);
    await writing(row.address, () =>
      desk.store.transaction(async (transaction) => {
        await row.update({ deletedAt: null }, { transaction, silent: true });
        await claimAddresses(desk, row, transaction);
        await noteChange(desk.store, transaction, { siteId: site.id, kind: "route", objectId: id });
      }),
    );
    await audit(desk, actor, { siteId: site.id, action: "route.restore", object: id });
  }
  return routeView(desk, site, row);
}

type RouteValues = Omit<RouteRow, "id" | "siteId" | "version" | "createdAt" | "updatedAt" | "deletedAt">;

// Every field of a route from what was handed in, its defaults filled in, impossible combinations refused.
function completed(site: OpenSite, input: RouteInput): RouteValues {
  const errors: FieldError[] = [];
  const host = input.host ?? null;
  if (host !== null && !site.hostNames.includes(host)) {
    errors.push({
      path: "host",
      message: `${host} is no host of this site. Its hosts are ${site.hostNames.join(", ")}.`,
    });
  }
  const status = input.status ?? DEFAULT_STATUS[input.kind];
  const gone = input.kind === "gone";
  if (gone !== (status === 410)) {
    errors.push({
      path: "status",
      message: gone
        ? "A gone route answers 410."
        : "410 is for routes of kind “gone”; choose 301, 302, 303, 307 or 308.",
    });
  }
  if (!gone && !input.destination)
    errors.push({ path: "destination", message: "The destination is missing: where shall readers arrive?" });
  if (input.validFrom && input.validUntil && input.validFrom >= input.validUntil) {
    errors.push({ path: "validUntil", message: "The end is not after the beginning." });
  }
  if (errors.length > 0) throw invalid(errors);
  const destination = gone ? null : input.destination!;
  return {
    kind: input.kind,
    host,
    address: input.address,
    aliases: input.aliases ?? [],
    destination,
    destinationKey: destination && compareKey(destination),
    status,
    query: input.query ?? "drop",
    title: input.title ?? "",
    tags: input.tags ?? [],
    noindex: input.robots?.noindex ?? false,
    nofollow: input.robots?.nofollow ?? false,
    counted: input.counted ?? true,
    enabled: input.enabled ?? true,
    replacesPage: input.replacesPage ?? false,
    validFrom: input.validFrom ? new Date(input.validFrom) : null,
    validUntil: input.validUntil ? new Date(input.validUntil) : null,
  };
}

/** An address that was typed with one of our hosts in front is taken apart before it is checked. */
export function withOwnHost<T extends { address?: unknown; host?: unknown }>(site: OpenSite, input: T): T {
  if (typeof input.address !== "string") return input;
  const { host, path } = splitOwnAddress(input.address, site.hostNames);
  return { ...input, address: path, ...(host && input.host === undefined ? { host } : {}) };
}

function inputOf(row: RouteRow): RouteInput {
  return {
    kind: row.kind,
    address: row.address,
    host: row.host,
    destination: row.destination,
    status: row.status,
    query: row.query,
    title: row.title,
    tags: row.tags,
    robots: { noindex: row.noindex, nofollow: row.nofollow },
    counted: row.counted,
    enabled: row.enabled,
    validFrom: row.validFrom?.toISOString(),
    validUntil: row.validUntil?.toISOString(),
    aliases: row.aliases,
    replacesPage: row.replacesPage,
  };
}

// A route that becomes another kind gets that kind's status, unless one was chosen.
function statusForKind(row: RouteRow, change: RouteChange): { status?: RouteStatus } {
  return change.kind && change.kind !== row.kind && change.status === undefined
    ? { status: DEFAULT_STATUS[change.kind] }
    : {};
}

async function checked(desk: Desk, site: OpenSite, values: RouteValues, id?: string): Promise<Advice[]> {
  const advice = await adviceFor(
    desk,
    site,
    { ...values, folded: values.kind === "short", addresses: [values.address, ...values.aliases] },
    id,
  );
  const errors = refusals(advice);
  if (errors.length > 0) throw invalid(errors);
  return advice;
}

async function claimAddresses(desk: Desk, row: RouteRow, transaction: Transaction): Promise<void> {
  await desk.store.rows(
    "DELETE FROM route_addresses WHERE route_id = $id::bigint",
    { id: row.id },
    transaction,
  );
  const keys = [row.address, ...row.aliases].map((address) => routeKey(address, row.kind === "short"));
  await desk.store.rows(
    "INSERT INTO route_addresses (site_id, host, key, route_id) SELECT $site::bigint, $host::text, key, $id::bigint FROM unnest($keys::text[]) AS key",
    { site: row.siteId, host: row.host ?? "*", id: row.id, keys },
    transaction,
  );
}

// The linter has looked before; this is for the moment in between, when somebody else took the address.
async function writing<T>(address: string, work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (violatedIndex(error) === "route_addresses_pkey") {
      throw invalid([
        { path: "address", message: `${address} or one of its aliases has just been taken. Choose another.` },
      ]);
    }
    throw error;
  }
}

async function routeRow(desk: Desk, site: OpenSite, id: string): Promise<Row<RouteRow>> {
  const row = /^\d{1,18}$/.test(id)
    ? await desk.store.routes.findOne({ where: { id, siteId: site.id, deletedAt: null } })
    : null;
  if (!row) throw notFound("This route");
  return row;
}
