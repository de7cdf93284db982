import { isPagePlace } from "../../../core/ledger/ledger.ts";
import { inFigures } from "../../../core/text/in-figures.ts";
import { routeDestinations } from "../../../store/routes/lists.ts";
import { destination as destinationSchema } from "../../../core/ground/fields.ts";
import { changedDestination, changeLink } from "../../../core/ledger/change-link.ts";
import type { LinkAction, LinkBulk, LinkChange } from "../../../core/ledger/ledger.ts";
import { fillAddress } from "../../../core/text/variables.ts";
import {
  ledgerEntries,
  readForChange,
  ledgerIds,
  type ChangedRow,
} from "../../../store/ledger/ledger-reading.ts";
import type { Progress } from "../../../threads/progress.ts";
import { Problem } from "../../ground/problem.ts";
import { creativeChange, linksOfCreative } from "./creative-change.ts";
import { directoryChange } from "./directory-change.ts";
import { linksTo, programChange, type AddressChange, type ProgramChange } from "./program-change.ts";
import { shortUrls, type ShortUrl } from "./shorten.ts";
import type { OpenSite } from "../../sites/open-site.ts";
import type { PlannedDocument, RowChange, BulkPlan } from "./planned.ts";
import type { WithStore, WithDeliveryPort, WithWorkspaceHosts } from "../../ground/parts.ts";
import type { Actor } from "../../../core/people/actor.ts";

const MAX_LINKS = 50_000;

/**
 * Finds out what a change of many does. It changes nothing yet, save that short links that are to be put in are made,
 * unless it is a dry run.
 */
export async function planChange(
  desk: WithStore & WithDeliveryPort & WithWorkspaceHosts,
  actor: Actor,
  site: OpenSite,
  bulk: LinkBulk,
  progress: Progress,
): Promise<BulkPlan> {
  const ofProgram = bulk.action.do === "program" ? await programChange(desk, site, bulk.action) : undefined;
  const ofCreative =
    bulk.action.do === "creative" ? await creativeChange(desk, site, bulk.action) : undefined;
  const ofDirectory =
    bulk.action.do === "directory" ? await directoryChange(desk, site, bulk.action) : undefined;
  const rows = ofDirectory
    ? await readForChange(desk.store, site.id, ofDirectory.links, bulk.published)
    : await chosenRows(desk, site, bulk, ofProgram);
  const shorts =
    bulk.action.do === "shorten"
      ? await shortUrls(desk, site, rows, bulk.dryRun ? undefined : actor)
      : { urls: new Map<string, ShortUrl>(), made: [] };
  const documents = new Map<string, PlannedDocument>();
  const elsewhere: BulkPlan["elsewhere"] = [];
  const refused: BulkPlan["refused"] = [
    ...(ofDirectory?.refused ?? []),
    ...(await missingOf(desk, site, bulk, rows)),
  ];
  // What a filter finds besides is no part of “replace this address”; what somebody marked is.
  const isMeant = bulk.ids !== undefined || MEANS_ALL.has(bulk.action.do);
  for (const [index, row] of rows.entries()) {
    if (index % 2_000 === 0) await progress.step(index, rows.length);
    const where = isPagePlace(row.kind) ? row.place : row.title;
    const address = fillAddress(row.href, site.variables);
    const change =
      ofCreative?.(row) ??
      ofDirectory?.link(row) ??
      ofProgram?.link(row, address) ??
      changeOf(row, address, bulk.action, shorts.urls.get(row.destination_key));
    if (change && "refused" in change) refused.push({ where, message: `${row.href}: ${change.refused}` });
    else if (!change && isMeant)
      refused.push({ where, message: `${row.href}: ${WHY_UNCHANGED[bulk.action.do]}` });
    if (!change || "refused" in change) continue;
    if (row.kind === "read" || row.kind === "repeated") {
      if (change.href !== row.href && !change.inside) {
        const { id, page_id: pageId, kind, words, href: before } = row;
        elsewhere.push({ link: id, pageId, kind, where, words, before, after: change.href });
      } else refused.push({ where, message: `${row.href}: ${ELSEWHERE}` });
      continue;
    }
    const key = `${row.page_id} ${row.edition}`;
    let document = documents.get(key);
    if (!document) {
      const { page_id: pageId, kind, edition, stamp } = row;
      documents.set(key, (document = { pageId, kind, where, edition, stamp, links: [] }));
    }
    document.links.push({ ...change, ordinal: row.ordinal, before: row });
  }
  return {
    documents: [...documents.values()],
    routes: await plannedRoutes(desk, site, bulk, rows, ofProgram?.change, refused),
    moves: ofDirectory?.moves ?? [],
    elsewhere,
    refused,
    made: shorts.made,
  };
}

const ELSEWHERE =
  "It is written elsewhere; how it is marked there follows the rules, and is on the list to do there.";
const MEANS_ALL: ReadonlySet<LinkAction["do"]> = new Set(["override", "clear-overrides", "shorten"]);
const WHY_UNCHANGED: Readonly<Record<LinkAction["do"], string>> = {
  override: "It is set so already.",
  "clear-overrides": "Nothing is set by hand on it.",
  destination: "It does not lead there, or leads to the new address already.",
  host: "It is not on that host.",
  parameter: "It has no such parameter, or has that value already.",
  shorten: "It leads to no outside address, or is a short link already.",
  program: "It is as the program wants it already.",
  creative: "It does not come from this creative, or is as it shall be already.",
  directory: "It does not lead there, or is in the new directory already.",
};

