import type { Rule, RuleMatch } from "../rule.ts";
import type { Resolved } from "./decision.ts";
import { ATTRIBUTES } from "../attribute.ts";
import { closestGroup, GROUPS, LINK_GROUPS, NOWHERE, type LinkFacts } from "./facts.ts";
import {
  comparablePages,
  domainNames,
  matcherOf,
  takesOut,
  type Matcher,
  type Rank,
  type Test,
} from "./match.ts";

/** A rule that can speak, ready to be asked. */
export interface ReadyRule {
  rule: Rule;
  /** Its place in the set. */
  index: number;
  /** What it says: which of ATTRIBUTES, by their places. */
  declares: readonly number[];
  match: Matcher;
  except: Matcher | undefined;
}

/** A rule that matches a link, and how closely it names it: by its rank, then by its place in the set. */
export interface Candidate {
  ready: ReadyRule;
  key: number;
}

/** A rule where it is found, with what is still to be asked there. */
interface Listed {
  ready: ReadyRule;
  tests: readonly Test[];
  /** Known where the place decides it. */
  rank: Rank | undefined;
}

const MAX_REMEMBERED = 5_000;
const MAX_RULES = 100_000;

/**
 * A set of rules ready to be asked: each rule lies under the one thing that narrows it most (its domains,
 * pages or groups), so a link meets only the rules that name something of it. A set is made ready
 * once, however many links are asked.
 */
export class RuleTable {
  private readonly byDomain = new Map<string, ReadyRule[]>();
  private readonly byPage = new Map<string, ReadyRule[]>();
  private readonly byPageStart = new Map<string, ReadyRule[]>();
  private readonly byGroup = GROUPS.map((group) => ({ group, rules: new Map<string, Listed[]>() }));
  /** Rules for all links. Of most it is known by reach and anchor alone whether they match. */
  private readonly general: Listed[] = [];
  private readonly guarded: Listed[] = [];
  private readonly generalFor = new Map<string, readonly Candidate[]>();
  private readonly startLengths: number[];
  // Links come page by page and lead to few hosts: what a page or a host brings with it is remembered.
  private readonly ofPage = new Map<string, readonly Listed[]>();
  private readonly ofDomain = new Map<string, readonly Listed[]>();

  // Of the page that was asked about last.
  private readonly decisions = new Map<
    string,
    { text: { resolved?: Resolved }; image: { resolved?: Resolved } }
  >();
  private decidedPage: string | undefined;
  private decidedCategory: string | undefined;

  constructor(rules: readonly Rule[]) {
    rules.forEach((rule, index) => {
      if (!rule.enabled) return;
      const { match, except, set } = rule;
      const declares = ATTRIBUTES.flatMap((attribute, at) => (set[attribute] === undefined ? [] : [at]));
      this.list({ rule, index, declares, match: matcherOf(match), except: except && matcherOf(except) });
    });
    this.startLengths = [...new Set([...this.byPageStart.keys()].map(({ length }) => length))];
  }

  private list(ready: ReadyRule): void {
    const { match } = ready.rule;
    if (match.domains) for (const name of new Set(match.domains)) add(this.byDomain, name, ready);
    else if (match.pages)
      for (const pattern of new Set(comparablePages(match.pages))) {
        const star = pattern.indexOf("*");
        if (star === -1) add(this.byPage, pattern, ready);
        else add(this.byPageStart, pattern.slice(0, star), ready);
      }
    else {
      const listed = { ready, tests: ready.match.tests, rank: ready.match.rank(NOWHERE) };
      const group = closestGroup(match);
      if (group) {
        const { rules } = this.byGroup.find((one) => one.group === group)!;
        for (const name of new Set(match[group.field])) add(rules, name, listed);
      } else if (isGuarded(ready.rule.except)) this.guarded.push(listed);
      else this.general.push(listed);
    }
  }

  /** The rules that match a link, the one that speaks first at the front. */
  candidates(link: LinkFacts): Candidate[] {
    const found: Candidate[] = [];
    if (link.domain !== undefined) consider(found, this.domainRules(link.domain, link), link);
    if (link.end !== undefined) consider(found, this.domainRules(link.end, link), link);
    if (link.page !== undefined) consider(found, this.pageRules(link.page, link), link);
    let groups = 0;
    for (const { group, rules } of this.byGroup)
      if (rules.size > 0)
        for (const name of group.of(link)) {
          consider(found, rules.get(name), link);
          groups += 1;
        }
    consider(found, this.guarded, link);
    const general = this.generalRules(link);
    // Nothing is less close than rules for all links: where none of those is guarded they come last as they are.
    if (this.guarded.length > 0) found.push(...general);
    if (found.length > 1) found.sort(byKey);
    if (this.guarded.length === 0) for (const one of general) found.push(one);
    if (link.end !== undefined) return found.filter(isFirstOfRule);
    return groups > 1 ? found.filter(isFirst) : found;
  }

