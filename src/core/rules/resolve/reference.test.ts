import assert from "node:assert/strict";
import { describe, test } from "node:test";
import fc from "fast-check";
import { ruleSchema, type Rule, type RuleMatch } from "../rule.ts";
import { MANAGED_TOKENS } from "../choices.ts";
import type { LinkFacts } from "./facts.ts";
import { resolve, type Written } from "./resolve.ts";

// A slow and obvious second statement of how rules decide, for one attribute at a time: all that speak of it, the one
// that decides at the front.
function plainly(
  attribute: (typeof MANAGED_TOKENS)[number] | "target",
  rules: readonly Rule[],
  link: LinkFacts,
  written: Written,
): { by: string; value: string }[] {
  const candidates: { by: string; value: string }[] = [];
  const override = written.override[attribute];
  if (override) candidates.push({ by: "override on this link", value: override });
  const wrote = attribute === "target" ? written.target !== null : written.rel.length > 0;
  for (const level of [0, 1, 2, 3, 4, 5, 6]) {
    const here = rules.filter((rule) => rule.enabled && applies(rule, link) && levelOf(rule, link) === level);
    const lengths = [...new Set(here.map((rule) => lengthOf(rule, link, level)))].sort((a, b) => b - a);
    for (const length of lengths) {
      for (const rule of here.filter((one) => lengthOf(one, link, level) === length)) {
        const value = rule.set[attribute];
        if (value && (rule.mode === "overwrite" || !wrote)) candidates.push({ by: rule.name, value });
      }
    }
  }
  const own = attribute === "target" ? written.target : written.rel.includes(attribute) ? "on" : null;
  if (own !== null) candidates.push({ by: "the author's own attribute", value: own });
  return candidates;
}

function applies(rule: Rule, link: LinkFacts): boolean {
  const named = (match: RuleMatch): boolean[] =>
    Object.entries(match).map(([field, value]) => {
      if (field === "destination") return value === "any" || value === link.reach;
      if (field === "domains")
        return (value as string[]).some(
          (pattern) => hostMatches(pattern, link.domain) || hostMatches(pattern, link.end),
        );
      if (field === "programs") return (value as string[]).some((name) => link.programs.includes(name));
      if (field === "networks") return (value as string[]).some((name) => link.networks.includes(name));
      if (field === "categories") return (value as string[]).includes(link.category ?? "");
      if (field === "pages") return (value as string[]).some((pattern) => pathMatches(pattern, link.page));
      return value === link.anchor;
    });
  return named(rule.match).every(Boolean) && !(rule.except && named(rule.except).some(Boolean));
}

const hostMatches = (pattern: string, host = ""): boolean =>
  pattern.startsWith("*.") ? host !== "" && host.endsWith(pattern.slice(1)) : host === pattern;
const pathMatches = (pattern: string, path = ""): boolean =>
  new RegExp(
    `^${pattern
      .split("*")
      .map((piece) => piece.replace(/[.+?^${}()|[\]\\]/g, "\\$&"))
      .join(".*")}$`,
  ).test(path);

function levelOf({ match }: Rule, link: LinkFacts): number {
  if (match.pages)
    return match.pages.some((pattern) => !pattern.includes("*") && pattern === link.page) ? 0 : 1;
  if (match.domains) return 2;
  if (match.programs) return 3;
  if (match.networks) return 4;
  return match.categories ? 5 : 6;
}

function lengthOf({ match }: Rule, link: LinkFacts, level: number): number {
  if (level === 1)
    return Math.max(
      ...match.pages!.filter((pattern) => pathMatches(pattern, link.page)).map((pattern) => pattern.length),
    );
  if (level !== 2) return 0;
  const matching = match.domains!.filter(
    (pattern) => hostMatches(pattern, link.domain) || hostMatches(pattern, link.end),
  );
  return Math.max(
    ...matching.map((pattern) =>
      pattern.startsWith("*.") ? (pattern.length - 2) * 2 : pattern.length * 2 + 1,
    ),
  );
}

