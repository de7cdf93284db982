import { MANAGED_TOKENS, type ManagedToken, type Rule } from "../objects/rule.ts";
import { closeness, type Closeness, type LinkFacts } from "./match.ts";
import { isManaged, type Override } from "./override.ts";

/** Something a rule or an override can decide about a link. */
export type Attribute = ManagedToken | "target";
export const ATTRIBUTES: readonly Attribute[] = [...MANAGED_TOKENS, "target"];

/** Who decided an attribute. */
export type Decider =
  | { kind: "override" }
  | { kind: "rule"; index: number; name: string }
  | { kind: "author" }
  | { kind: "implied" };

/** One decision, with everyone who would have decided otherwise or the same, had the decider been silent. */
export interface Decision {
  attribute: Attribute;
  /** on or off for a token; new, same, or the author's own frame name for the target. */
  value: string;
  by: string;
  beat: string[];
  decider: Decider;
}

/** The attributes that a link is delivered with. */
export interface Resolved {
  /** Managed tokens in their fixed order, then the author's others; empty means no `rel` is written. */
  rel: string[];
  target: string | null;
  trace: Decision[];
}

/** What the author wrote on the link itself, and the override. */
export interface Written {
  rel: readonly string[];
  target: string | null;
  override: Override;
}

const BY_AUTHOR = "the author's own attribute";
const BY_OVERRIDE = "override on this link";
const BY_NEW_TAB = "a new tab implies noopener";

interface Candidate {
  rule: Rule;
  index: number;
  rank: Closeness;
}

/**
 * Decides rel and target of one link (DESIGN section 7), one attribute at a time: the override, then the
 * rules from the most particular to the most general; the first that speaks decides, among equals the one
 * higher in the list. A rule that fills is silent where the author wrote something. Total and deterministic.
 */
export function resolve(rules: readonly Rule[], facts: LinkFacts, written: Written): Resolved {
  const candidates = candidatesFor(rules, facts);
  const trace: Decision[] = [];
  const tokens = new Set<string>();
  const authorTokens = written.rel.map((token) => token.toLowerCase());

  for (const token of MANAGED_TOKENS) {
    const own = authorTokens.includes(token) ? "on" : undefined;
    const decision = decide(token, candidates, written.override[token], own, written.rel.length > 0);
    if (!decision) continue;
    trace.push(decision);
    if (decision.value === "on") tokens.add(token);
  }
  const targetDecision = decide(
    "target",
    candidates,
    written.override.target,
    written.target ?? undefined,
    written.target !== null,
  );
  const target = targetDecision ? targetValue(targetDecision.value) : null;
  if (targetDecision) trace.push(targetDecision);
  if (target === "_blank" && !tokens.has("noopener") && written.override.noopener !== "off") {
    tokens.add("noopener");
    impliedNoopener(trace);
  }
  return {
    rel: [...MANAGED_TOKENS.filter((token) => tokens.has(token)), ...otherTokens(written.rel)],
    target,
    trace,
  };
}

function candidatesFor(rules: readonly Rule[], facts: LinkFacts): Candidate[] {
  const found: Candidate[] = [];
  rules.forEach((rule, index) => {
    const rank = rule.enabled ? closeness(rule, facts) : undefined;
    if (rank) found.push({ rule, index, rank });
  });
  return found.sort((a, b) => a.rank[0] - b.rank[0] || a.rank[1] - b.rank[1] || a.index - b.index);
}

function decide(
  attribute: Attribute,
  candidates: readonly Candidate[],
  override: string | undefined,
  own: string | undefined,
  authorWrote: boolean,
): Decision | undefined {
  const voices: { by: string; value: string; decider: Decider }[] = [];
  if (override) voices.push({ by: BY_OVERRIDE, value: override, decider: { kind: "override" } });
  for (const { rule, index } of candidates) {
    const value = rule.set[attribute];
    if (value && !(rule.mode === "fill" && authorWrote)) {
      voices.push({ by: rule.name, value, decider: { kind: "rule", index, name: rule.name } });
    }
  }
  if (own !== undefined) voices.push({ by: BY_AUTHOR, value: own, decider: { kind: "author" } });
  const [first, ...rest] = voices;
  return (
    first && {
      attribute,
      value: first.value,
      by: first.by,
      beat: rest.map((voice) => voice.by),
      decider: first.decider,
    }
  );
}

function targetValue(value: string): string | null {
  if (value === "same") return null;
  return value === "new" ? "_blank" : value;
}

function impliedNoopener(trace: Decision[]): void {
  const at = trace.findIndex((decision) => decision.attribute === "noopener");
  const beaten = at === -1 ? [] : [trace[at]!.by, ...trace[at]!.beat];
  if (at !== -1) trace.splice(at, 1);
  trace.push({
    attribute: "noopener",
    value: "on",
    by: BY_NEW_TAB,
    beat: beaten,
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
