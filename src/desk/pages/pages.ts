import { noteWriting, writeVersioned } from "../ground/write-versioned.ts";
import { pathKey } from "../../core/address/path-key.ts";
import { admitBody } from "../../core/pages/body/admit.ts";
import { emptyBody, type Body, type WrittenBody } from "../../core/pages/body/body.ts";
import { bodyToHtml } from "../../core/pages/body/to-html.ts";
import { deliverHtml } from "../../core/links/rewrite/deliver.ts";
import { findLinks } from "../../core/links/find.ts";
import type { Page, PageChange, PageInput, PageSummary, Placement } from "../../core/pages/page.ts";
import type { Transaction } from "sequelize";
import { noteChange } from "../../store/ground/changes.ts";
import type { PageRow, PublishedPage, Row } from "../../store/ground/models.ts";
import { violatedIndex } from "../../store/ground/store.ts";
import { PAGE_SORTS, pageIds } from "../../store/pages/lists.ts";
import { listing, portionOf } from "../ground/lists.ts";
import { indexSaved } from "../ledger/index-saved.ts";
import { bindLinks, withPagePaths } from "../links/bound-links.ts";
import { snapshotSite } from "../links/site-snapshot.ts";
import { invalid, notFound, stale } from "../ground/problem.ts";
import { currentRules } from "../rules/rules.ts";
import { pageSummaries, pageView, storedLinks } from "./page-views.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { audit } from "../ground/audit.ts";
import { isSame } from "../ground/before-after.ts";
import type { WithStore, WithDeliveryPort, WithReport } from "../ground/parts.ts";
import type { WithTexts } from "./texts/read-text.ts";
import type { WithPreview } from "./preview.ts";
import { type ListQuery, type Listing } from "../../contract/ground/lists.ts";
import { addRevision } from "../../store/pages/revisions.ts";
import { routesAtPath } from "../../store/routes/places.ts";
import type { Actor } from "../../core/people/actor.ts";
import { findPage, insertPage, lockPage, pagesById } from "../../store/pages/pages.ts";

/** The pages of a site; `q` looks in title, path and text. */
export async function listPages(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  query: ListQuery,
): Promise<Listing<PageSummary>> {
  const ids = await pageIds(desk.store, { site: site.id, q: query.q }, portionOf(query, PAGE_SORTS));
  const rows = await pagesById(
    desk.store,
    ids.map(({ id }) => id),
  );
  const items = await pageSummaries(desk, site, rows);
  return listing(items, Number(ids[0]?.total ?? 0), query);
}

/** One page with its draft body. */
export async function readPage(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  id: string,
): Promise<Page> {
  return pageView(desk, site, await pageRow(desk, site, id));
}

/** Makes a page, as a draft unless it is to be published at once; with a placement it is a shared block. */
export async function createPage(
  desk: WithStore & WithDeliveryPort & WithReport & WithTexts,
  actor: Actor,
  site: OpenSite,
  input: PageInput,
  placement: Placement | null = null,
): Promise<Page> {
  const { body, dropped } = await parseBody(desk, input);
  const html = bodyToHtml(body);
  const values = {
    siteId: site.id,
    kind: placement ? ("block" as const) : ("page" as const),
    placement,
    path: input.path,
    key: pathKey(input.path),
    title: input.title,
    description: input.description ?? "",
    category: input.category ?? "",
    inNavigation: input.inNavigation ?? false,
    search: input.search ?? {},
    body,
    html,
    ...storedLinks(html),
    bound: await bindLinks(desk, site, html, {}),
    version: 1,
    updatedBy: actor.name,
  };
  if (input.publish) await refuseTakenPath(desk, site, input.path);
  const row = await desk.store.transaction(async (transaction) => {
    const created = await mapTakenPath(input.path, () => insertPage(desk.store, values, transaction));
    await audit(
      desk,
      actor,
      { siteId: site.id, action: "page.create", object: created.id, detail: toldOf(created) },
      transaction,
    );
    if (input.publish) await mapTakenPath(input.path, () => publishRow(desk, actor, created, transaction));
    return created;
  });
  await indexSaved(desk, site, row.id);
  return { ...(await readPage(desk, site, row.id)), dropped };
}