const optional = <T>(value: fc.Arbitrary<T>): fc.Arbitrary<T | undefined> =>
  fc.option(value, { nil: undefined });
const domains = fc.constantFrom(
  "shop.example",
  "*.shop.example",
  "*.example",
  "a.shop.example",
  "other.example",
);
const pages = fc.constantFrom("/", "/reviews/a", "/reviews/*", "/*", "/r*s/*a", "/news/*");
const categories = fc.constantFrom("Reviews", "News");
const match = fc
  .record({
    destination: optional(fc.constantFrom("external", "internal", "any")),
    domains: optional(fc.uniqueArray(domains, { minLength: 1, maxLength: 3 })),
    programs: optional(fc.uniqueArray(fc.constantFrom("P", "Q"), { minLength: 1 })),
    networks: optional(fc.uniqueArray(fc.constantFrom("N", "M"), { minLength: 1 })),
    categories: optional(fc.uniqueArray(categories, { minLength: 1 })),
    pages: optional(fc.uniqueArray(pages, { minLength: 1, maxLength: 3 })),
    anchor: optional(fc.constantFrom("text", "image")),
  })
  .map((fields) => Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined)));
const onOff = optional(fc.constantFrom("on", "off"));
const sets = fc
  .record({
    nofollow: onOff,
    sponsored: onOff,
    noopener: onOff,
    target: optional(fc.constantFrom("new", "same")),
  })
  .map((fields) => Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined)));
const rules = fc
  .array(
    fc.record({
      enabled: fc.boolean(),
      match,
      except: optional(match),
      set: sets,
      mode: fc.constantFrom("fill", "overwrite"),
    }),
    { maxLength: 7 },
  )
  .map((list) =>
    list.map((rule, index) =>
      ruleSchema.parse({ name: `rule ${index}`, ...rule, except: rule.except ?? undefined }),
    ),
  );
const link = fc.record({
  reach: fc.constantFrom("external" as const, "internal" as const, "none" as const),
  domain: fc.constantFrom("shop.example", "a.shop.example", "other.example", undefined),
  end: fc.constantFrom(undefined, undefined, "shop.example", "a.shop.example", "other.example"),
  short: fc.boolean(),
  page: fc.constantFrom("/", "/reviews/a", "/reviews/b", "/news/x"),
  category: fc.constantFrom("Reviews", "News", undefined),
  anchor: fc.constantFrom("text" as const, "image" as const),
  programs: fc.subarray(["P", "Q", "R"]),
  networks: fc.subarray(["N", "M"]),
});
const written = fc.record({
  rel: fc.uniqueArray(fc.constantFrom("nofollow", "sponsored", "me"), { maxLength: 3 }),
  target: fc.constantFrom(null, "_top", "_blank"),
  override: sets,
}) as fc.Arbitrary<Written>;

describe("the resolver and its plain statement", () => {
  test("agree on every attribute of every link under every set of rules", () => {
    fc.assert(
      fc.property(rules, link, written, (set, facts, own) => {
        const resolved = resolve(set, facts, own);
        const target = plainly("target", set, facts, own);
        const value = target[0]?.value;
        const expectedTarget = value === "new" ? "_blank" : value === "same" ? null : (value ?? null);
        assert.equal(resolved.target, expectedTarget);
        for (const token of [...MANAGED_TOKENS, "target" as const]) {
          const candidates = token === "target" ? target : plainly(token, set, facts, own);
          const isOn = candidates[0]?.value === "on";
          const isImplied =
            token === "noopener" && expectedTarget === "_blank" && own.override.noopener !== "off";
          if (token !== "target") assert.equal(resolved.rel.includes(token), isOn || isImplied, token);
          if (isImplied && !isOn) continue;
          const said = resolved.trace.find(({ attribute }) => attribute === token);
          assert.deepEqual(
            said && [said.by, ...said.overridden],
            candidates.length > 0 ? candidates.map(({ by }) => by) : undefined,
          );
        }
        assert.equal(new Set(resolved.rel).size, resolved.rel.length);
      }),
      { numRuns: 3000 },
    );
  });
});