  /** Where the decision about links of such facts is kept; undefined where a link's own groups have a say. */
  decided(facts: LinkFacts): { resolved?: Resolved } | undefined {
    const { reach, domain, end, short, page, category, anchor } = facts;
    if (end !== undefined || LINK_GROUPS.some(({ of }) => of(facts).length > 0)) return undefined;
    if (
      page !== this.decidedPage ||
      category !== this.decidedCategory ||
      this.decisions.size >= MAX_REMEMBERED
    ) {
      this.decisions.clear();
      this.decidedPage = page;
      this.decidedCategory = category;
    }
    // What decided is told: a short link's trace says that it was the host where it ends.
    const key = domain === undefined ? NO_DOMAIN[reach] : short ? ` ${domain}` : domain;
    let there = this.decisions.get(key);
    if (!there) this.decisions.set(key, (there = { text: {}, image: {} }));
    return there[anchor];
  }

  private generalRules(link: LinkFacts): readonly Candidate[] {
    const key = link.reach + link.anchor;
    let there = this.generalFor.get(key);
    if (there === undefined) {
      const found: Candidate[] = [];
      consider(found, this.general, link);
      this.generalFor.set(key, (there = found.sort(byKey)));
    }
    return there;
  }

  private domainRules(domain: string, link: LinkFacts): readonly Listed[] {
    let there = this.ofDomain.get(domain);
    if (there === undefined) {
      const ready = new Set(domainNames(domain).flatMap((name) => this.byDomain.get(name) ?? []));
      there = [...ready].map((one): Listed => {
        const { tests, pages } = one.match;
        return {
          ready: one,
          tests: pages ? [...tests, pages] : tests,
          rank: pages ? undefined : one.match.rank({ ...link, domain, end: undefined }),
        };
      });
      remember(this.ofDomain, domain, there);
    }
    return there;
  }

  private pageRules(page: string, link: LinkFacts): readonly Listed[] {
    let there = this.ofPage.get(page);
    if (there === undefined) {
      const starts = this.startLengths.flatMap((length) =>
        length <= page.length ? (this.byPageStart.get(page.slice(0, length)) ?? []) : [],
      );
      // What only begins like the page is left out here, once, and not for each of its links.
      const ready = new Set(
        [...(this.byPage.get(page) ?? []), ...starts].filter(({ match }) => match.pages!(link)),
      );
      there = [...ready].map((one) => ({ ready: one, tests: one.match.tests, rank: one.match.rank(link) }));
      remember(this.ofPage, page, there);
    }
    return there;
  }
}

// Whether its exception takes a link out depends on more than reach and anchor.
function isGuarded(except: RuleMatch = {}): boolean {
  return Object.keys(except).some((field) => field !== "destination" && field !== "anchor");
}

// What is no domain.
const NO_DOMAIN = { external: " outside", internal: " inside", none: " nowhere" } as const;

const tables = new WeakMap<readonly Rule[], RuleTable>();

/** The table of a set of rules, made once for each set. */
export function ruleTable(rules: readonly Rule[]): RuleTable {
  let table = tables.get(rules);
  if (!table) tables.set(rules, (table = new RuleTable(rules)));
  return table;
}

function consider(found: Candidate[], list: readonly Listed[] | undefined, link: LinkFacts): void {
  if (list)
    for (const listed of list)
      if (matches(listed, link)) found.push({ ready: listed.ready, key: keyOf(listed, link) });
}

function matches({ ready, tests }: Listed, link: LinkFacts): boolean {
  for (const test of tests) if (!test(link)) return false;
  return ready.except === undefined || !takesOut(ready.except, link);
}

function keyOf({ ready, rank }: Listed, link: LinkFacts): number {
  return (rank ?? ready.match.rank(link)) * MAX_RULES + ready.index;
}

function byKey(a: Candidate, b: Candidate): number {
  return a.key - b.key;
}

// Found by two of its names, a rule speaks once.
function isFirst({ key }: Candidate, at: number, all: readonly Candidate[]): boolean {
  return key !== all[at - 1]?.key;
}

// Found by both hosts of a link, a rule speaks once, as closely as the nearer of them is named.
function isFirstOfRule({ ready }: Candidate, at: number, all: readonly Candidate[]): boolean {
  return all.findIndex((other) => other.ready === ready) === at;
}

function add<T>(map: Map<string, T[]>, key: string, one: T): void {
  const there = map.get(key);
  if (there) there.push(one);
  else map.set(key, [one]);
}

function remember(known: Map<string, readonly Listed[]>, key: string, list: readonly Listed[]): void {
  if (known.size >= MAX_REMEMBERED) known.clear();
  known.set(key, list);
}
