import type { Address } from "./address.ts";
import { mayLeave } from "./may-leave.ts";
import { rootless } from "./host.ts";
import { pathKey } from "./path-key.ts";

/** Where a link leads, seen from one site. */
export const DESTINATION_KINDS = [
  "external",
  "page",
  "file",
  "route",
  "heading",
  "mail",
  "phone",
  "broken",
] as const;
export type DestinationKind = (typeof DESTINATION_KINDS)[number];

/** What the site answers, as far as classification needs to know. */
export interface SiteAddresses {
  /** Lower-case host names of the site, without port. */
  hosts: readonly string[];
  /** What answers this path on this host (null: a path without a host); undefined when nothing does. */
  answers(host: string | null, key: string): "page" | "file" | "route" | undefined;
}

/**
 * Says which kind of destination an address is for the given site.
 * A path that nothing on the site answers is "broken", never "external":
 * guessing would hide the author's slip. So is what may not leave the house, such as a script.
 */
export function destinationKind(address: Address | string, site: SiteAddresses): DestinationKind {
  if (!mayLeave(address)) return "broken";
  if (address.startsWith("#")) return "heading";
  if (/^mailto:/i.test(address)) return "mail";
  if (/^tel:/i.test(address)) return "phone";
  const place = ownPlace(address, site.hosts);
  if (!place)
    return PARSES.test(address) ||
      (/^(?:[a-z][a-z\d+.-]*:|\/\/)/i.test(address) && URL.canParse(address, "http://own.invalid"))
      ? "external"
      : "broken";
  return site.answers(place.host, place.key) ?? "broken";
}

// A host that parsing would give back as it is written: most links lead to one, and parsing an address is the
// dearest part of judging a link (measured by `npm run bench -- writing`).
const PLAIN_HOST = /^https?:\/\/([a-z\d-]+(?:\.[a-z\d-]+)*\.[a-z]+)(?=[/?#]|:\d|$)/;

// Parsing cannot fail behind such a host: no port that could be too large, no Punycode that could be none.
const PARSES = /^https?:\/\/((?:(?!xn--)[a-z\d-]+\.)+(?!xn--)[a-z]+)(?=[/?#]|$)/;

/** The host of a web address that is written plainly, in lower case; undefined for all others. */
export function plainHost(address: string): string | undefined {
  return PLAIN_HOST.exec(address)?.[1];
}

/** The host of an address that leads outside and says so plainly; undefined for all that has to be looked at closer. */
export function outsideHost(address: string, own: readonly string[]): string | undefined {
  const host = PARSES.exec(address)?.[1];
  return host !== undefined && !own.includes(host) ? host : undefined;
}

/** The lower-case ASCII host that an outside address leads to; empty for one that leads to none. */
export function hostOf(address: string): string {
  return plainHost(address) ?? rootless(new URL(address, "http://own.invalid").hostname);
}

/**
 * Splits an address of our own into host and path key; undefined when it leads elsewhere. A path without a
 * host has host null. Ports are not compared: they belong to the listener, not to the site.
 */
export function ownPlace(
  address: string,
  hosts: readonly string[],
): { host: string | null; key: string } | undefined {
  if (/^\/(?![/\\])/.test(address) || address.startsWith("?")) {
    return { host: null, key: pathKey(address.startsWith("?") ? "/" : address) };
  }
  const host = plainHost(address);
  if (host !== undefined && !hosts.includes(host)) return undefined;
  if (!/^(?:https?:)?\/\//i.test(address) || !URL.canParse(address, "http://own.invalid")) return undefined;
  const url = new URL(address, "http://own.invalid");
  const name = rootless(url.hostname);
  return hosts.includes(name) ? { host: name, key: pathKey(url.pathname) } : undefined;
}
