import { pathKey, spelledPath } from "../../address/path-key.ts";
import type { RuleMatch } from "../rule.ts";
import { GROUPS, type LinkFacts } from "./facts.ts";

/** The levels of closeness, most particular first; from `group` on, each kind of group has its own, and all links the last. */
export const LEVEL = { page: 0, pathPattern: 1, domain: 2, group: 3 } as const;

/**
 * How closely a rule names a link, as one number: the smaller, the closer. Levels come first; at the
 * same level the longer pattern is closer, and among domains the name itself closer than its subdomains' wildcard.
 */
export type Rank = number;
const LENGTHS = 10_000;
const rankOf = (level: number, length = 0): Rank => level * LENGTHS + (LENGTHS - 1 - length);

export type Test = (link: LinkFacts) => boolean;

/** A match or an exception, its long lists made ready for looking up. */
export interface Matcher {
  /** One test for each field that is present; those for domains and pages stand apart. */
  tests: readonly Test[];
  domains: Test | undefined;
  pages: Test | undefined;
  /** How closely it names a link that it matches. */
  rank(link: LinkFacts): Rank;
}

/** Makes a match ready: afterwards a link costs a look-up, not a walk through the rule's lists. */
export function matcherOf(match: RuleMatch): Matcher {
  const domains = match.domains && new Set(match.domains);
  const pages = comparablePages(match.pages ?? []);
  const exactPages = new Set(pages.filter((page) => !page.includes("*")));
  const pagePatterns = pages.filter((page) => page.includes("*"));
  const tests: Test[] = [];
  const { destination, anchor } = match;
  if (destination) tests.push(({ reach }) => destination === "any" || destination === reach);
  if (anchor) tests.push((link) => link.anchor === anchor);
  for (const { field, of } of GROUPS) {
    const names = match[field] && new Set(match[field]);
    if (names) tests.push((link) => of(link).some((name) => names.has(name)));
  }
  const level = levelOf(match);
  return {
    tests,
    domains:
      domains && (({ domain, end }) => (domainIn(domains, domain) ?? domainIn(domains, end)) !== undefined),
    pages:
      match.pages &&
      (({ page }) =>
        (page !== undefined && exactPages.has(page)) ||
        pagePatterns.some((pattern) => pageMatches(pattern, page))),
    rank({ page, domain, end }) {
      if (match.pages)
        return page !== undefined && exactPages.has(page)
          ? rankOf(LEVEL.page)
          : rankOf(LEVEL.pathPattern, longest(pagePatterns.filter((pattern) => pageMatches(pattern, page))));
      if (!domains) return rankOf(level);
      return rankOf(
        level,
        Math.max(domainWeight(domainIn(domains, domain)), domainWeight(domainIn(domains, end))),
      );
    },
  };
}

/** True when any field of an exception answers. */
export function takesOut({ tests, domains, pages }: Matcher, link: LinkFacts): boolean {
  for (const test of tests) if (test(link)) return true;
  return Boolean(domains?.(link) || pages?.(link));
}

/** The level at which a match names its links, as far as that does not depend on the link. */
export function levelOf(match: RuleMatch): number {
  if (match.pages) return match.pages.some((page) => !page.includes("*")) ? LEVEL.page : LEVEL.pathPattern;
  if (match.domains) return LEVEL.domain;
  const group = GROUPS.findIndex(({ field }) => match[field]);
  return LEVEL.group + (group === -1 ? GROUPS.length : group);
}

/** A domain and the wildcards that cover it, closest first: `a.b.c`, `*.b.c`, `*.c`. */
export function domainNames(domain: string): string[] {
  const names = [domain];
  for (let dot = domain.indexOf("."); dot !== -1; dot = domain.indexOf(".", dot + 1))
    names.push(`*${domain.slice(dot)}`);
  return names;
}

function domainIn(domains: ReadonlySet<string>, domain: string | undefined): string | undefined {
  if (domain === undefined) return undefined;
  if (domains.has(domain)) return domain;
  for (let dot = domain.indexOf("."); dot !== -1; dot = domain.indexOf(".", dot + 1)) {
    const wildcard = `*${domain.slice(dot)}`;
    if (domains.has(wildcard)) return wildcard;
  }
  return undefined;
}

function domainWeight(pattern: string | undefined): number {
  if (pattern === undefined) return 0;
  return pattern.startsWith("*.") ? (pattern.length - 2) * 2 : pattern.length * 2 + 1;
}

/** Which of a link's two hosts the domains of a match name, the closer named of both; undefined when neither. */
export function matchedHost(
  domains: readonly string[],
  { domain, end }: LinkFacts,
): "domain" | "end" | undefined {
  const names = new Set(domains);
  const [written, ended] = [domainWeight(domainIn(names, domain)), domainWeight(domainIn(names, end))];
  if (written === 0 && ended === 0) return undefined;
  return written >= ended ? "domain" : "end";
}

/**
 * Page patterns as pages are compared with them: percent-encoded as paths are (RFC 3986 section 6.2.2), and one without stars with and
 * without a slash at its end, as systems elsewhere write the same page.
 */
export function comparablePages(patterns: readonly string[]): string[] {
  return patterns.flatMap((pattern) => {
    if (pattern.includes("*")) return [spelledPath(pattern)];
    const key = pathKey(pattern);
    return key === "/" ? [key] : [key, `${key}/`];
  });
}

/**
 * True when the path fits the pattern, in which `*` stands for any run of characters. What stands between stars is
 * searched from left to right, so the time is linear. Both are percent-encoded as paths are.
 */
export function pageMatches(pattern: string, page: string | undefined): boolean {
  if (page === undefined) return false;
  const pieces = pattern.split("*");
  if (pieces.length === 1) return page === pattern;
  const first = pieces[0]!;
  const last = pieces.at(-1)!;
  if (!page.startsWith(first) || page.length < first.length + last.length || !page.endsWith(last))
    return false;
  let from = first.length;
  for (const piece of pieces.slice(1, -1)) {
    const at = page.indexOf(piece, from);
    if (at === -1) return false;
    from = at + piece.length;
  }
  return from <= page.length - last.length;
}

function longest(patterns: readonly string[]): number {
  return Math.max(0, ...patterns.map((pattern) => pattern.length));
}
