import type { AsideInput, Page, Revision, RevisionFull, VisitAnswer } from "../../core/pages/page.ts";
import { bodyToHtml } from "../../core/pages/body/to-html.ts";
import { pageRow, savePage, parseBody } from "./pages.ts";
import { notFound } from "../ground/problem.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { audited, type Actor } from "../ground/audit.ts";
import type { WithStore, WithDeliveryPort, WithReport } from "../ground/parts.ts";
import type { WithTexts } from "./texts/read-text.ts";

interface RevisionRow extends Omit<RevisionFull, "createdAt"> {
  createdAt: Date;
}

const COLUMNS = `r.id::text, r.version, r.kind, r.snapshot->>'title' AS title, r.snapshot->>'path' AS path,
  r.created_by AS "createdBy", r.created_at AS "createdAt"`;

/** The versions of a page that were kept, newest first. */
export async function listRevisions(desk: WithStore, site: OpenSite, id: string): Promise<Revision[]> {
  await pageRow(desk, site, id);
  const rows = await desk.store.rows<RevisionRow>(
    `SELECT ${COLUMNS} FROM revisions r WHERE r.page_id = $id::bigint ORDER BY r.id DESC LIMIT 500`,
    { id },
  );
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
  const [row] = /^\d{1,18}$/.test(revision)
    ? await desk.store.rows<RevisionRow>(
        `SELECT ${COLUMNS}, coalesce(r.snapshot->>'description', '') AS description, coalesce(r.snapshot->>'category', '') AS category,
           coalesce((r.snapshot->>'inNavigation')::boolean, false) AS "inNavigation", r.snapshot->>'html' AS html, r.snapshot->'body' AS body
         FROM revisions r WHERE r.page_id = $id::bigint AND r.id = $revision::bigint`,
        { id, revision },
      )
    : [];
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
  const { title, description, category, body } = await readRevision(desk, site, id, revision);
  await stashRevision(desk, actor, site, id, {});
  return savePage(desk, actor, site, id, { title, description, category, body: body as never, version });
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
    html: bodyToHtml(body),
    body,
  };
  await audited(desk, actor, { siteId: site.id, action: "page.aside", object: id }, (transaction) =>
    desk.store.rows(
      "INSERT INTO revisions (page_id, version, snapshot, created_by, kind) VALUES ($id::bigint, $version, $snapshot::jsonb, $by, 'aside')",
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
  await desk.store.rows(
    `INSERT INTO page_visits (page_id, tab, person) VALUES ($id::bigint, $tab, $person)
     ON CONFLICT (page_id, tab) DO UPDATE SET seen_at = now(), person = excluded.person`,
    { id, tab, person: actor.name },
  );
  await desk.store.rows("DELETE FROM page_visits WHERE seen_at < now() - interval '1 hour'");
  const others = await desk.store.rows<{ person: string }>(
    `SELECT DISTINCT person FROM page_visits WHERE page_id = $id::bigint AND tab <> $tab AND person <> $person
       AND seen_at > now() - $away * interval '1 second' ORDER BY person`,
    { id, tab, person: actor.name, away: AWAY_SECONDS },
  );
  return {
    version: row.version,
    updatedBy: row.updatedBy,
    updatedAt: row.updatedAt.toISOString(),
    others: others.map(({ person }) => person),
  };
}
