import { ownPlace } from "../../address/classify.ts";
import type { QueryMode, RouteStatus } from "../choices.ts";

/** What a route does with one request: where it leads, captures and fixed parameters filled in. */
export interface RouteAnswer {
  by: "route";
  id: string;
  status: RouteStatus;
  /** Null: gone, nothing in its place. */
  destination: string | null;
  query: QueryMode;
}

/** What a request that nothing answers gets, as the site has chosen. */
export interface MissAnswer {
  by: "miss";
  status: 404 | 302 | 200;
  /** Where it leads all the same: the closest address, or the one that the site has chosen. */
  destination: string | null;
  /** Which choice of the site it was: what misses get, or where the root of a host for short links leads. */
  rule: "help" | "closest" | "destination" | "root";
}

/** What answers a request on one of the site's hosts. */
export type OwnAnswer =
  | RouteAnswer
  | MissAnswer
  | { by: "page"; id: string; title: string; status: 200; path: string }
  | { by: "file"; status: 200; path: string }
  | ElsewhereAnswer;

/** A page of the site that stands in another system: as far as is known, it answers there, or leads on. */
export interface ElsewhereAnswer {
  by: "elsewhere";
  status: 200 | 301;
  destination: string | null;
}

/** Another spelling of the path under which a page or file is known: readers are led to that one. */
export interface SpellingAnswer {
  by: "spelling";
  status: 308;
  /** The path as it is spelled. */
  destination: string;
}

/** A site at one moment, as whoever follows an address through it needs it. */
export interface OwnSite {
  /** Lower-case host names, without port. */
  hosts: readonly string[];
  /** The host that a path without one means. */
  primary: string;
  /** What answers this path key on this host; null: a path without a host, which is one of the primary host. */
  answerAt(host: string | null, key: string): OwnAnswer;
  /** The full address of a path of the site. */
  absolute(path: string): string;
}

/** What answers an address of the site; undefined when it leads elsewhere. */
export function answerOf(address: string, site: OwnSite): OwnAnswer | SpellingAnswer | undefined {
  const place = ownPlace(address, site.hosts);
  const answer = place && site.answerAt(place.host, place.key);
  const to = answer && respelled(address, answer);
  return to === undefined ? answer : { by: "spelling", status: 308, destination: to };
}

/** The path that readers are led to from an address that spells a page's or file's path otherwise. */
export function respelled(address: string, answer: OwnAnswer): string | undefined {
  if (answer.by !== "page" && answer.by !== "file") return undefined;
  const { pathname } = new URL(address, "http://own.invalid");
  return pathname === answer.path ? undefined : answer.path;
}
