import type { BuiltProgramLink, LinkQuestion } from "../../core/objects/program.ts";
import { repairAddress } from "../../core/address/repair.ts";
import { buildLink, type LinkTerms } from "../../core/programs/build-link.ts";
import { programSlug } from "../../core/programs/slug.ts";
import { fillSubId, fitSubId } from "../../core/programs/sub-id.ts";
import { readTemplate } from "../../core/programs/template.ts";
import type { ProgramRow } from "../../store/programs.ts";
import type { Actor, Desk } from "../desk.ts";
import { invalid, notFound, Problem } from "../problem.ts";
import { surroundingsOf } from "../routes/route-advice.ts";
import type { OpenSite } from "../sites.ts";
import { openProgram } from "./programs.ts";

/**
 * Builds a program's tracked link to a page of its shop. Once it is issued its sub-ID is remembered: a report of years
 * later finds the page by it.
 */
export async function buildProgramLink(
  desk: Desk,
  actor: Actor,
  site: OpenSite,
  id: string,
  question: LinkQuestion,
): Promise<BuiltProgramLink> {
  const program = await openProgram(desk, site, id);
  const repaired = repairAddress(question.destination, surroundingsOf(desk, site));
  if (!repaired.ok) throw invalid([{ path: "destination", message: repaired.reason.message }]);
  const page = question.page === undefined ? undefined : await pageOf(desk, site, question.page);
  const subId = question.subId ?? (await freshSubId(desk, site, program, question, page));
  const built = buildLink(linkTerms(program), repaired.address, subId);
  if (!built.ok) throw invalid([{ path: built.field, message: built.reason }]);
  await issueLink(desk, actor, site, program, { subId, page, destination: repaired.address, address: built.address }); // prettier-ignore
  return {
    address: built.address,
    subId,
    destination: repaired.address,
    slug: programSlug(program.terms.slugPattern, {
      program: program.terms.name,
      page: page?.path,
      destination: repaired.address,
    }),
    program: { id: program.id, name: program.terms.name },
    warnings: [...repaired.warnings.map(({ message }) => message), ...stateWarnings(program)],
  };
}

/** Remembers a link that was built, so that a report of years later finds its page by the label. */
export async function issueLink(
  desk: Desk,
  actor: Actor,
  site: OpenSite,
  program: ProgramRow,
  issued: { subId: string; page: PageOfLink | undefined; destination: string; address: string },
): Promise<void> {
  const { subId, page, destination, address } = issued;
  await desk.store.rows(
    `INSERT INTO issued_links (site_id, program_id, sub_id, page_id, destination, address, made_by)
     VALUES ($site::bigint, $program::bigint, $subId, $page::bigint, $destination, $address, $by)
     ON CONFLICT (site_id, address) DO UPDATE SET page_id = coalesce(excluded.page_id, issued_links.page_id)`,
    { site: site.id, program: program.id, subId, page: page?.id ?? null, destination, address, by: actor.name },
  ); // prettier-ignore
}

/** What of a program its links are built from; a problem while nobody has said how they are built. */
export function linkTerms({ terms }: ProgramRow): LinkTerms {
  const read = readTemplate(terms.template);
  if (!read.ok)
    throw new Problem(
      422,
      "No link template yet",
      `${terms.name} has no link template: write down how its tracked links are built, and links are made from it.`,
    );
  const { name, trackingId, domains, subIdLimit } = terms;
  return { name, template: read.template, trackingId, domains, subIdLimit };
}

function stateWarnings({ terms: { name, state } }: ProgramRow): string[] {
  switch (state) {
    case "approved":
      return [];
    case "closed":
      return [`${name} is closed: the link earns nothing.`];
    case "paused":
      return [`${name} is paused: the link may earn nothing until it goes on.`];
    default:
      return [`${name} is not joined yet: the link earns nothing until it is approved.`];
  }
}

/** The page that a link is for. */
export interface PageOfLink {
  id: string;
  path: string;
}

/** The page that a link is for; a problem when it is gone. */
export async function pageOf(desk: Desk, site: OpenSite, id: string): Promise<PageOfLink> {
  const [page] = await desk.store.rows<PageOfLink>(
    "SELECT id::text, path FROM pages WHERE id = $id::bigint AND site_id = $site::bigint AND deleted_at IS NULL",
    { id, site: site.id },
  );
  if (!page) throw notFound("The page that the link is for");
  return page;
}

/**
 * A label for a placement: its position is the next one that no link of this program has yet, for two placements never
 * share a label. One that would be too long loses its end before the position, which alone tells it apart.
 */
export async function freshSubId(
  desk: Desk,
  site: OpenSite,
  program: ProgramRow,
  { text, destination }: Pick<LinkQuestion, "text" | "destination">,
  page: PageOfLink | undefined,
): Promise<string> {
  const { subIdPattern, subIdLimit } = program.terms;
  const make = (position: number): string =>
    fillSubId(subIdPattern, { site: site.key, page: page?.path, position, text });
  const issued = await desk.store.rows<{ sub_id: string; destination: string; page_id: string | null }>(
    "SELECT sub_id, destination, page_id::text FROM issued_links WHERE program_id = $program::bigint",
    { program: program.id },
  );
  const again = issued.find((one) => one.destination === destination && one.page_id === (page?.id ?? null));
  const taken = new Set(issued.map(({ sub_id: subId }) => subId));
  let last: string | undefined;
  for (let position = 1; ; position += 1) {
    const subId = fitSubId(make(position), subIdLimit);
    // Where the pattern has no position, or it is cut off, no other label can be made.
    if (again?.sub_id === subId || !taken.has(subId) || subId === last) return subId;
    last = subId;
  }
}
