import { caseFoldedKey, pathKey } from "../../address/path-key.ts";
import { pathFault } from "../../ground/fields.ts";
import type { MatchKind } from "./match-kind.ts";
import { patternFault } from "./pattern.ts";

const MAX_STARS = 9;

/** What is wrong with a route's address, given how it matches; undefined when it is fine. */
export function addressFault(address: string, match: MatchKind): string | undefined {
  if (match === "pattern") return patternFault(address);
  const fault = pathFault(address);
  if (fault || match !== "wildcard") return fault;
  const stars = address.split("*").length - 1;
  if (stars === 0) return "A wildcard address has a * for what may differ, such as /blog/*.";
  return stars > MAX_STARS ? `A wildcard address has at most ${MAX_STARS} stars.` : undefined;
}

/**
 * The key under which a route's address is claimed and found. Exact addresses are their path key, which begins
 * with a slash; the others carry how they match in front, so that `/old` and “all below /old” may both exist.
 */
export function routeKey(address: string, caseInsensitive: boolean, match: MatchKind = "exact"): string {
  if (match === "pattern") return `pattern:${address}`;
  const key = caseInsensitive ? caseFoldedKey(pathKey(address)) : pathKey(address);
  return match === "exact" ? key : `${match}:${key}`;
}

/** Takes a stored key apart again. */
export function readRouteKey(stored: string): { match: MatchKind; key: string } {
  if (stored.startsWith("/")) return { match: "exact", key: stored };
  const colon = stored.indexOf(":");
  return { match: stored.slice(0, colon) as MatchKind, key: stored.slice(colon + 1) };
}

/** How many captures an address offers to its destination: `$1`, `$2` and so on. */
export function captureCount(address: string, match: MatchKind, groups: (pattern: string) => number): number {
  if (match === "exact") return 0;
  if (match === "prefix") return 1;
  return match === "wildcard" ? address.split("*").length - 1 : groups(address);
}
