import { escapeAttribute } from "entities/escape";
import type {
  Creative,
  CreativeInput,
  CreativePlace,
  PlacedCreative,
} from "../../core/creatives/creative.ts";
import { filledCreative } from "../../core/creatives/creative-html.ts";
import { readSnippet } from "../../core/creatives/snippet.ts";
import { invalid, notFound, Problem } from "../ground/problem.ts";
import { freshSubId, issueLink, oneByOne, pageOf } from "../programs/build-link.ts";
import { openProgram } from "../programs/programs.ts";
import { programRows, type ProgramRow } from "../../store/programs/programs.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { audit, audited } from "../ground/audit.ts";
import type { WithStore } from "../ground/parts.ts";
import {
  type CreativeRow,
  creativesOfPrograms,
  creativeById,
  addCreative,
  markCreativeDeleted,
  pagesUsingCreatives,
} from "../../store/creatives/creatives.ts";
import type { Actor } from "../../core/people/actor.ts";
import { rowIdOf } from "../../store/ground/row-ids.ts";

/** The creatives of a program, or of all programs that are joined, by name, with the places that use them. */
export async function listCreatives(
  desk: WithStore,
  site: OpenSite,
  programId?: string,
): Promise<Creative[]> {
  const programs =
    programId === undefined ? await joinedPrograms(desk, site) : [await openProgram(desk, site, programId)];
  const rows = await creativesOfPrograms(desk.store, { programs: programs.map(({ id }) => id) });
  const uses = await usesOf(
    desk,
    site,
    rows.map(({ id }) => id),
  );
  const byId = new Map(programs.map((program) => [program.id, program]));
  return rows.map((row) => ({ ...viewOf(row, byId.get(row.program)!), uses: uses.get(row.id) ?? [] }));
}

async function joinedPrograms(desk: WithStore, site: OpenSite): Promise<ProgramRow[]> {
  const all = await programRows(desk.store, site.id);
  return all.filter(({ terms: { state } }) => state === "approved" || state === "paused");
}

/** A creative with its program. */
export async function openCreative(
  desk: WithStore,
  site: OpenSite,
  id: string,
): Promise<Omit<CreativeRow, "program"> & { program: ProgramRow }> {
  const [row] = await creativeById(desk.store, { id: rowIdOf(id), site: site.id });
  if (!row) throw notFound("This creative");
  return { ...row, program: await openProgram(desk, site, row.program) };
}

/** Makes a creative ready for one place: its link with a label of that place, which the program's report will name. */
export async function placeCreative(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  id: string,
  { page: pageId }: CreativePlace,
): Promise<PlacedCreative> {
  const creative = await openCreative(desk, site, id);
  const { program, read } = creative;
  const page = pageId === undefined ? undefined : await pageOf(desk, site, pageId);
  const destination = `creative ${id}`;
  const { subId, href, inside } = await oneByOne(desk, site, async (transaction) => {
    const label = /\{sub\}/i.test(read.href)
      ? await freshSubId(desk, site, program, { destination }, page, transaction)
      : "";
    const filled = filledCreative(read, { id: program.terms.trackingId, sub: label }, id);
    if (!filled.ok) throw new Problem(422, "Not ready yet", filled.reason);
    if (label !== "")
      await issueLink(
        desk,
        actor,
        site,
        program,
        { subId: label, page, destination, address: filled.href },
        transaction,
      );
    return { subId: label, ...filled };
  });
  return { href, subId, html: `<a href="${escapeAttribute(href)}" data-creative="${id}">${inside}</a>` };
}

/** Keeps a snippet as a creative of the program, whole as it was pasted. */
export async function keepCreative(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  programId: string,
  { name, html }: CreativeInput,
): Promise<Creative> {
  const program = await openProgram(desk, site, programId);
  const read = readSnippet(html);
  if (!read.ok) throw invalid([{ path: "html", message: read.reason }]);
  const entry = { siteId: site.id, action: "creative.keep", object: name };
  const [row] = await audited(desk, actor, entry, (transaction) =>
    addCreative(
      desk.store,
      { site: site.id, program: program.id, name, html, read: JSON.stringify(read.snippet) },
      transaction,
    ),
  );
  return viewOf(row!, program);
}

/** Takes a creative away, or brings it back; places that use it keep their link. */
export async function setCreativeDeleted(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  id: string,
  deleted: boolean,
): Promise<void> {
  await desk.store.transaction(async (transaction) => {
    const [row] = await markCreativeDeleted(
      desk.store,
      { id: rowIdOf(id), site: site.id, deleted },
      transaction,
    );
    if (!row) throw notFound("This creative");
    const action = deleted ? "creative.drop" : "creative.restore";
    await audit(desk, actor, { siteId: site.id, action, object: row.name }, transaction);
  });
}

export function viewOf(row: Omit<CreativeRow, "program">, { id: program, terms }: ProgramRow): Creative {
  const { id, name, html, read, version } = row;
  const filled = filledCreative(read, { id: terms.trackingId, sub: "" }, id);
  const { kind, href, words, picture, pixel, leftOut } = read;
  return {
    id,
    name,
    program: { id: program, name: terms.name },
    html,
    kind,
    href,
    words,
    picture,
    pixel,
    leftOut,
    version,
    uses: [],
    filled: filled.ok ? { href: filled.href, html: filled.html } : null,
    fault: filled.ok ? null : filled.reason,
  };
}

async function usesOf(
  desk: WithStore,
  site: OpenSite,
  ids: readonly string[],
): Promise<Map<string, Creative["uses"]>> {
  const rows = await pagesUsingCreatives(desk.store, { site: site.id, ids });
  const uses = new Map<string, Creative["uses"]>();
  for (const { creative, page, title } of rows)
    uses.set(creative, [...(uses.get(creative) ?? []), { page, title }]);
  return uses;
}
