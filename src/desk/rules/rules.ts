import type { z } from "zod";
import { linkAttributes } from "../../core/rules/resolve/link-attributes.ts";
import {
  ruleSchema,
  type attributesAnswerSchema,
  type attributesQuestionSchema,
  type Rule,
  type RuleSet,
} from "../../core/rules/rule.ts";
import { adviseRules, type RuleAdvice } from "../../core/rules/sets/advice.ts";
import { otherAnswer } from "../../core/rules/why.ts";
import { noteChange } from "../../store/ground/changes.ts";
import { snapshotSite } from "../links/site-snapshot.ts";
import { stale } from "../ground/problem.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { audit } from "../ground/audit.ts";
import { isSame } from "../ground/before-after.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";
import { addRuleSet, latestRuleSet } from "../../store/rules/rule-sets.ts";
import type { Actor } from "../../core/people/actor.ts";

/** The rules in force; version 0 is the empty set that every site begins with. */
export async function currentRules(desk: WithStore, site: OpenSite): Promise<RuleSet> {
  const row = await latestRuleSet(desk.store, site.id);
  return row ? { version: row.version, rules: rulesOf(row.rules) } : { version: 0, rules: [] };
}

/** Rules as they are stored, each as its schema has it. */
export function rulesOf(stored: readonly unknown[]): Rule[] {
  return stored.map((rule) => ruleSchema.parse(rule));
}

/** What is to be said of a set on this site. */
export function adviceOn(site: OpenSite, rules: readonly Rule[]): RuleAdvice[] {
  return adviseRules(rules, { hosts: site.hostNames, partners: site.partners });
}

/** Replaces the set; every version is kept. Refused when another was saved since `version`. */
export async function replaceRules(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  version: number,
  rules: Rule[],
): Promise<RuleSet> {
  const before = await currentRules(desk, site);
  if (before.version === version && isSame(before.rules, rules)) return before;
  await desk.store.transaction(async (transaction) => {
    const [saved] = await addRuleSet(
      desk.store,
      { site: site.id, next: version + 1, version, rules: JSON.stringify(rules), by: actor.name },
      transaction,
    );
    if (!saved) throw stale(await currentRules(desk, site));
    await audit(
      desk,
      actor,
      {
        siteId: site.id,
        action: "rules.replace",
        object: String(version + 1),
        detail: { rules: rules.length },
      },
      transaction,
    );
    await noteChange(desk.store, transaction, { siteId: site.id, kind: "rules" });
  });
  return currentRules(desk, site);
}

/** The rel and target that each link would be delivered with, and why. */
export async function askAttributes(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  questions: readonly z.infer<typeof attributesQuestionSchema>[],
): Promise<z.infer<typeof attributesAnswerSchema>[]> {
  const [{ rules }, snapshot] = await Promise.all([
    currentRules(desk, site),
    snapshotSite(
      desk,
      site,
      questions.map(({ href }) => href),
    ),
  ]);
  const resolver = snapshot.linkResolver();
  return questions.map((question) => {
    const { rel, target, trace } = linkAttributes(question, rules, resolver);
    return {
      rel: [...rel],
      target,
      trace: trace.map(({ attribute, value, by, overridden }) => ({
        attribute,
        value,
        by,
        beat: overridden,
      })),
      otherwise: Object.fromEntries(trace.map((decision) => [decision.attribute, otherAnswer(decision)])),
    };
  });
}
