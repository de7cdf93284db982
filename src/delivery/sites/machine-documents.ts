import { LRUCache } from "lru-cache";
import { feedPath, machineDocument } from "../../core/sites/machine-documents.ts";
import { publicAddress } from "../../core/address/public-address.ts";
import { WHOLE } from "../../core/files/picture.ts";
import { readContent } from "../../store/files/files.ts";
import { readForm } from "../../store/files/forms.ts";
import type { DeliveredFile, DeliveredPage } from "../../store/sites/delivery-view.ts";
import { feedPages } from "../../store/pages/feed.ts";
import type { Store } from "../../store/ground/store.ts";
import { representationOf, type Representation } from "../ground/sending/representation.ts";
import { atomFeed } from "./feed.ts";
import { letterIcon } from "./letter-icon.ts";
import { iconPng } from "./icon-png.ts";
import { iconOf, pathOfPage, type SiteIndex } from "./site-index.ts";
import { sitemapIndexXml, sitemapParts, sitemapXml } from "./sitemap.ts";

const MAX_BYTES = 64 * 1024 * 1024;
const FEED_ENTRIES = 50;
const ATOM = "application/atom+xml; charset=utf-8";
const XML = "application/xml; charset=utf-8";

/** What machines read of a site: robots.txt, sitemaps, feeds and its icon. Pages and files of that path go before. */
export interface MachineDocuments {
  /**
   * The document of a path key; undefined for a path that is none of theirs. It comes to undefined where the site has
   * no such sitemap or category.
   */
  at(site: SiteIndex, asked: AskedDocument): Promise<Representation | undefined> | undefined;
}

export interface AskedDocument {
  key: string;
  /** Whether pages are served on the host that was asked. */
  servesPages: boolean;
}

export function createMachineDocuments(
  store: Store,
  deliveryPort: number,
  report: (message: string, error: unknown) => void,
): MachineDocuments {
  const kept = new LRUCache<string, Representation>({
    maxSize: MAX_BYTES,
    sizeCalculation: ({ body }) => body.length + 1,
  });
  const whole = (site: SiteIndex, path: string): string => publicAddress(site.primary, path, deliveryPort);
  const ofPage = (site: SiteIndex, page: { path: string }): string => whole(site, pathOfPage(site, page));

  // They are of the pages that there are: made again when those have changed.
  async function once(
    site: SiteIndex,
    name: string,
    type: string,
    make: () => Promise<Buffer | string | undefined>,
  ): Promise<Representation | undefined> {
    const cacheKey = `${site.site.id} ${site.pagesChanged} ${name}`;
    const ready = kept.get(cacheKey);
    if (ready) return ready;
    const made = await make();
    if (made === undefined) return undefined;
    const document = representationOf(type, Buffer.from(made), Date.now());
    kept.set(cacheKey, document);
    return document;
  }
  async function sitemap(site: SiteIndex, number: number | undefined): Promise<Buffer | undefined> {
    const parts = sitemapParts(inPathOrder(site), (page) => ofPage(site, page));
    if (number !== undefined) {
      const part = parts.length > 1 ? parts[number - 1] : undefined;
      return part && sitemapXml(part);
    }
    // A sitemap names one address at least.
    if (parts[0]!.length === 0) return undefined;
    return parts.length === 1
      ? sitemapXml(parts[0]!)
      : sitemapIndexXml(parts.map((_, at) => whole(site, `/sitemap-${at + 1}.xml`)));
  }
  async function feed(site: SiteIndex, category: string | null): Promise<string | undefined> {
    const pages = await feedPages(store, { site: site.site.id, category, most: FEED_ENTRIES });
    if (category !== null && pages.length === 0) return undefined;
    const { feedId, name, tagline, language } = site.site;
    const told = {
      feedId,
      name,
      tagline,
      language,
      home: whole(site, "/"),
      icon: whole(site, "/favicon.ico"),
    };
    const address = whole(site, feedPath(category));
    return atomFeed(told, { address, category }, pages, (page) => ofPage(site, page));
  }
  async function icon(site: SiteIndex, size: number): Promise<Representation | undefined> {
    const file = iconOf(site);
    const own =
      file &&
      (await once(site, `icon ${size} ${file.id} ${file.digest}`, "image/png", () => png(file, size)));
    // A picture that is none, or was taken away a moment ago.
    return own ?? once(site, "icon", "image/svg+xml", () => Promise.resolve(letterIcon(site.site.name)));
  }
  async function png(file: DeliveredFile, size: number): Promise<Buffer | undefined> {
    const whole = file.forms.some(({ name }) => name === WHOLE)
      ? (await readForm(store, { id: file.id, name: WHOLE }))?.content
      : undefined;
    const content = whole ?? (await readContent(store, file.id));
    return (
      content &&
      iconPng(content, size).catch((error: unknown) => {
        report(`No icon could be made of ${file.path}.`, error);
        return undefined;
      })
    );
  }
  return {
    at(site, { key, servesPages }) {
      const document = machineDocument(key);
      switch (document?.kind) {
        case "robots":
          return once(site, `robots ${servesPages}`, "text/plain; charset=utf-8", () =>
            Promise.resolve(robotsTxt(site, servesPages ? whole(site, "/sitemap.xml") : undefined)),
          );
        case "icon":
          return icon(site, document.size);
        case "sitemap":
          return servesPages ? once(site, key, XML, () => sitemap(site, document.part)) : undefined;
        case "feed":
          return servesPages ? once(site, key, ATOM, () => feed(site, document.category)) : undefined;
        case undefined:
          return undefined;
      }
    },
  };
}

/** What robots.txt says of a site: as its editor has written it, or that all may be read; and where its sitemap is. */
function robotsTxt(site: SiteIndex, sitemap: string | undefined): string {
  const own = sitemap === undefined ? undefined : site.site.delivered.robots;
  const rules = own || "User-agent: *\nAllow: /";
  const isNamed = sitemap === undefined || /^[ \t]*sitemap[ \t]*:/im.test(rules);
  return isNamed ? `${rules}\n` : `${rules}\n\nSitemap: ${sitemap}\n`;
}

function inPathOrder({ pages }: SiteIndex): DeliveredPage[] {
  return [...pages.values()].sort((a, b) => (a.key < b.key ? -1 : 1));
}
