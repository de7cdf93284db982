import type { Partner } from "../../programs/partner.ts";
import type { Rule, RuleMatch } from "../rule.ts";
import { MANAGED_TOKENS } from "../choices.ts";
import { closestGroup, LIST_NAMES } from "../resolve/facts.ts";
import { LEVEL, levelOf } from "../resolve/match.ts";
import { readTemplate } from "../../programs/template.ts";
import { partnersAt } from "../partners.ts";
import { ATTRIBUTES, type Attribute } from "../attribute.ts";

export const RULE_ADVICE_CODES = [
  "sets-nothing",
  "never-matches",
  "never-decides",
  "contradiction",
  "names-everything",
  "referrer-withheld",
  "paid-unmarked",
  "sponsored-inside",
  "unknown-program",
  "both-ways",
  "same-name",
] as const;

/** Something about a set of rules that its author should know. */
export interface RuleAdvice {
  code: (typeof RULE_ADVICE_CODES)[number];
  /** Places in the set of the rules that it is about. */
  rules: number[];
  message: string;
}

/** The site that a set is for, as far as advice needs it. */
export interface AdviceSite {
  hosts: readonly string[];
  partners: readonly Partner[];
}

/** What is to be said of a set of rules. Rules that are off are not judged. */
export function adviseRules(rules: readonly Rule[], site: AdviceSite): RuleAdvice[] {
  const advice: RuleAdvice[] = [];
  const on = rules.flatMap((rule, index) => (rule.enabled ? [{ rule, index }] : []));
  const say = (code: RuleAdvice["code"], about: number[], message: string): void =>
    void advice.push({ code, rules: about, message });
  for (const { rule, index } of on) {
    for (const [code, message] of aboutOne(rule, site)) say(code, [index], message);
    const hider = on.find((other) => other.index < index && hides(other.rule, rule));
    if (hider)
      say(
        "never-decides",
        [index, hider.index],
        `“${rule.name}” can never decide anything: “${hider.rule.name}” stands above it and speaks for all of its links first.`,
      );
  }
  advice.push(...contradictions(on), ...sameNames(on));
  return advice.sort((a, b) => a.rules[0]! - b.rules[0]!);
}

function aboutOne(rule: Rule, site: AdviceSite): [RuleAdvice["code"], string][] {
  const { match, except, set } = rule;
  const said: [RuleAdvice["code"], string][] = [];
  if (ATTRIBUTES.every((attribute) => set[attribute] === undefined))
    said.push(["sets-nothing", `“${rule.name}” sets nothing, so it changes no link.`]);
  const own = match.domains?.filter((domain) => site.hosts.includes(domain)) ?? [];
  if (match.domains && own.length === match.domains.length)
    said.push([
      "never-matches",
      `“${rule.name}” names our own ${own.length === 1 ? `host ${own[0]}` : "hosts"}: links to ourselves are inside links and have no domain. Match inside links instead.`,
    ]);
  else if (own.length > 0)
    said.push([
      "never-matches",
      `“${rule.name}” names ${own.join(" and ")}, which is our own host: links to it are inside links, and this part matches none.`,
    ]);
  if (match.destination === "internal" && (match.domains || match.programs || match.networks))
    said.push([
      "never-matches",
      `“${rule.name}” wants inside links that lead to a domain, program or network; there are none such.`,
    ]);
  if (except && exceptsAll(match, except))
    said.push(["never-matches", `“${rule.name}” takes out by its exception all that it matches.`]);
  if (match.pages?.some((pattern) => /^\/?\*+$/.test(pattern)) && levelOf(match) === LEVEL.pathPattern)
    said.push([
      "names-everything",
      `“${rule.name}” names every page by ${match.pages.find((pattern) => /^\/?\*+$/.test(pattern))}: that makes it rank above rules for a domain. Leave the pages out if it is meant for all.`,
    ]);
  for (const [field, known] of [
    ["programs", site.partners.map(({ name }) => name)],
    ["networks", site.partners.map(({ network }) => network)],
  ] as const) {
    const unknown = match[field]?.filter((name) => !known.includes(name)) ?? [];
    if (unknown.length > 0)
      said.push([
        "unknown-program",
        `“${rule.name}” names ${unknown.join(" and ")}, which is no program and no network of this site.`,
      ]);
  }
  for (const sentence of bothWays(rule, site.partners)) said.push(["both-ways", sentence]);
  const partners = partnersOfMatch(match, site.partners).filter((one) => !isExcepted(one, except));
  const needing = partners.filter(({ needsReferrer }) => needsReferrer);
  if (set.noreferrer === "on" && needing.length > 0)
    said.push([
      "referrer-withheld",
      `${needing[0]!.name} pays by the referrer, and “${rule.name}” withholds it with noreferrer. Except its domains, or leave noreferrer.`,
    ]);
  if (partners.length > 0 && set.sponsored === "off" && set.nofollow !== "on")
    said.push([
      "paid-unmarked",
      `“${rule.name}” takes sponsored off links that ${partners[0]!.name} pays for, and leaves them without nofollow.`,
    ]);
  if (
    set.sponsored === "on" &&
    (match.destination === "internal" || match.destination === "any" || isBare(match))
  )
    said.push([
      "sponsored-inside",
      `“${rule.name}” marks links to ourselves as sponsored too. Match outside links only.`,
    ]);
  return said;
}

