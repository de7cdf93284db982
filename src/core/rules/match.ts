import type { Rule, RuleMatch } from "../objects/rule.ts";

/** What rules look at in a link. */
export interface LinkFacts {
  /** "none": mail and phone, which lead neither outside nor inside. */
  reach: "external" | "internal" | "none";
  /** Lower-case ASCII host that an outside link leads to. */
  domain: string | undefined;
  page: string | undefined;
  category: string | undefined;
  anchor: "text" | "image";
  programs: readonly string[];
  networks: readonly string[];
}

/**
 * How closely a rule names a link, most particular first (DESIGN section 7). Among domains the longer name
 * is closer, and the name itself is closer than its subdomains' wildcard.
 */
export type Closeness = readonly [level: number, length: number];

const LEVEL = { page: 0, pathPattern: 1, domain: 2, program: 3, network: 4, category: 5, all: 6 } as const;

/** How closely the rule matches the link; undefined when it does not match, or when its exception takes the link out. */
export function closeness(rule: Rule, link: LinkFacts): Closeness | undefined {
  const { match, except } = rule;
  if (!matchesAll(match, link) || (except && isExcepted(except, link))) return undefined;
  if (match.pages) {
    const matching = match.pages.filter((pattern) => pageMatches(pattern, link.page));
    return matching.some((pattern) => !pattern.includes("*"))
      ? [LEVEL.page, 0]
      : [LEVEL.pathPattern, -longest(matching)];
  }
  if (match.domains) {
    const matching = match.domains.filter((pattern) => domainMatches(pattern, link.domain));
    return [LEVEL.domain, -Math.max(...matching.map(domainWeight))];
  }
  if (match.programs) return [LEVEL.program, 0];
  if (match.networks) return [LEVEL.network, 0];
  if (match.categories) return [LEVEL.category, 0];
  return [LEVEL.all, 0];
}

/** True when the link is taken out by any field of the rule's exception. */
export function isExcepted(except: RuleMatch, link: LinkFacts): boolean {
  return fieldAnswers(except, link).some((answer) => answer);
}

function matchesAll(match: RuleMatch, link: LinkFacts): boolean {
  return fieldAnswers(match, link).every((answer) => answer);
}

function fieldAnswers(match: RuleMatch, link: LinkFacts): boolean[] {
  const answers: boolean[] = [];
  if (match.destination) answers.push(match.destination === "any" || match.destination === link.reach);
  if (match.domains) answers.push(match.domains.some((pattern) => domainMatches(pattern, link.domain)));
  if (match.programs) answers.push(match.programs.some((name) => link.programs.includes(name)));
  if (match.networks) answers.push(match.networks.some((name) => link.networks.includes(name)));
  if (match.categories) answers.push(match.categories.includes(link.category ?? ""));
  if (match.pages) answers.push(match.pages.some((pattern) => pageMatches(pattern, link.page)));
  if (match.anchor) answers.push(match.anchor === link.anchor);
  return answers;
}

function domainMatches(pattern: string, domain: string | undefined): boolean {
  if (domain === undefined) return false;
  return pattern.startsWith("*.") ? domain.endsWith(pattern.slice(1)) : domain === pattern;
}

function domainWeight(pattern: string): number {
  return pattern.startsWith("*.") ? (pattern.length - 2) * 2 : pattern.length * 2 + 1;
}

/**
 * True when the path fits the pattern, in which `*` stands for any run of characters. What stands between stars is
 * searched from left to right, so the time is linear.
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
