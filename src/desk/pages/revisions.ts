import type { AsideInput, Page, Revision, RevisionFull, VisitAnswer } from "../../core/pages/page.ts";
import { bodyToHtml } from "../../core/pages/body/to-html.ts";
import { pageRow, savePage, parseBody } from "./pages.ts";
import { notFound } from "../ground/problem.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { audited } from "../ground/audit.ts";
import type { WithStore, WithDeliveryPort, WithReport } from "../ground/parts.ts";
import type { WithTexts } from "./texts/read-text.ts";
import { revisionsOfPage, revisionOfPage, addStash } from "../../store/pages/revisions.ts";
import { noteVisit, forgetVisits, othersAtPage } from "../../store/pages/visits.ts";
import type { Actor } from "../../core/people/actor.ts";
import { isRowId } from "../../store/ground/row-ids.ts";

/** The versions of a page that were kept, newest first. */
export async function listRevisions(desk: WithStore, site: OpenSite, id: string): Promise<Revision[]> {
  await pageRow(desk, site, id);
  const rows = await revisionsOfPage(desk.store, { id });
  return rows.map((row) => ({ ...row, createdAt: row.createdAt.toISOString() }));
}

/** One kept version with its text. */
export async function readRevision(
  desk: WithStore,
  site: OpenSite,
  id: string,
  revision: string,
): Promise<RevisionFull> {
  await pageRow(desk, site, id);
  const [row] = isRowId(revision) ? await revisionOfPage(desk.store, { id, revision }) : [];
  if (!row) throw notFound("This version");
  return { ...row, createdAt: row.createdAt.toISOString() };
}

/** Makes a kept version the draft again; the draft that it replaces is set aside first. Readers get nothing new. */
export async function restoreRevision(
  desk: WithStore & WithDeliveryPort & WithReport & WithTexts,
  actor: Actor,
  site: OpenSite,
  id: string,
  revision: string,
  version: number,
): Promise<Page> {
  const { title, description, category, search, body } = await readRevision(desk, site, id, revision);
  await stashRevision(desk, actor, site, id, {});
  return savePage(desk, actor, site, id, {
    title,
    description,
    category,
    search,
    body: body as never,
    version,
  });
}

/** Keeps a version beside the draft: what one of two people had written, or what a restored version replaces. */
export async function stashRevision(
  desk: WithStore & WithTexts,
  actor: Actor,
  site: OpenSite,
  id: string,
  input: AsideInput,
): Promise<void> {
  const row = await pageRow(desk, site, id);
  const body =
    input.html === undefined && input.body === undefined ? row.body : (await parseBody(desk, input)).body;
  const snapshot = {
    path: input.path ?? row.path,
    title: input.title ?? row.title,
    description: input.description ?? row.description,
    category: input.category ?? row.category,
    inNavigation: input.inNavigation ?? row.inNavigation,
    search: input.search ?? row.search,
    html: bodyToHtml(body),
    body,
  };
  await audited(desk, actor, { siteId: site.id, action: "page.aside", object: id }, (transaction) =>
    addStash(
      desk.store,
      { id, version: row.version, snapshot: JSON.stringify(snapshot), by: actor.name },
      transaction,
    ),
  );
}

const AWAY_SECONDS = 20;

/** Notes that a tab has the page open, and tells what version stands there and who else is at it. */
export async function visitPage(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  id: string,
  tab: string,
): Promise<VisitAnswer> {
  const row = await pageRow(desk, site, id);
  await noteVisit(desk.store, { id, tab, person: actor.name });
  await forgetVisits(desk.store);
  const others = await othersAtPage(desk.store, { id, tab, person: actor.name, away: AWAY_SECONDS });
  return {
    version: row.version,
    updatedBy: row.updatedBy,
    updatedAt: row.updatedAt.toISOString(),
    others: others.map(({ person }) => person),
  };
}
