import { pagesLinkingTo } from "../../store/pages/lists.ts";
import { compareKey } from "../../core/address/compare.ts";
import { destinationKind, hostOf, ownPlace } from "../../core/address/classify.ts";
import { looksLikeAddress, repairAddress } from "../../core/address/repair/repair.ts";
import { readSnippet } from "../../core/creatives/snippet.ts";
import { throughRoutes } from "../../core/rules/resolve/link-facts.ts";
import { partnersOf } from "../../core/rules/partners.ts";
import type { PasteAnswer } from "../../core/links/paste.ts";
import { listFiles } from "../files/files.ts";
import { pageSummaries } from "../pages/page-views.ts";
import { listPages } from "../pages/pages.ts";
import { snapshotSite } from "./site-snapshot.ts";
import { shortLinksTo, surroundingsOf } from "../routes/route-advice.ts";
import { listRoutes } from "../routes/list-routes.ts";
import { askAttributes } from "../rules/rules.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithDeliveryPort, WithWorkspaceHosts } from "../ground/parts.ts";

const FEW = 6;

/** Says what is known of something pasted: an address of any kind, or words to search for. */
export async function lookAtPaste(
  desk: WithStore & WithDeliveryPort & WithWorkspaceHosts,
  site: OpenSite,
  text: string,
): Promise<PasteAnswer> {
  const snippet = snippetIn(site, text);
  const repaired = repairAddress(text, surroundingsOf(desk, site));
  if (!repaired.ok && !looksLikeAddress(text)) return words(desk, site, text.trim());
  if (!repaired.ok) {
    return {
      ...NOTHING,
      form: "refused",
      snippet,
      repairs: repaired.repairs.map(({ message }) => message),
      refusal: repaired.reason.message,
      others: repaired.others,
    };
  }
  const { address } = repaired;
  const snapshot = await snapshotSite(desk, site, [address]);
  const resolver = snapshot.linkResolver();
  const kind = destinationKind(address, resolver);
  const end = throughRoutes(address, resolver);
  const place = ownPlace(address, site.hostNames);
  const [[attributes], shortLinks, users] = await Promise.all([
    askAttributes(desk, site, [{ href: address }]),
    shortLinksTo(desk, site, address),
    pagesLinkingTo(desk.store, { site: site.id, key: compareKey(address), limit: FEW }),
  ]);
  return {
    ...NOTHING,
    form: repaired.form,
    snippet,
    kind,
    address,
    repairs: repaired.repairs.map(({ message }) => message),
    warnings: repaired.warnings.map(({ message }) => message),
    others: repaired.others,
    answeredBy: place ? answeredBy(kind, snapshot.pageAt(place.key)?.title, end) : null,
    ends: end === address ? null : end,
    attributes: attributes!,
    shortLinks,
    pages: await pageSummaries(desk, site, users),
  };
}

const NOTHING: PasteAnswer = {
  form: "words",
  kind: null,
  address: null,
  repairs: [],
  warnings: [],
  refusal: null,
  others: [],
  answeredBy: null,
  ends: null,
  attributes: null,
  snippet: null,
  shortLinks: [],
  pages: [],
  routes: [],
  files: [],
};

function snippetIn(site: OpenSite, text: string): PasteAnswer["snippet"] {
  if (!/<(?:a|img)\b[^>]*>/i.test(text)) return null;
  const read = readSnippet(text);
  if (!read.ok) return null;
  const { kind, href, words: said, picture, leftOut } = read.snippet;
  const host = URL.canParse(href) ? hostOf(href) : undefined;
  // The account that it waits for does not matter to whose it is.
  const [name] = partnersOf(site.partners, host, href.replaceAll(/\{\w+\}/g, "x")).programs;
  const program = site.partners.find((partner) => partner.name === name)?.id ?? null;
  return { kind, words: picture?.alt ?? said, picture: picture?.src ?? null, leftOut, program };
}

async function words(desk: WithStore & WithDeliveryPort, site: OpenSite, text: string): Promise<PasteAnswer> {
  const query = { limit: FEW, q: text };
  const [pages, routes, files] = await Promise.all([
    listPages(desk, site, query),
    listRoutes(desk, site, query),
    listFiles(desk, site, query),
  ]);
  return { ...NOTHING, pages: pages.items, routes: routes.items, files: files.items };
}

function answeredBy(kind: string, title: string | undefined, end: string): string {
  if (kind === "page") return `the page “${title ?? ""}”`;
  if (kind === "route") return `a route that leads to ${end}`;
  return "nothing yet: readers would get “not found”";
}
