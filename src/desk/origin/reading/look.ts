import type { Found } from "../../../core/origin/origin.ts";
import { addressOnOrigin, placeOnOrigin } from "../../../core/origin/place.ts";
import { addFound, type FoundAddress } from "../../../store/origin/readings.ts";
import { noteFound, readingParts } from "../../../store/origin/origins.ts";
import type { Progress } from "../../../threads/progress.ts";
import type { WithOutgoing, WithStore } from "../../ground/parts.ts";
import type { WithTexts } from "../../pages/texts/read-text.ts";
import type { OpenSite } from "../../sites/open-site.ts";
import type { PageText } from "./page-text.ts";
import { politely } from "./politely.ts";
import { robotsOf } from "./robots.ts";

/** Documents for machines that are read in one look, and addresses that are kept of them. */
const MOST_DOCUMENTS = 500;
const MOST_ADDRESSES = 100_000;
const MOST_SHOWN = 60;
const MOST_BYTES = 52 * 1024 * 1024;
const PAGE_BYTES = 8 * 1024 * 1024;
/** Pages that are looked into for hosts and languages, of different parts of the site. */
const SAMPLES = 10;

type Looking = WithStore & WithOutgoing & WithTexts;

/**
 * Looks at an origin: its robots file, the sitemaps and feeds that it names, and some of its pages, with a pause between
 * them. What is found is kept. Where the robots file forbids its front page, no page is looked at.
 */
export async function lookAtOrigin(
  hasty: Looking,
  site: OpenSite,
  { address: origin, pauseMs }: { address: string; pauseMs: number },
  progress: Progress,
): Promise<Found> {
  const { signal } = progress;
  const desk = politely(hasty, pauseMs, signal);
  const robots = await robotsOf(desk, origin, signal);
  const documents: Found["documents"] = [
    { address: addressOnOrigin("/robots.txt", origin), kind: "robots", pages: 0, fault: robots.fault },
  ];
  const isBarred = !robots.allows(origin);
  const front = isBarred ? NOT_ASKED : await pageAt(desk, origin, signal);
  if (front.fault !== null) documents.push({ address: origin, kind: "page", pages: 0, fault: front.fault });
  await keep(desk, site, origin, [{ address: origin, changed: null }]);
  const named = new Set<string>();
  let kept = 0;
  let left = 0;
  // An index may name itself, or more than anybody reads.
  const name = (address: string): void => {
    if (named.size < MOST_DOCUMENTS) named.add(address);
    else if (!named.has(address)) left += 1;
  };
  robots.sitemaps.forEach(name);
  if (!isBarred) name(addressOnOrigin("/sitemap.xml", origin));
  front.page?.feeds.forEach(name);
  let looked = 0;
  // What is named meanwhile comes at its end.
  for (const next of named) {
    looked += 1;
    if (kept >= MOST_ADDRESSES) {
      left += 1;
      continue;
    }
    const isGuess = next === addressOnOrigin("/sitemap.xml", origin) && !robots.sitemaps.includes(next);
    const isFeed = front.page?.feeds.includes(next) ?? false;
    const read = await addressesAt(desk, next, signal);
    if (typeof read === "string") {
      // Nobody said that there is one.
      if (!isGuess)
        documents.push({ address: next, kind: isFeed ? "feed" : "sitemap", pages: 0, fault: read });
    } else if (read.kind === "index") {
      documents.push({ address: next, kind: "index", pages: read.addresses.length, fault: null });
      for (const { address } of read.addresses) name(address);
    } else {
      const pages = await keep(desk, site, origin, read.addresses.slice(0, MOST_ADDRESSES - kept));
      kept += pages;
      documents.push({ address: next, kind: isFeed ? "feed" : "sitemap", pages, fault: null });
    }
    await progress.step(looked, named.size);
  }
  const linked = (front.page?.links ?? []).filter((link) => !link.nofollow);
  await keep(
    desk,
    site,
    origin,
    linked.map(({ address }) => ({ address, changed: null })),
    false,
  );
  const parts = await readingParts(desk.store, { site: site.id });
  const samples = await samplesOf(
    desk,
    site,
    origin,
    front.page,
    linked.map(({ address }) => address),
    robots.allows,
    signal,
  );
  const found: Found = {
    robots: robots.says,
    delaySeconds: robots.delaySeconds,
    documents: mostTelling(documents),
    documentsLeft: left + Math.max(0, documents.length - MOST_SHOWN),
    pages: parts.reduce((sum, { pages }) => sum + pages, 0),
    parts,
    hosts: hostsIn(samples, origin, site),
    languages: languagesIn(samples),
    title: front.page?.title ?? "",
  };
  await noteFound(desk.store, { site: site.id, found });
  return found;
}

