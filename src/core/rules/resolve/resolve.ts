import type { Rule } from "../rule.ts";
import { MANAGED_TOKENS, type ManagedToken } from "../choices.ts";
import type { Attribute } from "../attribute.ts";
import type { Decider, Decision, Resolved, Written } from "./decision.ts";
import type { LinkFacts } from "./facts.ts";
import { matchedHost } from "./match.ts";
import { ruleTable, type Candidate, type ReadyRule } from "./rule-table.ts";
import { isManaged } from "../override.ts";

export type { Decision, Resolved, Written } from "./decision.ts";

/** Of a link that its author left to the rules. */
export const NOTHING_WRITTEN: Written = { rel: [], target: null, override: {} };

const BY_AUTHOR = "the author's own attribute";
const BY_OVERRIDE = "override on this link";
const BY_NEW_TAB = "a new tab implies noopener";

/**
 * Decides rel and target of one link, one attribute at a time: the override, then the
 * rules from the most particular to the most general; the first that speaks decides, among equals the one
 * higher in the list. A rule that fills is silent where the author wrote something. Total and deterministic.
 */
export function resolve(rules: readonly Rule[], facts: LinkFacts, written: Written): Resolved {
  // Menus repeat, and links of a page lead to few hosts: what was decided of such facts is known.
  const known = written === NOTHING_WRITTEN ? ruleTable(rules).decided(facts) : undefined;
  if (!known) return decideAll(rules, facts, written);
  return (known.resolved ??= decideAll(rules, facts, written));
}

function decideAll(rules: readonly Rule[], facts: LinkFacts, written: Written): Resolved {
  const { rel, target, override } = written;
  const candidates = candidatesFor(ruleTable(rules).candidates(facts), rel.length > 0, target !== null);
  const trace: Decision[] = [];
  const own = rel.length > 0 ? rel.map(lowerCase) : rel;
  const tokens: string[] = [];
  for (let at = 0; at < TARGET; at += 1) {
    const token = MANAGED_TOKENS[at]!;
    const decision = decide(
      facts,
      token,
      candidates[at],
      override[token],
      own.includes(token) ? "on" : undefined,
    );
    if (!decision) continue;
    trace.push(decision);
    if (decision.value === "on") tokens.push(token);
  }
  const decided = decide(facts, "target", candidates[TARGET], override.target, target ?? undefined);
  const tab = decided ? targetValue(decided.value) : null;
  if (decided) trace.push(decided);
  if (tab === "_blank" && !tokens.includes("noopener") && override.noopener !== "off") {
    tokens.splice(tokens.findIndex(isBehindNoopener) >>> 0, 0, "noopener");
    impliedNoopener(trace);
  }
  return { rel: rel.length > 0 ? [...tokens, ...otherTokens(rel)] : tokens, target: tab, trace };
}

const TARGET = MANAGED_TOKENS.length;
const NOOPENER = MANAGED_TOKENS.indexOf("noopener");

function lowerCase(token: string): string {
  return token.toLowerCase();
}

function isBehindNoopener(token: string): boolean {
  return MANAGED_TOKENS.indexOf(token as ManagedToken) > NOOPENER;
}

// The rules that declare each attribute, the closest first. One that fills is silent where the author wrote something.
function candidatesFor(
  found: readonly Candidate[],
  wroteRel: boolean,
  wroteTarget: boolean,
): (ReadyRule[] | undefined)[] {
  const candidates: (ReadyRule[] | undefined)[] = [];
  for (const { ready } of found) {
    const isFill = ready.rule.mode === "fill";
    for (const at of ready.declares) {
      if (isFill && (at === TARGET ? wroteTarget : wroteRel)) continue;
      const there = candidates[at];
      if (there) there.push(ready);
      else candidates[at] = [ready];
    }
  }
  return candidates;
}

const OVERRIDE: Decider = { kind: "override" };
const AUTHOR: Decider = { kind: "author" };

function decide(
  facts: LinkFacts,
  attribute: Attribute,
  candidates: readonly ReadyRule[] | undefined,
  override: string | undefined,
  own: string | undefined,
): Decision | undefined {
  const first = candidates?.[0];
  if (override === undefined && first === undefined) {
    return own === undefined
      ? undefined
      : { attribute, value: own, by: BY_AUTHOR, overridden: [], decider: AUTHOR };
  }
  const overridden: string[] = [];
  if (candidates)
    for (let at = override === undefined ? 1 : 0; at < candidates.length; at += 1)
      overridden.push(candidates[at]!.rule.name);
  if (own !== undefined) overridden.push(BY_AUTHOR);
  if (override !== undefined || first === undefined)
    return { attribute, value: override!, by: BY_OVERRIDE, overridden, decider: OVERRIDE };
  const { rule, index } = first;
  const { name } = rule;
  const decision: Decision = {
    attribute,
    value: rule.set[attribute]!,
    by: name,
    overridden,
    decider: { kind: "rule", index, name },
  };
  if (rule.match.domains) decision.matched = matchedBy(rule.match.domains, facts);
  return decision;
}

function matchedBy(domains: readonly string[], facts: LinkFacts): string {
  if (matchedHost(domains, facts) === "end") return `${facts.end}, where this tracked link ends`;
  return facts.short ? `${facts.domain}, where this short link ends` : `${facts.domain}, as it is written`;
}

function targetValue(value: string): string | null {
  if (value === "same") return null;
  return value === "new" ? "_blank" : value;
}

function impliedNoopener(trace: Decision[]): void {
  const at = trace.findIndex((decision) => decision.attribute === "noopener");
  const beaten = at === -1 ? [] : [trace[at]!.by, ...trace[at]!.overridden];
  if (at !== -1) trace.splice(at, 1);
  trace.push({
    attribute: "noopener",
    value: "on",
    by: BY_NEW_TAB,
    overridden: beaten,
    decider: { kind: "implied" },
  });
}

// Tokens we do not manage (me, license, author …) pass through as they were written, each once.
function otherTokens(rel: readonly string[]): string[] {
  const seen = new Set<string>();
  return rel.filter((token) => {
    const lower = token.toLowerCase();
    if (isManaged(lower) || seen.has(lower)) return false;
    seen.add(lower);
    return true;
  });
}
