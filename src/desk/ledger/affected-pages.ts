import { ingredientsOf } from "./documents.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore } from "../ground/parts.ts";
import { pageIdsOutOfDate, pageIdsWithLinks, affectedPageIds } from "../../store/ledger/affected.ts";

/**
 * Pages, blocks and the navigation (0) whose entry in the ledger is not of their newest form or was made of what the
 * site no longer says, deleted ones included.
 */
export async function pagesOutOfDate(core: WithStore, site: OpenSite): Promise<string[]> {
  const rows = await pageIdsOutOfDate(core.store, { site: site.id, madeOf: ingredientsOf(site) });
  return rows.map(({ id }) => id);
}

/** All pages, blocks and the navigation of a site, and whatever else the ledger still knows. */
export async function pagesWithLinks(core: WithStore, site: OpenSite): Promise<string[]> {
  const rows = await pageIdsWithLinks(core.store, { site: site.id });
  return rows.map(({ id }) => id);
}

/**
 * The pages that have links whose entry depends on these routes, pages and files: those that lead to them by their
 * entry, and those whose address they answer now.
 */
export async function affectedPages(
  core: WithStore,
  site: OpenSite,
  changed: { routes: readonly string[]; pages: readonly string[]; files: readonly string[] },
): Promise<string[]> {
  const { routes, pages, files } = changed;
  if (routes.length + pages.length + files.length === 0) return [];
  const rows = await affectedPageIds(core.store, { site: site.id, routes, pages, files });
  return rows.map(({ id }) => id);
}