// Marked entries that are not among those that are looked at: gone since, or not what is to be changed.
async function missingOf(
  desk: WithStore,
  site: OpenSite,
  { ids, published }: LinkBulk,
  rows: readonly ChangedRow[],
): Promise<BulkPlan["refused"]> {
  const looked = new Set(rows.map(({ id }) => id));
  const missing = (ids ?? []).filter((id) => !looked.has(id));
  if (missing.length === 0) return [];
  const there = new Map((await ledgerEntries(desk.store, site.id, missing)).map((one) => [one.id, one]));
  return missing.map((id) => {
    const entry = there.get(id);
    if (entry === undefined)
      return { where: `entry ${id}`, message: "It is not there any more; look again." };
    const why = published
      ? "It was changed meanwhile; look again."
      : "Only what readers get has it, and only drafts were to be changed.";
    return { where: entry.where, message: `${entry.href}: ${why}` };
  });
}

function changeOf(
  { href, override }: ChangedRow,
  address: string,
  action: LinkAction,
  short: string | { refused: string } | undefined,
): RowChange {
  if (typeof short === "object") return short;
  const change = changeLink({ href, address, override, shortUrl: short }, action);
  return typeof change === "string" ? { refused: change } : change;
}

async function chosenRows(
  desk: WithStore,
  site: OpenSite,
  bulk: LinkBulk,
  ofProgram: ProgramChange | undefined,
): Promise<ChangedRow[]> {
  const { ids, filter, action } = bulk;
  const found = (edition: "written" | "readers", most: number): Promise<string[]> =>
    action.do === "creative"
      ? linksOfCreative(desk, site, action.creative, edition)
      : ofProgram && !filter
        ? linksTo(desk, site, ofProgram, edition, most)
        : ledgerIds(desk.store, site.id, { ...filter, edition }, most);
  const chosen = ids ?? (await found("written", MAX_LINKS + 1));
  if (chosen.length > MAX_LINKS)
    throw new Problem(
      422,
      "Too many at once",
      `At most ${inFigures(MAX_LINKS)} links are changed together; narrow the choice.`,
    );
  const alsoPublished = bulk.published && !ids ? await found("readers", MAX_LINKS) : [];
  return readForChange(desk.store, site.id, [...new Set([...chosen, ...alsoPublished])], bulk.published);
}

// Routes that lead to what is replaced; for a parameter, those that the chosen links go through.
async function plannedRoutes(
  desk: WithStore,
  site: OpenSite,
  { action, routes }: LinkBulk,
  rows: readonly ChangedRow[],
  ofProgram: AddressChange | undefined,
  refused: BulkPlan["refused"],
): Promise<BulkPlan["routes"]> {
  if (
    !routes ||
    (!ofProgram && action.do !== "destination" && action.do !== "host" && action.do !== "parameter")
  )
    return [];
  const through = [...new Set(rows.flatMap(({ route_id }) => route_id ?? []))];
  const all = await routeDestinations(desk.store, {
    site: site.id,
    ids: action.do === "parameter" ? through : undefined,
  });
  return all.flatMap(({ id, address, destination }) => {
    const after = ofProgram
      ? ofProgram(destination, { page: address, position: 1 })
      : changedDestination(destination, action);
    if (typeof after === "object") refused.push({ where: address, message: after.refused });
    if (typeof after !== "string") return [];
    const checked = destinationSchema.safeParse(after);
    if (checked.success) return [{ id, address, before: destination, after: checked.data }];
    refused.push({ where: address, message: checked.error.issues[0]!.message });
    return [];
  });
}

const MAX_SHOWN = 500;
// All of them: whoever moves addresses that are in print wants to see each.
const MAX_MOVES_SHOWN = 50_000;

/** A plan as it is shown before it is carried out. */
export function shownChanges({ documents, routes, moves, elsewhere }: BulkPlan): LinkChange[] {
  const links = documents.flatMap(({ kind, where, pageId, edition, links: changed }) =>
    changed.map(({ href, override, inside, before }) => ({
      place: kind,
      where,
      id: pageId,
      words: before.words,
      before: inWords(before.href, before.override),
      after: inside?.do === "unlink" ? "words without a link" : inWords(href, override, inside?.words),
      edition,
    })),
  );
  const ofRoutes = routes.map(({ id, address, before, after }) => ({
    place: "route" as const,
    where: address,
    id,
    words: "",
    before,
    after,
    edition: "both" as const,
  }));
  const moved = moves.map(({ id, before, after }) => ({
    place: "route" as const,
    where: before,
    id,
    words: "",
    before,
    after,
    edition: "both" as const,
  }));
  const there = elsewhere.map(({ kind, where, pageId, words, before, after }) => ({
    place: kind,
    where,
    id: pageId,
    words,
    before,
    after,
    edition: "both" as const,
  }));
  return [...moved.slice(0, MAX_MOVES_SHOWN), ...[...links, ...there, ...ofRoutes].slice(0, MAX_SHOWN)];
}

function inWords(href: string, override: string | null, words?: string): string {
  return `${href}${words === undefined ? "" : ` · “${words}”`}${override === null ? "" : ` · by hand: ${override}`}`;
}
