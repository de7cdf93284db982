import { inFigures } from "../../core/text/in-figures.ts";
import { writeVersioned } from "../ground/write-versioned.ts";
import { foreignPages } from "../pages/content-pages.ts";
import type { Transaction } from "sequelize";
import type { Advice, Route, RouteChange, RouteInput } from "../../core/routes/route.ts";
import { routeKey } from "../../core/routes/match/address-form.ts";
import { beforeAndAfter, isSame } from "../ground/before-after.ts";
import { noteChange } from "../../store/ground/changes.ts";
import type { RouteRow, Row } from "../../store/ground/models.ts";
import { violatedIndex } from "../../store/ground/store.ts";
import { invalid, notFound, stale } from "../ground/problem.ts";
import { adviceFor, refusals } from "./route-advice.ts";
import { normalizeRoute, writtenOf, type RouteValues } from "./route-values.ts";
import { usualRoute } from "../../core/sites/usual-route.ts";
import { routeView } from "./route-views.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { audit } from "../ground/audit.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";
import { dropAddresses, patternCount, putAddresses } from "../../store/routes/addresses.ts";
import type { Actor } from "../../core/people/actor.ts";
import { findRoute, insertRoute } from "../../store/routes/routes.ts";

const MAX_PATTERNS = 2_000;

/** One route. */
export async function readRoute(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  id: string,
): Promise<Route> {
  return routeView(desk, site, await routeRow(desk, site, id));
}

/** Makes a route; refused with messages at its fields when the linter finds an error. */
export async function createRoute(
  desk: WithStore & WithDeliveryPort,
  actor: Actor,
  site: OpenSite,
  input: RouteInput,
): Promise<Route> {
  const values = normalizeRoute(site, input);
  const advice = await checked(desk, site, values);
  const row = await writing(values.address, () =>
    desk.store.transaction(async (transaction) => {
      const created = await insertRoute(desk.store, { ...values, siteId: site.id, version: 1 }, transaction);
      await claimAddresses(desk, created, transaction);
      await audit(
        desk,
        actor,
        { siteId: site.id, action: "route.create", object: created.id, detail: { address: values.address } },
        transaction,
      );
      await noteChange(desk.store, transaction, { siteId: site.id, kind: "route", objectId: created.id });
      return created;
    }),
  );
  return routeView(desk, site, row, advice);
}

/** Changes a route; refused when somebody saved it since `change.version`. */
export async function changeRoute(
  desk: WithStore & WithDeliveryPort,
  actor: Actor,
  site: OpenSite,
  id: string,
  change: RouteChange,
): Promise<Route> {
  const row = await routeRow(desk, site, id);
  if (row.version !== change.version) throw stale(await routeView(desk, site, row));
  const { version, ...fields } = change;
  const present = Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined));
  const values = normalizeRoute(site, { ...writtenOf(row), ...present, ...statusFor(site, row, change) });
  const advice = await checked(desk, site, values, id);
  const changed = changedFields(row, values);
  if (Object.keys(changed).length === 0) return routeView(desk, site, row, advice);
  await writing(values.address, () =>
    writeVersioned<RouteRow>(desk, actor, {
      table: desk.store.routes,
      where: { id, version, deletedAt: null },
      fields: changed,
      alongside: async (transaction) => {
        await row.reload({ transaction });
        await claimAddresses(desk, row, transaction);
      },
      entry: {
        siteId: site.id,
        action: "route.change",
        object: id,
        detail: beforeAndAfter(writtenOf(row), writtenOf({ ...row.get(), ...values })),
      },
      change: { siteId: site.id, kind: "route", objectId: id },
      stale: async () => stale(await readRoute(desk, site, id)),
    }),
  );
  return routeView(desk, site, row, advice);
}

function changedFields(row: RouteRow, values: RouteValues): Partial<RouteValues> {
  return Object.fromEntries(
    Object.entries(values).filter(([name, value]) => !isSame(row[name as keyof RouteValues], value)),
  );
}

/** Deletes a route: its addresses are free at once, and `restoreRoute` brings it back. */
export async function deleteRoute(desk: WithStore, actor: Actor, site: OpenSite, id: string): Promise<void> {
  const row = await routeRow(desk, site, id);
  await desk.store.transaction(async (transaction) => {
    await row.update({ deletedAt: new Date() }, { transaction, silent: true });
    await dropAddresses(desk.store, { ids: [id] }, transaction);
    await audit(
      desk,
      actor,
      { siteId: site.id, action: "route.delete", object: id, detail: { address: row.address } },
      transaction,
    );
    await noteChange(desk.store, transaction, { siteId: site.id, kind: "route", objectId: id });
  });
}