// Of more than are shown, those that could not be read.
function mostTelling(documents: Found["documents"]): Found["documents"] {
  if (documents.length <= MOST_SHOWN) return documents;
  const [faulty, others] = [true, false].map((is) =>
    documents.filter(({ fault }) => (fault !== null) === is),
  );
  return [...faulty!, ...others!].slice(0, MOST_SHOWN);
}

const NOT_ASKED = { page: undefined, fault: null } as const;

async function addressesAt(desk: Looking, address: string, signal: AbortSignal) {
  const answer = await desk.outgoing.fetch(address, { mostBytes: MOST_BYTES, signal });
  if (!answer.ok) return answer.reason;
  if (answer.status !== 200) return `answers ${answer.status}`;
  const read = await desk.texts.read({ do: "addresses", bytes: answer.bytes });
  return read.kind === "unreadable" ? read.reason : read;
}

async function pageAt(
  desk: Looking,
  address: string,
  signal: AbortSignal,
): Promise<{ page: PageText | undefined; fault: string | null }> {
  let asked = address;
  for (let hop = 0; ; hop += 1) {
    const answer = await desk.outgoing.fetch(asked, { mostBytes: PAGE_BYTES, signal });
    if (!answer.ok) return { page: undefined, fault: answer.reason };
    const to = answer.status >= 300 && answer.status < 400 ? answer.headers.location : undefined;
    if (to !== undefined && hop < 5 && URL.canParse(to, asked)) {
      asked = new URL(to, asked).href;
      continue;
    }
    if (answer.status !== 200) return { page: undefined, fault: `answers ${answer.status}` };
    const type = answer.headers["content-type"] ?? "";
    if (!/html/i.test(type))
      return { page: undefined, fault: `is no HTML but ${type.slice(0, 60) || "of no kind"}` };
    return {
      page: await desk.texts.read({ do: "page", bytes: answer.bytes, type, address: asked }),
      fault: null,
    };
  }
}

async function keep(
  desk: Looking,
  site: OpenSite,
  origin: string,
  named: readonly { address: string; changed: string | null }[],
  isNamed = true,
): Promise<number> {
  const rows = new Map<string, FoundAddress>();
  for (const { address, changed } of named) {
    const place = placeOnOrigin(address, origin, site.hostNames);
    if (place)
      rows.set(place.path, {
        ...place,
        named: isNamed,
        namedChange: changed,
        depth: isNamed ? 0 : 1,
        state: "found",
      });
  }
  const all = [...rows.values()];
  for (let at = 0; at < all.length; at += 5_000)
    await addFound(desk.store, { site: site.id, origin, rows: all.slice(at, at + 5_000) });
  return all.length;
}

async function samplesOf(
  desk: Looking,
  site: OpenSite,
  origin: string,
  front: PageText | undefined,
  addresses: readonly string[],
  allows: (address: string) => boolean,
  signal: AbortSignal,
): Promise<PageText[]> {
  const samples = front ? [front] : [];
  const parts = new Set<string>();
  for (const address of addresses) {
    const place = placeOnOrigin(address, origin, site.hostNames);
    if (!place || parts.has(place.part) || samples.length >= SAMPLES) continue;
    const asked = addressOnOrigin(place.path, origin);
    if (!allows(asked)) continue;
    parts.add(place.part);
    const { page } = await pageAt(desk, asked, signal);
    if (page) samples.push(page);
  }
  return samples;
}

function hostsIn(pages: readonly PageText[], origin: string, site: OpenSite): Found["hosts"] {
  const hosts = new Map<string, number>();
  for (const { address } of pages.flatMap(({ links }) => links)) {
    if (placeOnOrigin(address, origin, site.hostNames)) continue;
    const { hostname } = new URL(address);
    hosts.set(hostname, (hosts.get(hostname) ?? 0) + 1);
  }
  return [...hosts]
    .map(([host, links]) => ({ host, links }))
    .sort((a, b) => b.links - a.links || a.host.localeCompare(b.host))
    .slice(0, 50);
}

function languagesIn(pages: readonly PageText[]): Found["languages"] {
  const languages = new Map<string, number>();
  for (const { language } of pages) languages.set(language, (languages.get(language) ?? 0) + 1);
  return [...languages]
    .map(([language, count]) => ({ language, pages: count }))
    .sort((a, b) => b.pages - a.pages || a.language.localeCompare(b.language));
}
