import { isDeepStrictEqual } from "node:util";
import { fileChangeSchema } from "../../core/files/file.ts";
import { creativeChangeSchema } from "../../core/creatives/creative.ts";
import { navigationInputSchema } from "../../core/navigation/navigation.ts";
import type { Actor } from "../../core/people/actor.ts";
import { reaches } from "../../core/people/roles.ts";
import { memberChangeSchema } from "../../core/people/member.ts";
import { networkInputSchema, programChangeSchema } from "../../core/programs/program.ts";
import { routeChangeSchema } from "../../core/routes/route.ts";
import { siteChangeSchema } from "../../core/sites/site.ts";
import { entryOf } from "../../store/sites/history.ts";
import { changeCreative } from "../creatives/change-creative.ts";
import { openCreative } from "../creatives/creatives.ts";
import { changeFile, fileRow } from "../files/files.ts";
import { checked, notFound, Problem } from "../ground/problem.ts";
import { readNavigation, replaceNavigation } from "../navigation/navigation.ts";
import { changeMember, memberOf } from "../people/members.ts";
import { keepNetwork, networkNamed } from "../programs/networks.ts";
import { changeProgram, openProgram } from "../programs/programs.ts";
import { writtenOf } from "../routes/route-values.ts";
import { changeRoute, routeRow } from "../routes/routes.ts";
import type { OpenSite } from "./open-site.ts";
import { changeSite, siteView } from "./sites.ts";

type PuttingDesk = Parameters<typeof changeCreative>[0];
type Fields = Readonly<Record<string, unknown>>;

/** What a kind of change is about, as it is now, and how its fields are set. */
interface Object_ {
  now: Fields;
  set(fields: Fields): Promise<unknown>;
}

type Opener = (desk: PuttingDesk, actor: Actor, site: OpenSite, id: string) => Promise<Object_>;

const OPENERS: Readonly<Record<string, Opener>> = {
  "route.change": async (desk, actor, site, id) => {
    const row = await routeRow(desk, site, id);
    return {
      now: writtenOf(row),
      set: (fields) =>
        changeRoute(desk, actor, site, id, checked(routeChangeSchema, { ...fields, version: row.version })),
    };
  },
  "program.change": async (desk, actor, site, id) => {
    const { terms, version } = await openProgram(desk, site, id);
    return {
      now: { ...terms },
      set: (fields) =>
        changeProgram(
          desk,
          actor,
          site,
          id,
          checked(programChangeSchema, { ...fields, version }),
          Date.now(),
        ),
    };
  },
  "file.change": async (desk, actor, site, id) => {
    const { alt, path } = await fileRow(desk, site, id);
    return {
      now: { alt, path },
      set: (fields) => changeFile(desk, actor, site, id, checked(fileChangeSchema, fields)),
    };
  },
  "site.change": async (desk, actor, site) => ({
    now: { ...siteView(desk, site) },
    set: (fields) => {
      if (!reaches(actor.role, "owner"))
        throw new Problem(403, "Not yours to change", "A site's settings are for its owners.");
      return changeSite(desk, actor, site, checked(siteChangeSchema, { ...fields, version: site.version }));
    },
  }),
  "creative.change": async (desk, actor, site, id) => {
    const { name, html, version } = await openCreative(desk, site, id);
    return {
      now: { name, html },
      // Its places follow it back, drafts alone: what readers get is published on purpose.
      set: (fields) =>
        changeCreative(
          desk,
          actor,
          site,
          id,
          checked(creativeChangeSchema, { name, html, ...fields, version, published: false }),
        ),
    };
  },
  "network.keep": async (desk, actor, site, name) => {
    const network = await networkNamed(desk, site, name);
    if (!network) throw notFound("This network");
    const { hosts, catalogue, report } = network;
    const now = { hosts, catalogue, report };
    return {
      now,
      set: (fields) =>
        keepNetwork(desk, actor, site, checked(networkInputSchema, { name, ...now, ...fields })),
    };
  },
  "member.change": async (desk, actor, site, id) => {
    const { role } = await memberOf(desk, site, id);
    return {
      now: { role },
      set: (fields) => {
        if (!reaches(actor.role, "owner"))
          throw new Problem(403, "Not yours to change", "Who may do what is for a site's owners.");
        return changeMember(desk, actor, site, id, checked(memberChangeSchema, fields).role);
      },
    };
  },
  "navigation.replace": async (desk, actor, site) => {
    const { items, version } = await readNavigation(desk, site);
    return {
      now: { items },
      set: (fields) => {
        const { items: back } = checked(navigationInputSchema, { ...fields, version });
        return replaceNavigation(desk, actor, site, version, back);
      },
    };
  },
};

/** Whether an entry of the history can be put back: it says what was there before, and there is one way to set it. */
export function canPutBack(entry: { action: string; before: unknown }): boolean {
  return Object.hasOwn(OPENERS, entry.action) && typeof entry.before === "object" && entry.before !== null;
}

/**
 * Sets the fields that a change has set to what they were before it, and no others. Throws a 409 where somebody has changed
 * one of them since, and what the change itself would throw.
 */
export async function putBackEntry(
  desk: PuttingDesk,
  actor: Actor,
  site: OpenSite,
  entryId: string,
): Promise<void> {
  const entry = await entryOf(desk.store, site.id, entryId);
  if (!entry) throw notFound("This change");
  const { before, after, id } = entry.detail as { before?: Fields; after?: Fields; id?: string };
  if (!before || !after || !canPutBack({ action: entry.action, before }))
    throw new Problem(422, "Nothing to put back", "What was there before this change was not kept.");
  const { now, set } = await OPENERS[entry.action]!(desk, actor, site, id ?? entry.object);
  const since = Object.keys(after).filter((name) => !isSame(now[name], after[name]));
  if (since.length > 0)
    throw new Problem(
      409,
      "Changed since",
      `Somebody has changed ${since.join(", ")} since then; what it is now would be lost.`,
    );
  await set(before);
}

function isSame(one: unknown, other: unknown): boolean {
  const plain = (value: unknown): unknown => JSON.parse(JSON.stringify(value ?? null));
  return isDeepStrictEqual(plain(one), plain(other));
}
