import type { Frame } from "../../core/origin/frame/frame.ts";
import type { FrameNow } from "../origin/frame/frames.ts";
import { withPictureForms } from "../../core/files/picture-markup.ts";
import { cardOf, pictureAt } from "../sites/pictures.ts";
import { LRUCache } from "lru-cache";
import { linkAttributes } from "../../core/rules/resolve/link-attributes.ts";
import { placedDisclosure } from "../../core/pages/check/disclosure.ts";
import { publicAddress } from "../../core/address/public-address.ts";
import type { Notice } from "../../core/routes/route.ts";
import { closestMatch, KnownAddresses, type Candidate, type Close } from "../../core/misses/closest.ts";
import { isProbe } from "../../core/misses/probe.ts";
import { leadsBack } from "../../core/routes/chain/leads-back.ts";
import { readPublished, type DeliveredPage } from "../../store/sites/delivery-view.ts";
import type { Store } from "../../store/ground/store.ts";
import { SECURITY } from "../ground/security-headers.ts";
import { deliverPlaced, frameOf } from "../sites/site-frame.ts";
import { representationOf, type Representation } from "../ground/sending/representation.ts";
import { pathOfPage, type SiteIndex } from "../sites/site-index.ts";
import type { ToldPage } from "./theme/page-meta.tsx";
import {
  awayDocument,
  framedDocument,
  goneDocument,
  noticeDocument,
  notFoundTemplate,
  pageDocument,
} from "./theme/documents.tsx";
import { headerSafe } from "../../core/routes/chain/header-safe.ts";

const MAX_BYTES = 64 * 1024 * 1024;
// Each comparison takes a fraction of a microsecond; this bounds what one mistyped address may cost.
const MAX_ROUTES_COMPARED = 5_000;

/** Whole documents, rendered once for each state of the site and then answered from memory. */
export interface RenderedPages {
  /** The document of a published page; undefined when it was taken back this moment. */
  page(
    site: SiteIndex,
    page: DeliveredPage,
    generation: number,
    around?: FrameNow,
  ): Promise<Representation | undefined>;
  /** What an address that nothing answers gets: a document, or a place to go to. */
  miss(
    site: SiteIndex,
    host: string,
    key: string,
    generation: number,
    asked: { home: string; isCertain: boolean; elsewhere?: PagesElsewhere },
  ): AnsweredMiss;
  /** The answer of a miss that is certain to be one still; undefined when that is not known. */
  knownMiss(host: string, key: string, generation: number): AnsweredMiss | undefined;
  /** A page that shows itself for some seconds and then goes on; without its refresh for a reader who stays. */
  notice(site: SiteIndex, to: string, notice: Notice, stays: boolean, home: string): Buffer;
  gone(site: SiteIndex, host: string, address: string, generation: number, home: string): Buffer;
  /** What is sent while the system cannot be had in which a page stands. */
  away(site: SiteIndex, generation: number): Buffer;
  /** How many documents are kept in memory, and how large they are. */
  cached(): { documents: number; bytes: number };
}

/** So many addresses are shown to who missed one. */
const MOST_HELP = 4;

/** Pages of a site that stand elsewhere, for those who look for what may have been meant; another stamp tells other ones. */
export interface PagesElsewhere {
  stamp: number;
  pages: readonly Candidate[];
  /** Whether their system has said of late that it has nothing at such an address. */
  isGone(address: string): boolean;
}

/** What a miss gets, as the site has chosen. */
export interface AnsweredMiss {
  status: 200 | 302 | 404;
  headers: string[];
  /** Nothing at this address waits for its time to come. */
  isCertain: boolean;
  /**
   * The document's bytes as a Latin-1 string. Node writes a string in one piece with the headers, a buffer behind
   * them in a second: that alone was a sixth of a miss (measured by `npm run bench -- redirects`).
   */
  body: string;
}

/** What a host's misses have in common: what may have been meant, and the page around it. */
interface MissHelp {
  known: KnownAddresses;
  document: ReturnType<typeof notFoundTemplate>;
}

/** What a document that answers a miss is sent with. */
const MISS_HEADERS = [
  "Content-Type",
  "text/html; charset=utf-8",
  "Cache-Control",
  "no-cache",
  "X-Robots-Tag",
  "noindex",
  ...SECURITY,
];