/** Saves a draft over the version it was made on. What readers get does not change. */
export async function savePage(
  desk: WithStore & WithDeliveryPort & WithReport & WithTexts,
  actor: Actor,
  site: OpenSite,
  id: string,
  change: PageChange,
): Promise<Page> {
  const row = await pageRow(desk, site, id);
  const values: Partial<PageRow> = { updatedBy: actor.name };
  let dropped: string[] | undefined;
  if (change.body !== undefined || change.html !== undefined) {
    const taken = await parseBody(desk, change);
    dropped = taken.dropped;
    values.body = taken.body;
    values.html = bodyToHtml(taken.body);
    Object.assign(values, storedLinks(values.html));
    values.bound = await bindLinks(desk, site, values.html, row.bound);
  }
  if (change.placement !== undefined && row.kind === "block") values.placement = change.placement;
  if (change.path !== undefined) Object.assign(values, { path: change.path, key: pathKey(change.path) });
  for (const field of ["title", "description", "category", "inNavigation", "search"] as const) {
    if (change[field] !== undefined) Object.assign(values, { [field]: change[field] });
  }
  // Saving what is already so makes no version, and interrupts nobody; a link that finds its page now is a change.
  const { updatedBy: _, ...said } = values;
  if (
    row.version === change.version &&
    isSame(Object.fromEntries(Object.keys(said).map((name) => [name, row[name as keyof PageRow]])), said)
  )
    return { ...(await readPage(desk, site, id)), ...(dropped ? { dropped } : {}) };
  await mapTakenPath(change.path ?? row.path, () =>
    writeVersioned(desk, actor, {
      table: desk.store.pages,
      where: { id, version: change.version, deletedAt: null },
      fields: values,
      alongside: (transaction) =>
        noteWriting(desk, actor, { siteId: site.id, action: "page.save", object: id }, transaction),
      stale: async () => stale(await readPage(desk, site, id)),
    }),
  );
  const current = await readPage(desk, site, id);
  await indexSaved(desk, site, id);
  return { ...current, ...(dropped ? { dropped } : {}) };
}

/** Makes the draft what readers get, and keeps it as a revision. The first date of publication stays. */
export async function publishPage(
  desk: WithStore & WithDeliveryPort & WithReport,
  actor: Actor,
  site: OpenSite,
  id: string,
  version: number,
): Promise<Page> {
  const row = await pageRow(desk, site, id);
  if (row.version !== version) throw stale(await pageView(desk, site, row));
  if (row.published && row.publishedVersion === version) return pageView(desk, site, row);
  await refuseTakenPath(desk, site, row.path);
  await desk.store.transaction(async (transaction) => {
    const locked = await lockPage(desk.store, { id, siteId: site.id, version }, transaction);
    if (!locked) throw stale(await readPage(desk, site, id));
    await audit(
      desk,
      actor,
      { siteId: site.id, action: "page.publish", object: id, detail: { version } },
      transaction,
    );
    await mapTakenPath(locked.path, () => publishRow(desk, actor, locked, transaction));
  });
  await indexSaved(desk, site, id);
  return readPage(desk, site, id);
}

/** Takes a page away from readers and lists; `restorePage` brings it back as it was. */
export async function deletePage(
  desk: WithStore & WithDeliveryPort & WithReport,
  actor: Actor,
  site: OpenSite,
  id: string,
): Promise<void> {
  const row = await pageRow(desk, site, id);
  await setDeleted(desk, actor, row, new Date());
  await indexSaved(desk, site, id);
}

/** Brings a deleted page back, published if it was; at another path (`address`) where its own was given away. */
export async function restorePage(
  desk: WithStore & WithDeliveryPort & WithReport,
  actor: Actor,
  site: OpenSite,
  id: string,
  address?: string,
): Promise<Page> {
  const row = await findPage(desk.store, { id, siteId: site.id, evenDeleted: true });
  if (!row) throw notFound("This page");
  const moved = address === undefined || row.kind === "block" ? {} : movedTo(row, address);
  const path = moved.path ?? row.published?.path ?? row.path;
  if (row.published && row.kind === "page") await refuseTakenPath(desk, site, path);
  await mapTakenPath(path, () => setDeleted(desk, actor, row, null, moved));
  await indexSaved(desk, site, id);
  return readPage(desk, site, id);
}

/** The body fragment with its rules applied; the draft's on request, or when nothing is published. */
export async function deliveredHtml(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  id: string,
  draft: boolean,
): Promise<string> {
  const row = await pageRow(desk, site, id);
  const source = draft || !row.published ? row : row.published;
  const snapshot = await snapshotSite(
    desk,
    site,
    findLinks(source.html).map(({ href }) => href),
  );
  const { rules } = await currentRules(desk, site);
  return deliverHtml(
    source.html,
    rules,
    await withPagePaths(desk, site, snapshot.linkResolver(), source.bound),
    {
      page: source.path,
      category: source.category,
      bound: source.bound,
      variables: site.variables,
      pageId: id,
    },
  );
}

