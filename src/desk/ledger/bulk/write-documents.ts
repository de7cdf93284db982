import type { Transaction } from "sequelize";
import { admitted } from "../../../core/address/gate.ts";
import type { Body } from "../../../core/pages/body/body.ts";
import { bodyToHtml, type BodyHtml } from "../../../core/pages/body/to-html.ts";
import { replaceLinks } from "../../../core/links/rewrite/replace-links.ts";
import { rewriteLinks } from "../../../core/links/rewrite/rewrite.ts";
import { flattenNavigation, treeNavigation } from "../../../core/navigation/branches.ts";
import type { StoredItem } from "../../../core/navigation/navigation.ts";
import { parseOverride } from "../../../core/rules/override.ts";
import { noteChange } from "../../../store/ground/changes.ts";
import type { PageRow, PublishedPage, Row } from "../../../store/ground/models.ts";
import { bindLinks } from "../../links/bound-links.ts";
import type { Progress } from "../../../threads/progress.ts";
import { changeOf } from "../../pages/pages.ts";
import { sanitizeHtml } from "../../pages/sanitize-html.ts";
import { storedLinks } from "../../pages/page-views.ts";
import { navigationEntries } from "../documents.ts";
import type { OpenSite } from "../../sites/open-site.ts";
import type { BulkPlan, PlannedDocument, PlannedLink } from "./planned.ts";
import type { WithStore } from "../../ground/parts.ts";
import { NAVIGATION_PAGE } from "../../../store/ledger/content.ts";
import { addRevision } from "../../../store/pages/revisions.ts";
import { lockNavigation, updateNavigation } from "../../../store/navigation/navigation.ts";
import type { Actor } from "../../../core/people/actor.ts";
import type { BeforePage } from "../../../store/ledger/batches.ts";
import { lockPage } from "../../../store/pages/pages.ts";

type Refused = BulkPlan["refused"];

/** Writes planned documents. What was changed since it was planned is left, and named. */
export async function writeDocuments(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  documents: readonly PlannedDocument[],
  published: boolean,
  progress: Progress,
  transaction: Transaction,
): Promise<{ before: BeforePage[]; refused: Refused }> {
  const before: BeforePage[] = [];
  const refused: Refused = [];
  const pages = new Map<string, PlannedDocument[]>();
  for (const document of documents)
    pages.set(document.pageId, [...(pages.get(document.pageId) ?? []), document]);
  let done = 0;
  for (const [pageId, ofPage] of pages) {
    const where = ofPage[0]!.where;
    const written =
      pageId === NAVIGATION_PAGE
        ? await writeNavigation(desk, actor, site, ofPage[0]!, refused, transaction)
        : await writePage(desk, actor, site, ofPage, published, transaction);
    if (written) before.push({ id: pageId, where, ...written });
    else refused.push({ where, message: "It was changed meanwhile; look again." });
    await progress.step((done += 1), pages.size);
  }
  return { before, refused };
}

async function writePage(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  documents: readonly PlannedDocument[],
  publish: boolean,
  transaction: Transaction,
): Promise<Omit<BeforePage, "id" | "where"> | undefined> {
  const { pageId, stamp } = documents[0]!;
  const row = await lockPage(desk.store, { id: pageId, siteId: site.id }, transaction);
  if (!row || stamp !== `${row.version}:${row.publishedVersion ?? 0}`) return undefined;
  const of = (edition: PlannedDocument["edition"]): PlannedLink[] | undefined =>
    documents.find((one) => one.edition === edition)?.links;
  const before = { html: row.html, published: row.published, same: row.publishedVersion === row.version };
  const both = of("both");
  const forReaders = publish && row.published ? (both ?? of("published")) : undefined;
  const forDraft = both ?? of("draft");
  let readersText: Text | undefined;
  if (row.published && forReaders) {
    readersText = textOf(withLinks(row.published.html, forReaders));
    const { html } = readersText;
    const bound = await bindLinks(desk, site, html, row.published.bound ?? {});
    await putPublished(desk, actor, row, { ...row.published, html, bound }, readersText, transaction);
  }
  // A draft that readers get as it is stays the same version as what they get; else it is a later one.
  const version = both && forReaders ? row.version : row.version + 1;
  if (both && readersText) await putDraft(desk, actor, site, row, readersText, version, transaction);
  else if (forDraft)
    await putDraft(desk, actor, site, row, textOf(withLinks(before.html, forDraft)), version, transaction);
  else await row.update({ version, updatedBy: actor.name }, { transaction });
  return { ...before, version };
}

/** Puts pages back as they were before; answers where those are that somebody changed since. */
export async function putBack(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  pages: readonly BeforePage[],
  transaction: Transaction,
): Promise<string[]> {
  const left: string[] = [];
  for (const page of pages) {
    const isBack = page.items
      ? await putNavigation(desk, actor, site, page.items, page.version, transaction)
      : await putPageBack(desk, actor, site, page, transaction);
    if (!isBack) left.push(page.where);
  }
  return left;
}

