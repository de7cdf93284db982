import type { z } from "zod";
import type { Actor } from "../../core/people/actor.ts";
import {
  readingSettingsSchema,
  type Origin,
  type originChangeSchema,
  type originInputSchema,
  type Reading,
  type ReadingResults,
} from "../../core/origin/origin.ts";
import { addressOnOrigin, placeOnOrigin } from "../../core/origin/place.ts";
import type { Listing } from "../../contract/ground/lists.ts";
import type { readingsQuery } from "../../contract/origin.ts";
import { noteChange } from "../../store/ground/changes.ts";
import {
  changeOrigin,
  dropOrigin,
  originOf,
  readingStates,
  setOrigin,
  type OriginRow,
} from "../../store/origin/origins.ts";
import { repeatedOf } from "../../store/origin/read-pages.ts";
import { forgetReadings, listReadings, READING_SORTS } from "../../store/origin/readings.ts";
import { readingPrograms, readingSums } from "../../store/origin/results.ts";
import { audited } from "../ground/audit.ts";
import { listing, portionOf } from "../ground/lists.ts";
import type { WithStore } from "../ground/parts.ts";
import { invalid, notFound, Problem } from "../ground/problem.ts";
import type { OpenSite } from "../sites/open-site.ts";

/** Where a site's pages stand. Throws a 404 for a site that is written here. */
export async function readOrigin(desk: WithStore, site: OpenSite): Promise<Origin> {
  const row = await originRow(desk, site);
  const states = await readingStates(desk.store, { site: site.id });
  return {
    address: row.address,
    comes: row.comes,
    passes: row.passes,
    only: row.only,
    here: row.here,
    frame: row.frame,
    settings: readingSettingsSchema.parse(row.settings),
    found: row.found,
    foundAt: row.foundAt?.toISOString() ?? null,
    traps: row.traps,
    readAt: row.readAt?.toISOString() ?? null,
    states,
    version: row.version,
  };
}

/** The same as it is stored. */
export async function originRow(desk: WithStore, site: OpenSite): Promise<OriginRow> {
  const [row] = await originOf(desk.store, { site: site.id });
  if (!row)
    throw notFound(`An origin of ${site.name}: its pages are written here; name where they stand, and it`);
  return row;
}

/** Names where a site's pages stand. What was read elsewhere is forgotten; nothing is read yet. */
export async function nameOrigin(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  { address, settings = {} }: z.infer<typeof originInputSchema>,
): Promise<Origin> {
  const isOther = site.origin !== null && site.origin.address !== address;
  const entry = {
    siteId: site.id,
    action: "origin.name",
    object: site.id,
    detail: { before: site.origin?.address ?? null, after: address },
  };
  await audited(desk, actor, entry, async (transaction) => {
    if (isOther) await forgetReadings(desk.store, { site: site.id }, transaction);
    await setOrigin(desk.store, { site: site.id, address, settings }, transaction);
    await noteChange(desk.store, transaction, { siteId: site.id, kind: "site" });
  });
  return readOrigin(desk, {
    ...site,
    origin: { comes: "read", passes: "untouched", only: [], here: [], frame: null, ...site.origin, address },
  });
}

/** Changes what is read, over the version that was read. Throws a 409 where another has changed it since. */
export async function changeReading(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  { settings, version }: z.infer<typeof originChangeSchema>,
): Promise<Origin> {
  await originRow(desk, site);
  const entry = { siteId: site.id, action: "origin.change", object: site.id, detail: { ...settings } };
  await audited(desk, actor, entry, async (transaction) => {
    const [changed] = await changeOrigin(desk.store, { site: site.id, version, settings }, transaction);
    if (!changed)
      throw new Problem(
        409,
        "Somebody else was faster",
        "What is read was changed meanwhile; look at it again.",
      );
  });
  return readOrigin(desk, site);
}

/** All pages are written here again; what was read is forgotten. */
export async function forgetOrigin(desk: WithStore, actor: Actor, site: OpenSite): Promise<void> {
  const { address } = await originRow(desk, site);
  const entry = { siteId: site.id, action: "origin.drop", object: site.id, detail: { before: address } };
  await audited(desk, actor, entry, async (transaction) => {
    await forgetReadings(desk.store, { site: site.id }, transaction);
    await dropOrigin(desk.store, { site: site.id }, transaction);
    await noteChange(desk.store, transaction, { siteId: site.id, kind: "site" });
  });
}

/** The pages that were found, and what became of each. */
export async function listOrigin(
  desk: WithStore,
  site: OpenSite,
  query: z.infer<typeof readingsQuery>,
): Promise<Listing<Reading>> {
  const { address } = await originRow(desk, site);
  const rows = await listReadings(
    desk.store,
    { site: site.id, state: query.state, q: query.q?.trim() },
    portionOf(query, READING_SORTS),
  );
  const items = rows.map(({ total: _, readAt, changedAt, nextAt, ...row }) => ({
    ...row,
    address: addressOnOrigin(row.path, address),
    readAt: readAt?.toISOString() ?? null,
    changedAt: changedAt?.toISOString() ?? null,
    nextAt: nextAt?.toISOString() ?? null,
  }));
  return listing(items, Number(rows[0]?.total ?? 0), query);
}

/** What reading has come to so far. */
export async function readingResults(desk: WithStore, site: OpenSite): Promise<ReadingResults> {
  await originRow(desk, site);
  const of = { site: site.id };
  const [states, sums, programs, repeated] = await Promise.all([
    readingStates(desk.store, of),
    readingSums(desk.store, of),
    readingPrograms(desk.store, of),
    repeatedOf(desk.store, of),
  ]);
  const { sponsored, ugc, nofollow, plain, newTab, ...rest } = sums;
  return {
    ...rest,
    pages: states.filter(({ state }) => state === "read").reduce((sum, { pages }) => sum + pages, 0),
    written: { sponsored, ugc, nofollow, plain, newTab },
    programs,
    repeated,
  };
}

/** The places on the origin that these addresses name. Throws a 422 that names those that are another's. */
export function placesOf(site: OpenSite, origin: OriginRow, addresses: readonly string[]) {
  const places = addresses.map((address) =>
    placeOnOrigin(
      address.startsWith("/") ? addressOnOrigin(address, origin.address) : address,
      origin.address,
      site.hostNames,
    ),
  );
  const errors = places.flatMap((place, index) =>
    place
      ? []
      : [
          {
            path: `addresses.${index}`,
            message: `${addresses[index]!} is no address of ${new URL(origin.address).host}.`,
          },
        ],
  );
  if (errors.length > 0) throw invalid(errors);
  return places.flatMap((place) => place ?? []);
}