/** The whole document as readers get it, or would get the draft; for showing it in the workspace. */
export async function previewDocument(
  desk: WithStore & WithPreview,
  site: OpenSite,
  id: string,
  draft: boolean,
): Promise<string> {
  const row = await pageRow(desk, site, id);
  const source = draft || !row.published ? asPublished(row) : row.published;
  const document = desk.preview(site.id, { ...source, id });
  if (document === undefined) throw notFound("The site, on the delivery listener of this process,");
  return document;
}

/** A page's row; throws a 404 when there is none. */
export async function pageRow(desk: WithStore, site: OpenSite, id: string): Promise<Row<PageRow>> {
  const row = await findPage(desk.store, { id, siteId: site.id });
  if (!row) throw notFound("This page");
  return row;
}

/** The body of an input that came as HTML or as body, and what was left out of it. */
export async function parseBody(
  desk: WithTexts,
  input: { html?: string; body?: WrittenBody },
): Promise<{ body: Body; dropped: string[] }> {
  if (input.html !== undefined && input.body !== undefined) {
    throw invalid([{ path: "html", message: "Send the text as html or as body, not as both." }]);
  }
  if (input.html === undefined) return admitBody(input.body ?? emptyBody);
  return desk.texts.read({ do: "take", html: input.html });
}

// What readers get of a draft once it is published.
function asPublished(row: PageRow): PublishedPage {
  const { path, title, description, category, inNavigation, search, html, bound, placement } = row;
  return {
    path,
    title,
    description,
    category,
    inNavigation,
    search,
    html,
    bound,
    placement,
    at: new Date().toISOString(),
  };
}

async function publishRow(
  desk: WithStore,
  actor: Actor,
  row: Row<PageRow>,
  transaction: Transaction,
): Promise<void> {
  const published = asPublished(row);
  await row.update(
    {
      published,
      publishedKey: row.kind === "page" ? row.key : null,
      publishedVersion: row.version,
      publishedAt: row.publishedAt ?? new Date(),
    },
    { transaction, silent: true },
  );
  await addRevision(
    desk.store,
    {
      page: row.id,
      version: row.version,
      snapshot: JSON.stringify({ ...published, body: row.body }),
      by: actor.name,
    },
    transaction,
  );
  await noteChange(desk.store, transaction, changeOf(row));
}

/** What to note when a page changes. Blocks stand on any page: all of the site's delivery depends on them. */
export function changeOf(row: PageRow): Parameters<typeof noteChange>[2] {
  return row.kind === "block"
    ? { siteId: row.siteId, kind: "site" }
    : { siteId: row.siteId, kind: "page", objectId: row.id };
}

// The path of a block is nobody's to know.
function toldOf({ kind, title, path }: PageRow): Record<string, unknown> {
  return kind === "block" ? { title } : { path };
}

async function setDeleted(
  desk: WithStore,
  actor: Actor,
  row: Row<PageRow>,
  deletedAt: Date | null,
  moved: Partial<PageRow> = {},
): Promise<void> {
  await desk.store.transaction(async (transaction) => {
    await row.update({ ...moved, deletedAt }, { transaction, silent: true });
    const { siteId, id } = row;
    await audit(
      desk,
      actor,
      { siteId, action: deletedAt ? "page.delete" : "page.restore", object: id, detail: toldOf(row) },
      transaction,
    );
    await noteChange(desk.store, transaction, changeOf(row));
  });
}

// The draft and what readers get, at another path.
function movedTo({ published }: PageRow, path: string): Partial<PageRow> {
  const key = pathKey(path);
  return { path, key, ...(published ? { published: { ...published, path }, publishedKey: key } : {}) };
}

// Two things never claim one address.
async function refuseTakenPath(desk: WithStore, site: OpenSite, path: string): Promise<void> {
  const rows = await routesAtPath(desk.store, { site: site.id, key: pathKey(path), host: site.primary });
  if (rows.length > 0) {
    throw invalid([
      {
        path: "path",
        message: `The route ${rows[0]!.address} answers this path. Choose another path, or delete the route first.`,
      },
    ]);
  }
}

async function mapTakenPath<T>(path: string, work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    const index = violatedIndex(error);
    if (index === "pages_published_key")
      throw invalid([
        {
          path: "path",
          message: `Readers get another page at ${path} still: it was moved in its draft alone. Publish or unpublish that one first, or choose a different path.`,
        },
      ]);
    if (index?.startsWith("pages_"))
      throw invalid([
        { path: "path", message: `Another page has the path ${path} already. Choose a different one.` },
      ]);
    throw error;
  }
}
