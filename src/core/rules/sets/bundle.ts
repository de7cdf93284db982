import { z } from "zod";
import { caseFoldedKey } from "../../address/path-key.ts";
import { hostName } from "../../ground/fields.ts";
import { partnerSchema } from "../../programs/partner.ts";
import { ruleSchema, type Rule } from "../rule.ts";
import { readRouteKey } from "../../routes/match/address-form.ts";
import { withCaptures } from "../../routes/match/captures.ts";
import { PatternTable } from "../../routes/match/pattern-table.ts";
import type { LinkResolver } from "../resolve/link-facts.ts";

/** A route as rules see it: where it stands, and where it leads. */
const bundledRouteSchema = z.object({
  /** null: every host of the site. */
  host: z.string().nullable(),
  /** The key under which it is stored: a path, or how it matches in front of one. */
  key: z.string().max(2_100),
  /** Letter case does not count. */
  folded: z.boolean(),
  destination: z.string(),
});

/** A set of rules with all that it looks at, so that it decides the same where the site itself is not at hand. */
export const ruleBundleSchema = z.object({
  rules: z.array(ruleSchema),
  hosts: z.array(hostName),
  partners: z.array(partnerSchema),
  routes: z.array(bundledRouteSchema),
});
export type RuleBundle = z.infer<typeof ruleBundleSchema>;

/** What rules name that only the site knows: of a set that stands alone they would never match, without a word. */
export function needsOfRules(rules: readonly Rule[]): { rule: string; names: string }[] {
  return rules.flatMap(({ name, enabled, match, except }) => {
    const named = [
      ...[match, except ?? {}].flatMap(({ programs }) => programs ?? []).map((one) => `the program “${one}”`),
      ...[match, except ?? {}].flatMap(({ networks }) => networks ?? []).map((one) => `the network “${one}”`),
    ];
    return enabled && named.length > 0 ? [{ rule: name, names: named.join(", ") }] : [];
  });
}

/** The site as a bundle tells of it. What a path leads to that no route answers is taken for a page of our own. */
export function resolverOfBundle({ hosts, partners, routes }: Omit<RuleBundle, "rules">): LinkResolver {
  const exact = new Map<string, string>();
  const patterns = new PatternTable<string>();
  for (const [age, { host, key: stored, folded: caseInsensitive, destination }] of routes.entries()) {
    const { match, key } = readRouteKey(stored);
    if (match === "exact") exact.set(`${host ?? "*"} ${key}`, destination);
    else patterns.add({ match, host, key, caseInsensitive }, destination, age);
  }
  const routeDestination = (asked: string | null, key: string): string | undefined => {
    const host = asked ?? hosts[0]!;
    for (const one of [key, caseFoldedKey(key)]) {
      const there = exact.get(`${host} ${one}`) ?? exact.get(`* ${one}`);
      if (there !== undefined) return there;
    }
    const [hit] = patterns.find(host, key);
    return hit && withCaptures(hit.entry, hit.captures);
  };
  return {
    hosts,
    partners,
    answers: (host, key) => (routeDestination(host, key) === undefined ? "page" : "route"),
    routeDestination,
  };
}
