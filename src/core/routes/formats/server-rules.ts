import type { Route } from "../route.ts";
import { withCaptures } from "../match/captures.ts";
import { draftTable } from "../match/draft-table.ts";
import { suspects } from "../match/suspects.ts";
import { leadsBack, mayLeadInside } from "../chain/leads-back.ts";
import { readRouteKey, routeKey } from "../match/address-form.ts";
import { before, literalOf } from "../match/pattern-table.ts";
import { patternText } from "../match/pattern.ts";
import { withParameters } from "../chain/parameters.ts";
import { literal } from "../../text/literal.ts";
import { headerSafe } from "../chain/header-safe.ts";

/** A site's routes as another web server could answer them. */
export interface ServerRules {
  hosts: readonly string[];
  primary: string;
  /** For each host, in the order in which they answer. */
  exact: ExactRule[];
  patterns: PatternRule[];
  /** Routes that no plain configuration can answer as Map Rope does, each with the reason. */
  leftOut: { address: string; reason: string }[];
}

interface Answering {
  host: string;
  status: number;
  /** Fit for a header; null: gone. Captures are `$1` to `$9`. */
  destination: string | null;
  /** The visitor's query goes behind the destination's. */
  forwards: boolean;
  robots: string;
  caseInsensitive: boolean;
}

/** A path, percent-decoded, without a slash at its end. */
export interface ExactRule extends Answering {
  path: string;
}

/** A regular expression over the whole normalised path, still percent-encoded, without a slash at its end. */
export interface PatternRule extends Answering {
  source: string;
}

/** What both exported configurations have in common; a route that they cannot express is left out and named. */
export function serverRules(
  routes: readonly Route[],
  hosts: readonly string[],
  primary: string,
  absolute: (path: string) => string,
): ServerRules {
  const rules: ServerRules = { hosts, primary, exact: [], patterns: [], leftOut: [] };
  const exact: { rule: ExactRule; rank: number }[] = [];
  const patterns: { literal: number; address: { host: string | null }; age: number; rule: PatternRule }[] =
    [];
  for (const route of routes) {
    if (!route.enabled) continue;
    const reason = whyNot(route, hosts, primary);
    if (reason) {
      rules.leftOut.push({ address: route.address, reason });
      continue;
    }
    const caseInsensitive = route.kind === "short";
    for (const host of route.host === null ? hosts : [route.host]) {
      const answering = answeringOn(route, host, primary, absolute);
      if (route.match === "exact") {
        // The order in which the route table looks: exact before caseInsensitive, a host's own before every host's.
        const rank = (caseInsensitive ? 2 : 0) + (route.host === null ? 1 : 0);
        for (const address of [route.address, ...route.aliases]) {
          const path = decodedPath(routeKey(address, caseInsensitive));
          if (path !== undefined) exact.push({ rule: { ...answering, path }, rank });
          else
            rules.leftOut.push({
              address,
              reason: "its path holds an encoded slash, reserved or control character",
            });
        }
      } else {
        const { key } = readRouteKey(routeKey(route.address, caseInsensitive, route.match));
        patterns.push({
          literal: literalOf({ match: route.match, key }),
          address: { host: route.host },
          age: Number(route.id),
          rule: { ...answering, source: sourceOf(route.match, key) },
        });
      }
    }
  }
  rules.exact = exact.sort((a, b) => a.rank - b.rank).map(({ rule }) => rule);
  rules.patterns = patterns.sort(before).map(({ rule }) => rule);
  return rules;
}

function answeringOn(
  route: Route,
  host: string,
  primary: string,
  absolute: (path: string) => string,
): Answering {
  const { destination } = route;
  const full =
    destination === null
      ? null
      : destination.startsWith("/") && host !== primary
        ? absolute(destination)
        : destination;
  const robots = [route.robots.noindex ? "noindex" : "", route.robots.nofollow ? "nofollow" : ""].filter(
    Boolean,
  );
  return {
    host,
    status: route.status,
    destination: full === null ? null : headerSafe(withParameters(full, route.parameters)),
    forwards: route.query !== "drop",
    robots: robots.join(", "),
    caseInsensitive: route.kind === "short",
  };
}

function whyNot(route: Route, hosts: readonly string[], primary: string): string | undefined {
  if (route.status === 200) return "a notice page is written by Map Rope";
  if (route.validFrom !== null || route.validUntil !== null)
    return "a schedule needs somebody who looks at the clock";
  const own = `${route.destination ?? ""}${route.parameters}`.includes("?") || route.parameters !== "";
  if (route.query === "merge" && own) return "merging queries compares parameter by parameter";
  if (standsAside(route, hosts, primary))
    return "some addresses would be led back to themselves, which Map Rope sees for each request";
  const inHost = /^https?:\/\/[^/?#]*\$/.test(route.destination ?? "");
  return inHost ? "a capture in the host is checked for every request" : undefined;
}

// Another server would send such a request round for good.
function standsAside(route: Route, hosts: readonly string[], primary: string): boolean {
  const { match, address, destination } = route;
  if (match === "exact" || destination === null || !mayLeadInside(destination, hosts)) return false;
  const table = draftTable([address], match, route.kind === "short");
  const asked = route.host === null ? hosts : [route.host];
  return suspects(address, match, destination).some((key) => {
    const captures = table.find("", key)[0]?.captures;
    const to = captures && withCaptures(destination, captures);
    return to !== undefined && asked.some((host) => leadsBack(to, host, key, primary));
  });
}

/** A path key as servers compare it, decoded; undefined when it cannot be told apart from another there. */
export function decodedPath(key: string): string | undefined {
  if (new RegExp(`%[01][0-9A-F]|%7F|${ENCODED_RESERVED}`, "i").test(key)) return undefined;
  try {
    return decodeURIComponent(key);
  } catch {
    return undefined;
  }
}

function sourceOf(match: Route["match"], key: string): string {
  if (match === "pattern") return patternText(key).replace(/^\^|(?<!\\)\$$/g, "");
  if (match === "prefix") return key === "/" ? "/(.*)" : `${literal(key)}(?:/(.*))?`;
  const pieces = key.split("*").map(literal);
  return pieces
    .map((piece, index) =>
      index === 0 ? piece : `${index === pieces.length - 1 ? "(.*)" : "(.*?)"}${piece}`,
    )
    .join("");
}

/** Text that may stand in a comment of any configuration. */
export function comment(text: string): string {
  return text.replace(/[^\x20-\x7E]+/g, "?");
}

/** Reserved characters that are percent-encoded: to us they are not the characters themselves (RFC 3986 section 2.2). */
export const ENCODED_RESERVED = "%(?:21|24|2[6-9A-CF]|3[ABD]|40)";

/** The path of a request as both servers see it raw, when it is in normal form (RFC 3986 section 6.2.2). */
export const NORMAL_PATH =
  "(?:[A-Za-z0-9\\-_~/.!$&'()*+,;=:@]|%(?:[01][0-9A-F]|2[0-9A-CF]|3[A-F]|40|5[B-E]|60|7[B-DF]|[89A-F][0-9A-F]))*";
