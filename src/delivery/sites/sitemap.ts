import { Readable } from "node:stream";
import { SitemapIndexStream, SitemapStream, streamToPromise } from "sitemap";
import { isListed } from "../../core/pages/search.ts";
import type { DeliveredPage } from "../../store/sites/delivery-view.ts";

/** What one sitemap may hold by its protocol: so many addresses, and so many bytes (50 MB; we stay below). */
const MAX_ADDRESSES = 50_000;
const MAX_BYTES = 45_000_000;
/** About what stands around an address. */
const BYTES_AROUND = 100;

interface Listed {
  url: string;
  lastmod: string;
}

/**
 * The sitemaps of a site's pages (the protocol of sitemaps.org), each of what fits into one. `addressOf` gives the whole
 * address of a page.
 */
export function sitemapParts(
  pages: Iterable<DeliveredPage>,
  addressOf: (page: DeliveredPage) => string,
): Listed[][] {
  const parts: Listed[][] = [[]];
  let bytes = 0;
  for (const page of pages) {
    if (!isListed(page.search)) continue;
    const url = addressOf(page);
    bytes += BYTES_AROUND + 2 * url.length;
    if (parts.at(-1)!.length >= MAX_ADDRESSES || bytes > MAX_BYTES) {
      parts.push([]);
      bytes = 0;
    }
    parts.at(-1)!.push({ url, lastmod: page.changedAt.toISOString() });
  }
  return parts;
}

/** One sitemap as XML. */
export function sitemapXml(part: readonly Listed[]): Promise<Buffer> {
  const xmlns = { news: false, video: false, image: false, xhtml: false };
  return streamToPromise(Readable.from(part).pipe(new SitemapStream({ xmlns })));
}

/** The list of a site's sitemaps, where there are several. */
export function sitemapIndexXml(addresses: readonly string[]): Promise<Buffer> {
  return streamToPromise(Readable.from(addresses.map((url) => ({ url }))).pipe(new SitemapIndexStream()));
}
