import { LRUCache } from "lru-cache";
import { closestAddresses, type Candidate } from "../core/routes/closest.ts";
import type { PublishedPage } from "../store/models.ts";
import { readPublished, type DeliveredPage } from "../store/delivery-view.ts";
import type { Store } from "../store/store.ts";
import { deliverPlaced, frameOf } from "./site-frame.ts";
import type { SiteIndex } from "./site-index.ts";
import { goneDocument, notFoundDocument, pageDocument } from "./theme/documents.tsx";

const MOST_BYTES = 64 * 1024 * 1024;
// Each comparison takes a fraction of a microsecond; this bounds what one mistyped address may cost.
const MOST_ROUTES_COMPARED = 5_000;

/** Whole documents, rendered once for each state of the site and then answered from memory. */
export interface RenderedPages {
  /** The document of a published page; undefined when it was taken back this moment. */
  page(site: SiteIndex, page: DeliveredPage, generation: number): Promise<Buffer | undefined>;
  notFound(site: SiteIndex, host: string, address: string, generation: number, home: string): Buffer;
  gone(site: SiteIndex, host: string, address: string, generation: number, home: string): Buffer;
}

/** A page's links depend on the rules and on every route they pass, so any change of the site renders anew. */
export function createRenderedPages(store: Store): RenderedPages {
  const documents = new LRUCache<string, Buffer>({
    maxSize: MOST_BYTES,
    sizeCalculation: (body) => body.length + 1,
  });
  const published = new LRUCache<string, NonNullable<Awaited<ReturnType<typeof readPublished>>>>({
    max: 2_000,
  });

  function once(cacheKey: string, make: () => string): Buffer {
    const ready = documents.get(cacheKey);
    if (ready) return ready;
    const body = Buffer.from(make());
    documents.set(cacheKey, body);
    return body;
  }
  return {
    async page(site, page, generation) {
      const cacheKey = `${generation} ${page.id} ${page.version}`;
      const ready = documents.get(cacheKey);
      if (ready) return ready;
      const sourceKey = `${page.id} ${page.version}`;
      // What was published stays readable here when the database is gone and only the rules around it changed.
      const source = published.get(sourceKey) ?? (await readPublished(store, page.id));
      if (!source) return undefined;
      published.set(sourceKey, source);
      const body = Buffer.from(documentOf(site, source));
      documents.set(cacheKey, body);
      return body;
    },
    notFound: (site, host, address, generation, home) =>
      once(`${generation} ? ${host} ${address}`, () =>
        notFoundDocument(frameOf(site, home), address, closestAddresses(address, candidates(site, host), 4)),
      ),
    gone: (site, host, address, generation, home) =>
      once(`${generation} - ${host} ${address}`, () => goneDocument(frameOf(site, home), address)),
  };
}

/** A page as a whole document, as readers get it; with a base, for showing it under another address. */
export function documentOf(site: SiteIndex, page: PublishedPage, base?: string): string {
  return pageDocument(
    { ...frameOf(site, "/", page), base },
    page,
    deliverPlaced(site, page.html, page, page.bound),
  );
}

// A reader who mistyped a short link on its own host meant a short link; elsewhere pages come first.
function* candidates(site: SiteIndex, host: string): Generator<Candidate> {
  if (servesPages(site, host))
    for (const { path, title } of site.pages.values()) yield { address: path, title };
  for (const key of site.routes.shortKeys(host, MOST_ROUTES_COMPARED)) yield { address: key, title: "" };
}

/** False for hosts that are kept for short links alone. */
export function servesPages(site: SiteIndex, host: string): boolean {
  return site.site.hosts.some(({ name, role }) => name === host && role !== "short");
}