// A match without anything that would keep it to outside links.
function isBare(match: RuleMatch): boolean {
  return !match.destination && !match.domains && !match.programs && !match.networks;
}

// A shop is reached by its own address and by a network's tracked links; a rule for either says which links it covers.
function bothWays({ name, match }: Rule, partners: readonly Partner[]): string[] {
  const domains = match.domains ?? [];
  const names = (host: string): boolean => domains.some((one) => one === host || coversDomain(one, host));
  return partners.flatMap((partner) => {
    const read = readTemplate(partner.template ?? "");
    if (!read.ok || read.template.style !== "wrapper") return [];
    const network = read.template.host.replace(/:\d+$/, "");
    const shops = partner.domains.filter((domain) => !domain.startsWith("*.") && domain !== network);
    if (shops.some(names) && !names(network))
      return [
        `“${name}” covers ${partner.name} by both ways: links to ${shops.find(names)}, and tracked links through ${network} that end there.`,
      ];
    return names(network) && !shops.some(names)
      ? [
          `“${name}” names ${network}, through which tracked links to ${partner.name} go; links straight to its own pages are not covered.`,
        ]
      : [];
  });
}

function partnersOfMatch(match: RuleMatch, partners: readonly Partner[]): readonly Partner[] {
  if (match.destination === "internal") return [];
  const { domains, programs, networks } = match;
  return partners.filter(
    (partner) =>
      (!domains || domains.some((one) => touches(one, partner, partners))) &&
      (!programs || programs.includes(partner.name)) &&
      (!networks || networks.includes(partner.network)) &&
      (domains ??
        programs ??
        networks ??
        match.pages ??
        match.categories ??
        match.anchor ??
        match.destination) !== undefined,
  );
}

// True when the exception takes out every link to a partner's domains.
function isExcepted(partner: Partner, except: RuleMatch | undefined): boolean {
  if (!except) return false;
  const { domains = [], programs, networks } = except;
  if (programs?.includes(partner.name) || networks?.includes(partner.network)) return true;
  return partner.domains.every((domain) =>
    domains.some((one) => one === domain || coversDomain(one, domain)),
  );
}

function coversDomain(pattern: string, domain: string): boolean {
  return pattern.startsWith("*.") && domain.endsWith(pattern.slice(1));
}

function touches(pattern: string, partner: Partner, partners: readonly Partner[]): boolean {
  if (partner.domains.includes(pattern)) return true;
  return pattern.startsWith("*.")
    ? partner.domains.some((domain) => coversDomain(pattern, domain))
    : partnersAt(partners, pattern).programs.includes(partner.name);
}

