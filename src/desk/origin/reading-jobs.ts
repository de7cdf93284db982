import { spelledStart } from "../../core/address/path-start.ts";
import {
  readingSettingsSchema,
  isToBeRead,
  settingsOfReading,
  type Found,
} from "../../core/origin/origin.ts";
import { keepReadPages } from "../../store/origin/read-pages.ts";
import { addFound, lineUp, lineUpAgain, lineUpNow } from "../../store/origin/readings.ts";
import type { WithStore } from "../ground/parts.ts";
import type { JobKind } from "../jobs/job-kind.ts";
import { openSite, type OpenSite } from "../sites/open-site.ts";
import type { WithJobs } from "../jobs/jobs.ts";
import type { Actor } from "../../core/people/actor.ts";
import { noteLooking, sitesToRead, type OriginRow } from "../../store/origin/origins.ts";
import { originRow, placesOf } from "./origins.ts";
import { lookAtOrigin } from "./reading/look.ts";
import { readRound, type Reading, type RoundResult } from "./reading/read-round.ts";

/** What a round is to read: what was chosen and not read yet, all of it once more, what is due, or just these pages. */
type Round = { again?: boolean; isDue?: true; addresses?: readonly string[] };

/** Looks at what there is on an origin. */
export const lookJob: JobKind<Reading, null, Found> = {
  name: "origin.look",
  run: async (desk, { site }, progress) =>
    lookAtOrigin(desk, site, lookingAt(await originRow(desk, site)), progress),
  oneOf: (siteId) => `origin ${siteId}`,
};

/** Reads pages of an origin. */
export const roundJob: JobKind<Reading, Round, RoundResult> = {
  name: "origin.read",
  async run(desk, { site, input }, progress) {
    const origin = await originRow(desk, site);
    // What its sitemaps name by now may be new, or have changed.
    if (input.isDue) await lookAtOrigin(desk, site, lookingAt(origin), progress);
    const left = input.addresses ? await lineUpThese(desk, site, input.addresses) : "";
    if (!input.addresses) await lineUpChosen(desk, site, input);
    const round = await readRound(desk, site, origin, progress);
    return { ...round, ended: [left, round.ended].filter(Boolean).join(" ") };
  },
  oneOf: (siteId) => `origin ${siteId}`,
};

function lookingAt({ address, settings }: OriginRow): { address: string; pauseMs: number } {
  return { address, pauseMs: readingSettingsSchema.parse(settings).pauseMs };
}

async function lineUpChosen(desk: WithStore, site: OpenSite, { again = false }: Round): Promise<void> {
  const origin = await originRow(desk, site);
  const { parts, leaveOut, mostPages } = settingsOfReading(origin);
  const starts = leaveOut.map(spelledStart);
  const left = await lineUp(desk.store, { site: site.id, parts, leaveOut: starts, most: mostPages });
  if (left.length > 0) await keepReadPages(desk.store, { site: site.id, ids: left });
  await lineUpAgain(desk.store, { site: site.id, all: again });
}

// Answers what is said of those that are not read.
async function lineUpThese(desk: WithStore, site: OpenSite, addresses: readonly string[]): Promise<string> {
  const { address: origin, ...row } = await originRow(desk, site);
  const named = placesOf(site, { ...row, address: origin }, addresses);
  const settings = settingsOfReading(row);
  const places = named.filter((place) => isToBeRead(place, settings));
  const rows = places.map((place) => ({
    ...place,
    named: true,
    namedChange: null,
    depth: 0,
    state: "waiting" as const,
  }));
  await addFound(desk.store, { site: site.id, origin, rows });
  await lineUpNow(desk.store, { site: site.id, paths: places.map(({ path }) => path) });
  const left = named.length - places.length;
  return left === 0 ? "" : `${left} of these ${named.length} are left out by what is to be read.`;
}

const BY_ITSELF: Actor = { name: "Map Rope", role: "editor" };

/** Begins to read again what is due on any site. Answers how many sites that is. */
export async function beginDueReadings(desk: WithStore & WithJobs): Promise<number> {
  const due = await sitesToRead(desk.store);
  for (const { site: id } of due) {
    const site = await openSite(desk, id);
    await lineUpAgain(desk.store, { site: id, all: false });
    await noteLooking(desk.store, { site: id });
    await desk.jobs.start(BY_ITSELF, site, roundJob, { isDue: true });
  }
  return due.length;
}