/** Brings a deleted route back, at another `address` where its own was given away; refused where that is taken. */
export async function restoreRoute(
  desk: WithStore & WithDeliveryPort,
  actor: Actor,
  site: OpenSite,
  id: string,
  address?: string,
): Promise<Route> {
  const row = await findRoute(desk.store, { id, siteId: site.id, evenDeleted: true });
  if (!row) throw notFound("This route");
  if (row.deletedAt) {
    const values = normalizeRoute(site, { ...writtenOf(row), address: address ?? row.address });
    await checked(desk, site, values, id);
    await writing(values.address, () =>
      desk.store.transaction(async (transaction) => {
        await row.update({ address: values.address, deletedAt: null }, { transaction, silent: true });
        await claimAddresses(desk, row, transaction);
        await audit(desk, actor, { siteId: site.id, action: "route.restore", object: id }, transaction);
        await noteChange(desk.store, transaction, { siteId: site.id, kind: "route", objectId: id });
      }),
    );
  }
  return routeView(desk, site, row);
}

// A route that becomes another kind, or gets or loses its notice, gets a fitting status unless one was chosen.
function statusFor(site: OpenSite, row: RouteRow, change: RouteChange): Partial<RouteInput> {
  if (change.status !== undefined) return change.status === 200 ? {} : { notice: change.notice ?? null };
  if (change.kind && change.kind !== row.kind)
    return { status: usualRoute(site.defaults, change.kind).status, notice: null };
  if (change.notice && row.status !== 200) return { status: 200 };
  return {};
}

async function checked(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  values: RouteValues,
  id?: string,
): Promise<Advice[]> {
  await refuseTooManyPatterns(desk, site, values, id);
  const [foreign] = await foreignPages(desk, site, values.contentPages);
  if (foreign !== undefined)
    throw invalid([{ path: "contentPages", message: `There is no page ${foreign} on this site.` }]);
  const advice = await adviceFor(
    desk,
    site,
    { ...values, caseInsensitive: values.kind === "short", addresses: [values.address, ...values.aliases] },
    id,
  );
  const errors = refusals(advice);
  if (errors.length > 0) throw invalid(errors);
  return advice;
}

async function claimAddresses(desk: WithStore, row: RouteRow, transaction: Transaction): Promise<void> {
  await dropAddresses(desk.store, { ids: [row.id] }, transaction);
  await putAddresses(
    desk.store,
    { site: row.siteId, host: row.host ?? "*", id: row.id, keys: keysOf(row) },
    transaction,
  );
}

// All patterns of a site are one automaton; this is how large it may get (measured by `npm run bench -- redirects`).
async function refuseTooManyPatterns(
  desk: WithStore,
  site: OpenSite,
  values: RouteValues,
  id = "0",
): Promise<void> {
  if (values.match !== "pattern") return;
  if ((await countPatterns(desk, site, id)) < MAX_PATTERNS) return;
  throw invalid([{ path: "match", message: TOO_MANY_PATTERNS }]);
}

export const TOO_MANY_PATTERNS = `A site has at most ${inFigures(MAX_PATTERNS)} patterns. Wildcards and prefixes are not limited; most patterns can be one.`;

/** How many patterns a site may still have. */
export async function patternsLeft(desk: WithStore, site: OpenSite): Promise<number> {
  return MAX_PATTERNS - (await countPatterns(desk, site, "0"));
}

async function countPatterns(desk: WithStore, site: OpenSite, except: string): Promise<number> {
  const [count] = await patternCount(desk.store, { site: site.id, except });
  return count!.n;
}

/** The stored keys that a route claims. */
export function keysOf(row: Pick<RouteRow, "address" | "aliases" | "kind" | "match">): string[] {
  return [row.address, ...row.aliases].map((address) => routeKey(address, row.kind === "short", row.match));
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

/** The stored route; throws when there is none. */
export async function routeRow(desk: WithStore, site: OpenSite, id: string): Promise<Row<RouteRow>> {
  const row = await findRoute(desk.store, { id, siteId: site.id });
  if (!row) throw notFound("This route");
  return row;
}
