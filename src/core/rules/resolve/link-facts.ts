import { MAX_HOPS } from "../../address/max-hops.ts";
import { mayLeave } from "../../address/may-leave.ts";
import { spelledPath } from "../../address/path-key.ts";
import {
  destinationKind,
  hostOf,
  outsideHost,
  ownPlace,
  type DestinationKind,
  type SiteAddresses,
} from "../../address/classify.ts";
import type { Partner } from "../../programs/partner.ts";
import type { LinkFacts } from "./facts.ts";
import { partnersOf } from "../partners.ts";

/** A link as its page holds it, before any rule. */
export interface LinkOnPage {
  href: string;
  rel?: string | readonly string[] | null;
  target?: string | null;
  override?: string | null;
  page?: string;
  category?: string;
  anchor?: "text" | "image";
}

/** A site as rules see it: what answers where, and where its routes lead. */
export interface LinkResolver extends SiteAddresses {
  /** The destination of the route that answers this place, when one does. */
  routeDestination(host: string | null, key: string): string | undefined;
  /** Who pays for readers; a link to one of their domains belongs to their program. */
  partners?: readonly Partner[];
  /** The path that readers find this page under now; undefined when it is not published. */
  pagePath?(id: string): string | undefined;
  /** The one spelling of the path of the page or file that answers there; undefined where neither does. */
  spelled?(host: string | null, key: string): string | undefined;
  /** What readers get in place of this address by the site's swaps; undefined where none is about it. */
  swapped?(href: string): string | undefined;
  /** The short link that is delivered in place of this raw destination on a page (by its id). */
  inContent?(href: string, page: string | undefined): string | undefined;
}

/**
 * The facts of a link that rules match on. A link to one of our own routes is judged by where the route
 * leads: a short link to a shop is an outside link, else shortening would take its marks away. A program's tracked link
 * has two hosts, its network's and the one where it ends. Who knows the destination's kind already hands it over.
 */
export function linkFacts(link: LinkOnPage, site: LinkResolver, kind?: DestinationKind): LinkFacts {
  // Most links lead to a host that is written plainly: it alone tells what they are.
  const plain = kind === undefined || kind === "external" ? outsideHost(link.href, site.hosts) : undefined;
  if (plain !== undefined) return factsOf(link, "external", plain, site, link.href, false);
  return anyFacts(link, site, kind ?? destinationKind(link.href, site));
}

function anyFacts(link: LinkOnPage, site: LinkResolver, kind: DestinationKind): LinkFacts {
  const end = kind === "route" ? throughRoutes(link.href, site) : link.href;
  const endKind = kind === "route" ? destinationKind(end, site) : kind;
  const domain = endKind === "external" ? hostOf(end) : undefined;
  // A script or an application's own scheme leads to no host: rules for outside links are not about it.
  const leadsNowhere = domain === "" || (endKind === "broken" && !mayLeave(end));
  const reach = leadsNowhere ? "none" : reachOf(endKind);
  return factsOf(link, reach, domain, site, end, kind === "route");
}

function factsOf(
  link: LinkOnPage,
  reach: LinkFacts["reach"],
  domain: string | undefined,
  site: LinkResolver,
  address: string,
  short: boolean,
): LinkFacts {
  const { programs, networks, end } = partnersOf(site.partners, domain, address);
  return {
    reach,
    domain: domain || undefined,
    end,
    short,
    page: link.page === undefined ? undefined : pathOf(link.page),
    category: link.category,
    anchor: link.anchor ?? "text",
    programs,
    networks,
  };
}

// Pages elsewhere are told apart by their queries, too; rules name paths.
function pathOf(page: string): string {
  const mark = page.indexOf("?");
  return spelledPath(mark === -1 ? page : page.slice(0, mark));
}

function reachOf(kind: DestinationKind): LinkFacts["reach"] {
  if (kind === "external") return "external";
  return kind === "mail" || kind === "phone" ? "none" : "internal";
}

/** Follows our own exact routes from an address to where they end; stops at what is not ours, or after `MAX_HOPS`. */
export function throughRoutes(address: string, site: LinkResolver): string {
  let current = address;
  for (let hops = 0; hops < MAX_HOPS; hops += 1) {
    const place = ownPlace(current, site.hosts);
    const next = place && site.routeDestination(place.host, place.key);
    if (next === undefined) return current;
    current = next;
  }
  return current;
}
