import { createHash } from "node:crypto";
import type { NavigationItem } from "../../core/navigation/navigation.ts";
import { flattenNavigation } from "../../core/navigation/branches.ts";
import type { LedgerSourceRow } from "../../store/ledger/ledger-rows.ts";
import { escapeAttribute, escapeText } from "entities/escape";
import { pagePaths } from "../links/bound-links.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore } from "../ground/parts.ts";
import { NAVIGATION_PAGE, type PageHere, pagesToRead, navigationToRead } from "../../store/ledger/content.ts";

/** A document whose links the ledger keeps. */
export interface LinkDocument {
  source: Pick<
    LedgerSourceRow,
    "kind" | "pageId" | "edition" | "live" | "stamp" | "path" | "title" | "category" | "onPages"
  >;
  html: string;
  bound: Record<string, string>;
}

/** What every entry of the ledger depends on besides its own page, in short. */
export function ingredientsOf(site: OpenSite): string {
  const { hosts, variables, partners, disclosure, paidLimit, paidLimitLong, longWords, origin, swaps } = site;
  const all = JSON.stringify([
    hosts,
    variables,
    partners,
    disclosure,
    paidLimit,
    paidLimitLong,
    longWords,
    origin,
    swaps,
  ]);
  return createHash("sha256").update(all).digest("base64url").slice(0, 16);
}

/** The documents of these pages and blocks as they stand now; those that are deleted have none. Page 0 is the navigation. */
export async function documentsOf(
  core: WithStore,
  site: OpenSite,
  pageIds: readonly string[],
): Promise<LinkDocument[]> {
  const rows = await pagesToRead(core.store, { site: site.id, ids: pageIds });
  const documents = rows.flatMap(documentsOfPage);
  if (!pageIds.includes(NAVIGATION_PAGE)) return documents;
  const navigation = await navigationDocument(core, site);
  return navigation ? [...documents, navigation] : documents;
}

function documentsOfPage(page: PageHere): LinkDocument[] {
  const { id, kind, stamp, published, onPages } = page;
  const about = { kind, pageId: id, stamp, onPages };
  const draft = (edition: "both" | "draft", live: boolean): LinkDocument => ({
    source: { ...about, edition, live, path: page.path, title: page.title, category: page.category },
    html: page.html,
    bound: page.bound,
  });
  if (!published) return [draft("both", false)];
  if (page.same) return [draft("both", true)];
  const { path, title, category, html, bound = {} } = published;
  return [
    draft("draft", false),
    { source: { ...about, edition: "published", live: true, path, title, category }, html, bound },
  ];
}

async function navigationDocument(core: WithStore, site: OpenSite): Promise<LinkDocument | undefined> {
  const [row] = await navigationToRead(core.store, { site: site.id });
  if (!row) return undefined;
  const entries = navigationEntries(flattenNavigation(row.items));
  const paths = await pagePaths(
    core,
    site,
    entries.flatMap(({ page }) => page ?? []),
  );
  // An entry whose page is gone leads nowhere, and is shown so.
  const links = entries.map((item) =>
    navigationLink(item, (item.page === undefined ? item.address : paths.get(item.page)) ?? ""),
  );
  return {
    source: {
      kind: "navigation",
      pageId: NAVIGATION_PAGE,
      edition: "both",
      live: true,
      stamp: String(row.version),
      path: "",
      title: "Navigation",
      category: "",
      onPages: 0,
    },
    html: links.join("\n"),
    bound: {},
  };
}

/** Of the entries of a navigation in reading order, those that are links, as the ledger counts them. */
export function navigationEntries<I extends NavigationItem>(entries: readonly I[]): I[] {
  return entries.filter(({ page, address }) => page !== undefined || address !== undefined);
}

function navigationLink({ label, target }: NavigationItem, href: string): string {
  const override = target ? ` data-override="target=${target}"` : "";
  return `<a href="${escapeAttribute(href)}"${override}>${escapeText(label)}</a>`;
}