async function putPageBack(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  page: BeforePage,
  transaction: Transaction,
): Promise<boolean> {
  const { id, version: written } = page;
  const row = await lockPage(desk.store, { id, siteId: site.id, version: written }, transaction);
  if (!row) return false;
  const { html, published, same } = page;
  const isReadersToo = published && published.html !== row.published?.html;
  const text = textOf(html!);
  if (isReadersToo) {
    const readersText = published.html === html ? text : textOf(published.html);
    await putPublished(desk, actor, row, published, readersText, transaction);
  }
  const version = isReadersToo && same ? row.version : row.version + 1;
  await putDraft(desk, actor, site, row, text, version, transaction);
  // The draft is again what readers get.
  if (same) await row.update({ publishedVersion: version }, { transaction, silent: true });
  return true;
}

// Takes the next version for what readers get, and keeps it as a revision.
async function putPublished(
  desk: WithStore,
  actor: Actor,
  row: Row<PageRow>,
  published: PublishedPage,
  { body }: Text,
  transaction: Transaction,
): Promise<void> {
  const version = row.version + 1;
  await row.update({ published, publishedVersion: version, version, updatedBy: actor.name }, { transaction });
  await addRevision(
    desk.store,
    { page: row.id, version, snapshot: JSON.stringify({ ...published, body }), by: actor.name },
    transaction,
  );
  await noteChange(desk.store, transaction, changeOf(row));
}

async function putDraft(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  row: Row<PageRow>,
  { body, html }: Text,
  version: number,
  transaction: Transaction,
): Promise<void> {
  const bound = await bindLinks(desk, site, html, row.bound);
  await row.update(
    { body, html, bound, ...storedLinks(html), version, updatedBy: actor.name },
    { transaction },
  );
}

/** A text as it is stored: as the editor has it, and as HTML. */
interface Text {
  body: Body;
  html: BodyHtml;
}

function textOf(written: string): Text {
  const { body } = sanitizeHtml(written);
  return { body, html: bodyToHtml(body) };
}

function withLinks(html: string, links: readonly PlannedLink[]): string {
  const byOrdinal = new Map(links.map((link) => [link.ordinal, link]));
  let ordinal = -1;
  const rewritten = rewriteLinks(
    html,
    ({ rel, target, override, href }) => {
      const planned = byOrdinal.get((ordinal += 1));
      // A document of the same stamp holds the same links in the same order.
      if (!planned || planned.before.href !== href) return { rel, target, override };
      return { rel, target, href: planned.href, override: planned.override };
    },
    { keepOverride: true },
  );
  if (links.every(({ inside }) => !inside)) return rewritten;
  return replaceLinks(rewritten, (link, inside, at) => {
    const planned = byOrdinal.get(at);
    if (!planned?.inside || planned.href !== link.href) return undefined;
    if (planned.inside.do === "unlink") return inside;
    const { html: put, was } = planned.inside;
    const isAsWas =
      was.picture === null
        ? link.anchor === "text" && link.words === was.words
        : link.picture === was.picture;
    return isAsWas ? rewritten.slice(link.tag.start, link.tag.end) + put + "</a>" : undefined;
  });
}

async function writeNavigation(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  { stamp, links }: PlannedDocument,
  refused: Refused,
  transaction: Transaction,
): Promise<Omit<BeforePage, "id" | "where"> | undefined> {
  const [row] = await lockNavigation(desk.store, { site: site.id }, transaction);
  if (!row || String(row.version) !== stamp) return undefined;
  const flat = flattenNavigation(row.items);
  const entries = navigationEntries(flat);
  for (const link of links) {
    const reason = changeEntry(entries[link.ordinal]!, link);
    if (reason) refused.push({ where: `Navigation: ${link.before.words}`, message: reason });
  }
  await putNavigation(desk, actor, site, treeNavigation(flat), row.version, transaction);
  return { items: row.items, version: row.version + 1 };
}

function changeEntry(entry: StoredItem, { href, override, inside, before }: PlannedLink): string | undefined {
  if (inside?.do === "unlink") {
    // What is left is a heading.
    entry.kind = "heading";
    delete entry.address;
    delete entry.target;
    return undefined;
  }
  if (href !== before.href) {
    if (entry.page !== undefined)
      return "This entry leads to a page, whatever its path; change it in the navigation.";
    const address = admitted(href, "link");
    if (address === undefined) return `${href} may not stand in the navigation.`;
    entry.address = address;
  }
  const { target, ...tokens } = parseOverride(override ?? "").override;
  if (target) entry.target = target;
  else delete entry.target;
  return Object.keys(tokens).length > 0
    ? "An entry of the navigation has a tab choice of its own, and no rel."
    : undefined;
}

async function putNavigation(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  items: readonly StoredItem[],
  version: number,
  transaction: Transaction,
): Promise<boolean> {
  const saved = await updateNavigation(
    desk.store,
    { site: site.id, items: JSON.stringify(items), version, by: actor.name },
    transaction,
  );
  if (saved.length > 0) await noteChange(desk.store, transaction, { siteId: site.id, kind: "site" });
  return saved.length > 0;
}
