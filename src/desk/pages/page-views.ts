import { compareKey } from "../../core/address/compare.ts";
import { destinationKind } from "../../core/address/classify.ts";
import { spelledPath } from "../../core/sites/spelling.ts";
import { publicAddress } from "../../core/address/public-address.ts";
import { findLinks } from "../../core/links/find.ts";
import type { Page, PageSummary } from "../../core/pages/page.ts";
import type { PageRow, StoredLink } from "../../store/ground/models.ts";
import { followMovedPages } from "../links/bound-links.ts";
import { snapshotSite } from "../links/site-snapshot.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";

const MAX_KNOTS = 24;

/** What a list needs of a page: all but its text. */
export type ListedPage = Omit<PageRow, "body" | "html">;

/**
 * Pages as lists show them. What kind a link is depends on what the site answers now, so it is looked up for
 * all links of the list at once and never stored.
 */
export async function pageSummaries(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  rows: readonly ListedPage[],
): Promise<PageSummary[]> {
  const addresses = [...new Set(rows.flatMap((row) => row.links.map(({ href }) => href)))];
  const resolver = (await snapshotSite(desk, site, addresses)).linkResolver();
  return rows.map((row) => {
    const kinds = row.links.map(({ href }) => destinationKind(href, resolver));
    return {
      id: row.id,
      kind: row.kind,
      placement: row.placement,
      path: row.path,
      title: row.title,
      category: row.category,
      status: row.published ? "published" : "draft",
      changed: row.published !== null && row.publishedVersion !== row.version,
      links: kinds.length,
      outside: kinds.filter((kind) => kind === "external").length,
      knots: kinds.slice(0, MAX_KNOTS),
      version: row.version,
      url: publicAddress(
        site.primary,
        spelledPath(row.published?.path ?? row.path, site.delivered.slashes),
        desk.deliveryPort,
      ),
      updatedAt: row.updatedAt.toISOString(),
      updatedBy: row.updatedBy,
      publishedAt: row.publishedAt?.toISOString() ?? null,
    };
  });
}

/** One page with its draft body. */
export async function pageView(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  row: PageRow,
): Promise<Page> {
  const [summary] = await pageSummaries(desk, site, [row]);
  const { description, inNavigation, search } = row;
  return { ...summary!, description, inNavigation, search, ...(await followMovedPages(desk, site, row)) };
}

/** The links of a page's HTML, and the keys by which their destinations are found. */
export function storedLinks(html: string): { links: StoredLink[]; linkKeys: string[] } {
  const found = findLinks(html);
  return {
    links: found.map(({ href, words }) => ({ href, words })),
    linkKeys: [...new Set(found.map(({ href }) => compareKey(href)))],
  };
}