// True when every link that `narrow` matches is matched by `wide`, each at least as closely named.
function covers(wide: RuleMatch, narrow: RuleMatch): boolean {
  if (levelOf(wide) !== levelOf(narrow)) return false;
  if (wide.destination && wide.destination !== "any" && wide.destination !== narrow.destination) return false;
  if (wide.anchor && wide.anchor !== narrow.anchor) return false;
  return LIST_NAMES.every(
    (field) => !wide[field] || narrow[field]?.every((one) => wide[field]!.includes(one)) === true,
  );
}

function hides(above: Rule, below: Rule): boolean {
  const speaks = ATTRIBUTES.filter((attribute) => below.set[attribute] !== undefined);
  return (
    speaks.length > 0 &&
    speaks.every((attribute) => above.set[attribute] !== undefined) &&
    (above.mode === "overwrite" || below.mode === "fill") &&
    (!above.except || JSON.stringify(above.except) === JSON.stringify(below.except)) &&
    covers(above.match, below.match)
  );
}

function exceptsAll(match: RuleMatch, except: RuleMatch): boolean {
  if (except.destination === "any") return true;
  const leadsOutside = match.destination === "external" || match.domains || match.programs || match.networks;
  if (except.destination === "external" && leadsOutside) return true;
  if (except.destination && except.destination === match.destination) return true;
  if (except.anchor && except.anchor === match.anchor) return true;
  return LIST_NAMES.some(
    (field) => except[field] && match[field]?.every((one) => except[field]!.includes(one)),
  );
}

interface Placed {
  rule: Rule;
  index: number;
}

const MAX_CONTRADICTIONS = 200;

// Two rules that name some link equally closely and want opposite things of it.
function contradictions(on: readonly Placed[]): RuleAdvice[] {
  const found: RuleAdvice[] = [];
  const told = new Set<string>();
  const byName = new Map<string, Placed[]>();
  for (const placed of on)
    for (const name of equalNames(placed.rule.match)) {
      const others = byName.get(name) ?? [];
      for (const other of others) {
        const attribute = opposed(other.rule, placed.rule);
        if (attribute === undefined || !compatible(other.rule.match, placed.rule.match)) continue;
        const pair = `${other.index} ${placed.index}`;
        if (told.has(pair) || found.length >= MAX_CONTRADICTIONS) continue;
        told.add(pair);
        found.push({
          code: "contradiction",
          rules: [other.index, placed.index],
          message: `“${other.rule.name}” and “${placed.rule.name}” name ${name === "*" ? "the same links" : name.slice(name.indexOf(" ") + 1)} equally closely and want opposite things of ${attribute}; the higher one decides.`,
        });
      }
      byName.set(name, [...others, placed]);
    }
  return found;
}

// What two rules must share to be equally close to some link.
function equalNames(match: RuleMatch): readonly string[] {
  const field = match.pages ? "pages" : match.domains ? "domains" : closestGroup(match)?.field;
  return field ? match[field]!.map((name) => `${field} ${name}`) : ["*"];
}

function compatible(a: RuleMatch, b: RuleMatch): boolean {
  const reach = (match: RuleMatch): string => match.destination ?? "any";
  if (reach(a) !== "any" && reach(b) !== "any" && reach(a) !== reach(b)) return false;
  if (a.anchor && b.anchor && a.anchor !== b.anchor) return false;
  return LIST_NAMES.every(
    (field) => !a[field] || !b[field] || a[field].some((one) => b[field]!.includes(one)),
  );
}

function opposed(a: Rule, b: Rule): Attribute | undefined {
  return [...MANAGED_TOKENS, "target" as const].find(
    (attribute) =>
      a.set[attribute] !== undefined &&
      b.set[attribute] !== undefined &&
      a.set[attribute] !== b.set[attribute] &&
      a.mode === b.mode,
  );
}

function sameNames(on: readonly Placed[]): RuleAdvice[] {
  const first = new Map<string, number>();
  return on.flatMap(({ rule, index }) => {
    const before = first.get(rule.name);
    if (before === undefined) {
      first.set(rule.name, index);
      return [];
    }
    return [
      {
        code: "same-name" as const,
        rules: [before, index],
        message: `Two rules are called “${rule.name}”: nobody can tell which of them decided.`,
      },
    ];
  });
}
