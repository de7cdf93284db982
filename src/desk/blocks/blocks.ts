import { randomUUID } from "node:crypto";
import type { BlockInput, Page, PageSummary } from "../../core/pages/page.ts";
import { createPage } from "../pages/pages.ts";
import { pageSummaries } from "../pages/page-views.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithDeliveryPort, WithReport } from "../ground/parts.ts";
import type { WithTexts } from "../pages/texts/read-text.ts";
import type { Actor } from "../../core/people/actor.ts";
import { blocksOf } from "../../store/pages/pages.ts";

/** The site's shared blocks, in the order in which they stand on pages. */
export async function listBlocks(desk: WithStore & WithDeliveryPort, site: OpenSite): Promise<PageSummary[]> {
  return pageSummaries(desk, site, await blocksOf(desk.store, site.id));
}

/** Makes a shared block. It is kept, saved and published as a page is, under a path that no reader can ask for. */
export async function createBlock(
  desk: WithStore & WithDeliveryPort & WithReport & WithTexts,
  actor: Actor,
  site: OpenSite,
  { title, placement, html, publish }: BlockInput,
): Promise<Page> {
  const path = `/~block/${randomUUID()}`;
  return createPage(desk, actor, site, { path, title, html, publish }, placement);
}