/** A page's links depend on the rules and on every route they pass, so any change of the site renders anew. */
export function createRenderedPages(store: Store, deliveryPort: number): RenderedPages {
  const misses = new LRUCache<string, AnsweredMiss>({
    maxSize: MAX_BYTES,
    sizeCalculation: ({ body }, key) => body.length + 2 * key.length + 1,
  });
  const documents = new LRUCache<string, Buffer>({
    maxSize: MAX_BYTES,
    sizeCalculation: (body) => body.length + 1,
  });
  // With the coded forms that they get when they are asked for, together about as much again.
  const pages = new LRUCache<string, Representation>({
    maxSize: MAX_BYTES,
    sizeCalculation: ({ body }) => Math.ceil(body.length * 1.5) + 1,
  });
  const published = new LRUCache<string, NonNullable<Awaited<ReturnType<typeof readPublished>>>>({
    max: 2_000,
  });

  const helping = new LRUCache<string, MissHelp>({ max: 50 });

  // The same for every miss of a host until something changes.
  function helpOn(
    site: SiteIndex,
    host: string,
    generation: number,
    { home, elsewhere }: { home: string; elsewhere?: PagesElsewhere },
  ): MissHelp {
    const cacheKey = `${generation} ${elsewhere?.stamp ?? ""} ${host}`;
    const ready = helping.get(cacheKey);
    if (ready) return ready;
    const made = {
      known: new KnownAddresses([...candidates(site, host), ...(elsewhere?.pages ?? [])]),
      document: notFoundTemplate(frameOf(site, home)),
    };
    helping.set(cacheKey, made);
    return made;
  }
  function once(cacheKey: string, make: () => string): Buffer {
    const ready = documents.get(cacheKey);
    if (ready) return ready;
    const body = Buffer.from(make());
    documents.set(cacheKey, body);
    return body;
  }
  return {
    cached: () => ({
      documents: pages.size + documents.size + misses.size,
      bytes: pages.calculatedSize + documents.calculatedSize + misses.calculatedSize,
    }),
    async page(site, page, generation, around) {
      const cacheKey = `${generation} ${page.id} ${page.version}${around ? ` ${around.stamp}` : ""}`;
      const ready = pages.get(cacheKey);
      if (ready) return ready;
      const sourceKey = `${page.id} ${page.version}`;
      // What was published stays readable here when the database is gone and only the rules around it changed.
      const source = published.get(sourceKey) ?? (await readPublished(store, page.id));
      if (!source) return undefined;
      published.set(sourceKey, source);
      const document = Buffer.from(documentOf(site, { ...source, id: page.id }, deliveryPort, { around }));
      const made = representationOf("text/html; charset=utf-8", document, Date.now());
      pages.set(cacheKey, made);
      return made;
    },
    knownMiss(host, key, generation) {
      const known = misses.get(`${generation} ${host} ${key}`);
      return known?.isCertain ? known : undefined;
    },
    miss(site, host, key, generation, { home, isCertain, elsewhere }) {
      const cacheKey = `${generation} ${host} ${key}`;
      // What is gone elsewhere is told from one request to the next: such an answer holds for its own alone.
      const ready = elsewhere ? undefined : misses.get(cacheKey);
      if (ready) return ready;
      const answer = answerMiss(site, host, key, home, deliveryPort, () => {
        const { known, document } = helpOn(site, host, generation, { home, ...(elsewhere && { elsewhere }) });
        return { closest: () => known.closest(key, MOST_HELP, elsewhere?.isGone), document };
      });
      const made = { ...answer, isCertain };
      if (!elsewhere) misses.set(cacheKey, made);
      return made;
    },
    notice: (site, to, notice, stays, home) => Buffer.from(noticeOf(site, home, to, notice, stays)),
    away: (site, generation) =>
      once(`${generation} away ${site.site.id}`, () => awayDocument(frameOf(site, "/"))),
    gone: (site, host, address, generation, home) =>
      once(`${generation} - ${host} ${address}`, () => goneDocument(frameOf(site, home), address)),
  };
}

