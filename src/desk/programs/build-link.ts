import type { Transaction } from "sequelize";
import type { BuiltProgramLink, LinkQuestion } from "../../core/programs/program.ts";
import { repairAddress } from "../../core/address/repair/repair.ts";
import { buildLink, type LinkTerms } from "../../core/programs/build-link.ts";
import { programSlug } from "../../core/programs/slug.ts";
import { fillSubId, fitSubId } from "../../core/programs/sub-id.ts";
import { readTemplate } from "../../core/programs/template.ts";
import type { ProgramRow } from "../../store/programs/programs.ts";
import { invalid, notFound, Problem } from "../ground/problem.ts";
import { surroundingsOf } from "../routes/route-advice.ts";
import { openProgram } from "./programs.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithWorkspaceHosts } from "../ground/parts.ts";
import {
  addIssuedLink,
  lockLabels,
  type PageOfLink,
  pagesForLinks,
  labelsOfSite,
  programsWithSubId,
} from "../../store/programs/issued-links.ts";
import type { Actor } from "../../core/people/actor.ts";

/**
 * Builds a program's tracked link to a page of its shop. Once it is issued its sub-ID is remembered: a report of years
 * later finds the page by it.
 */
export async function buildProgramLink(
  desk: WithStore & WithWorkspaceHosts,
  actor: Actor,
  site: OpenSite,
  id: string,
  question: LinkQuestion,
): Promise<BuiltProgramLink> {
  const program = await openProgram(desk, site, id);
  const repaired = repairAddress(question.destination, surroundingsOf(desk, site));
  if (!repaired.ok) throw invalid([{ path: "destination", message: repaired.reason.message }]);
  const page = question.page === undefined ? undefined : await pageOf(desk, site, question.page);
  if (question.subId !== undefined) await refuseForeignSubId(desk, site, program, question.subId);
  const { subId, built } = await oneByOne(desk, site, async (transaction) => {
    const label =
      question.subId ??
      (await freshSubId(
        desk,
        site,
        program,
        { ...question, destination: repaired.address },
        page,
        transaction,
      ));
    const made = buildLink(linkTerms(program), repaired.address, label);
    if (!made.ok) throw invalid([{ path: made.field, message: made.reason }]);
    await issueLink(
      desk,
      actor,
      site,
      program,
      { subId: label, page, destination: repaired.address, address: made.address },
      transaction,
    );
    return { subId: label, built: made };
  });
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
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  program: ProgramRow,
  issued: { subId: string; page: PageOfLink | undefined; destination: string; address: string },
  transaction?: Transaction,
): Promise<void> {
  const { subId, page, destination, address } = issued;
  await addIssuedLink(
    desk.store,
    {
      site: site.id,
      program: program.id,
      subId,
      page: page?.id ?? null,
      destination,
      address,
      by: actor.name,
    },
    transaction,
  );
}

/** Labels of a site are chosen and issued one after the other: two at once would take the same one. */
export async function oneByOne<T>(
  desk: WithStore,
  site: OpenSite,
  work: (transaction: Transaction) => Promise<T>,
): Promise<T> {
  return desk.store.transaction(async (transaction) => {
    await lockLabels(desk.store, { site: Number(site.id) }, transaction);
    return work(transaction);
  });
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

/** The page that a link is for; a problem when it is gone. */
export async function pageOf(desk: WithStore, site: OpenSite, id: string): Promise<PageOfLink> {
  const [page] = await pagesForLinks(desk.store, { id, site: site.id });
  if (!page) throw notFound("The page that the link is for");
  return page;
}

/**
 * A label for a placement: no other link of the site has it, of whichever program, for reports tell placements and
 * programs apart by it. Its position is the next one that is free; where the pattern has none, or it is cut off, a number
 * stands behind it. An empty pattern makes no labels.
 */
export async function freshSubId(
  desk: WithStore,
  site: OpenSite,
  program: ProgramRow,
  { text, destination }: Pick<LinkQuestion, "text" | "destination">,
  page: PageOfLink | undefined,
  transaction: Transaction,
): Promise<string> {
  const { subIdPattern, subIdLimit } = program.terms;
  const make = (position: number): string =>
    fitSubId(fillSubId(subIdPattern, { site: site.key, page: page?.path, position, text }), subIdLimit);
  if (make(1) === "") return "";
  const isNumbered = make(1) !== make(2);
  const labels = await labelsLike(
    desk,
    site,
    program,
    { destination, pageId: page?.id ?? null },
    transaction,
  );
  for (let position = 1; ; position += 1) {
    const subId =
      isNumbered || position === 1 ? make(position) : fitSubId(`${make(1)}-${position}`, subIdLimit);
    if (labels.again.has(subId) || !labels.taken.has(subId)) return subId;
  }
}

// What is taken in the site, and what this very placement was given before.
async function labelsLike(
  desk: WithStore,
  site: OpenSite,
  program: ProgramRow,
  placement: { destination: string; pageId: string | null },
  transaction: Transaction,
): Promise<{ taken: Set<string>; again: Set<string> }> {
  const rows = await labelsOfSite(
    desk.store,
    { site: site.id, program: program.id, ...placement },
    transaction,
  );
  return {
    taken: new Set(rows.map(({ sub_id: subId }) => subId)),
    again: new Set(rows.flatMap(({ sub_id: subId, again }) => (again ? subId : []))),
  };
}

/** Refuses a label that somebody chose and that another program's link has: its sales could be either's. */
export async function refuseForeignSubId(
  desk: WithStore,
  site: OpenSite,
  program: ProgramRow,
  subId: string,
): Promise<void> {
  if (subId === "") return;
  const [other] = await programsWithSubId(desk.store, { site: site.id, program: program.id, subId });
  if (other)
    throw invalid([
      {
        path: "subId",
        message: `“${subId}” stands in a link to ${other.name}: a report could not tell whose a sale is. Choose another.`,
      },
    ]);
}
