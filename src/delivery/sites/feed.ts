import { escapeText } from "entities/escape";
import { Feed } from "feed";
import { v5 as nameBased } from "uuid";
import type { FeedPage } from "../../store/pages/feed.ts";

/** A site as its feed tells of it. */
export interface FedSite {
  feedId: string;
  name: string;
  tagline: string;
  language: string;
  /** Whole address of its front page. */
  home: string;
  icon: string;
}

/**
 * The newest pages of a site, or of one category, as an Atom feed (RFC 4287). Its entries keep their ids whatever becomes
 * of the site's hosts and the pages' paths (section 4.2.6).
 */
export function atomFeed(
  site: FedSite,
  feed: { address: string; category: string | null },
  pages: readonly FeedPage[],
  addressOf: (page: FeedPage) => string,
): string {
  const { category } = feed;
  const made = new Feed({
    id: category === null ? `urn:uuid:${site.feedId}` : `urn:uuid:${nameBased(category, site.feedId)}`,
    title: category === null ? site.name : `${site.name}: ${category}`,
    ...(site.tagline ? { description: site.tagline } : {}),
    link: site.home,
    language: site.language,
    updated: new Date(Math.max(0, ...pages.map(({ changedAt }) => changedAt.getTime()))),
    favicon: site.icon,
    author: { name: site.name, link: site.home },
    feedLinks: { atom: feed.address },
    generator: "Map Rope",
  });
  for (const page of pages)
    made.addItem({
      id: `urn:uuid:${nameBased(`page ${page.id}`, site.feedId)}`,
      // It tells readers that both are HTML.
      title: escapeText(page.title),
      link: addressOf(page),
      ...(page.description ? { description: escapeText(page.description) } : {}),
      ...(page.category ? { category: [{ name: page.category, term: page.category }] } : {}),
      date: page.changedAt,
      published: page.publishedAt,
    });
  return made.atom1();
}