function answerMiss(
  site: SiteIndex,
  host: string,
  key: string,
  home: string,
  deliveryPort: number,
  help: () => { closest(): Close[]; document: MissHelp["document"] },
): Omit<AnsweredMiss, "isCertain"> {
  const { misses: policy } = site.site;
  const absolute = (path: string, on = site.primary): string =>
    path.startsWith("/") ? publicAddress(on, path, deliveryPort) : path;
  // A chosen address that nothing answers any more is a miss itself, and leads nowhere.
  if (
    policy.answer === "destination" &&
    policy.destination !== undefined &&
    !leadsBack(policy.destination, host, key, site.primary)
  ) {
    const to = host === site.primary ? policy.destination : absolute(policy.destination);
    if (!policy.seconds) return leadingTo(to);
    const notice = { seconds: policy.seconds, text: policy.text ?? "" };
    const { status, headers, body } = showing(200, noticeOf(site, home, to, notice, false));
    return { status, headers: [...headers, ...refreshing(notice.seconds, to)], body };
  }
  // Scanners are not helped: what they ask for was never meant to be there, and looking for it takes time.
  const { closest, document } = help();
  const close = isProbe(key) ? [] : closest();
  const one = policy.answer === "closest" ? closestMatch(close) : undefined;
  return one ? leadingTo(one.address) : showing(404, document(key, close));
}

/** The header by which a browser goes on from a notice by itself (HTML Standard, the “Refresh” header). */
export function refreshing(seconds: number, to: string): [name: string, value: string] {
  return ["Refresh", `${seconds}; url=${headerSafe(to)}`];
}

// Its link is marked as rules mark it on a page; it stays in the window that is on its way.
function noticeOf(site: SiteIndex, home: string, to: string, notice: Notice, stays: boolean): string {
  const { rel } = linkAttributes({ href: to }, site.site.rules, site.links);
  return noticeDocument(frameOf(site, home), { to, rel: rel.join(" ") }, notice, stays);
}

function leadingTo(address: string): Omit<AnsweredMiss, "isCertain"> {
  const headers = [
    "Location",
    headerSafe(address),
    "Cache-Control",
    "private, no-store",
    "Content-Length",
    "0",
  ];
  return { status: 302, headers, body: "" };
}

function showing(status: 200 | 404, document: string): Omit<AnsweredMiss, "isCertain"> {
  const body = Buffer.from(document).toString("latin1");
  return { status, headers: ["Content-Length", String(body.length), ...MISS_HEADERS], body };
}

/**
 * A page as a whole document, as readers get it; `isElsewhere` for showing it under another address, `around` for the page
 * in whose look it stands.
 */
export function documentOf(
  site: SiteIndex,
  page: ToldPage & { id?: string },
  deliveryPort: number,
  { isElsewhere = false, around }: { isElsewhere?: boolean; around?: Frame | undefined } = {},
): string {
  const { href: address } = new URL(publicAddress(site.primary, pathOfPage(site, page), deliveryPort));
  const frame = frameOf(site, "/", page);
  const body = withPictureForms(deliverPlaced(site, page.html, page, page.bound), (src) =>
    pictureAt(site, src),
  );
  const disclosure = placedDisclosure(
    [body, ...frame.sidebar, ...frame.footer],
    site.site.disclosure,
    site.links,
  );
  if (around)
    return framedDocument(around, frame, page, body, address, (src) => cardOf(site, src), disclosure);
  return pageDocument(
    { ...frame, ...(isElsewhere ? { base: address } : {}) },
    page,
    body,
    address,
    (src) => cardOf(site, src),
    disclosure,
  );
}

// A reader who mistyped a short link on its own host meant a short link; elsewhere pages come first.
function* candidates(site: SiteIndex, host: string): Generator<Candidate> {
  if (servesPages(site, host))
    for (const page of site.pages.values()) yield { address: pathOfPage(site, page), title: page.title };
  // All spellings of one short link are that one.
  for (const [key, slot] of site.routes.shortKeys(host, MAX_ROUTES_COMPARED))
    yield { address: key, title: "", of: String(slot) };
}

/** False for hosts that are kept for short links alone. */
export function servesPages(site: SiteIndex, host: string): boolean {
  return site.site.hosts.some(({ name, role }) => name === host && role !== "short");
}
