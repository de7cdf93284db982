import { compareSets } from "../../core/rules/sets/compare-sets.ts";
import { type RuleSet, type RuleVersion, type RuleVersionFull } from "../../core/rules/rule.ts";
import { notFound } from "../ground/problem.ts";
import { currentRules, replaceRules, rulesOf } from "./rules.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore } from "../ground/parts.ts";
import { MAX_LISTED, newestRuleSets, ruleSetVersions } from "../../store/rules/rule-sets.ts";
import type { Actor } from "../../core/people/actor.ts";

/** The sets that a site had, newest first, each with what it changed of the one before. */
export async function listVersions(desk: WithStore, site: OpenSite): Promise<RuleVersion[]> {
  const rows = await newestRuleSets(desk.store, { site: site.id });
  const sets = rows.map(({ rules }) => rulesOf(rules));
  return rows.slice(0, MAX_LISTED).map(({ version, rules, created_by, created_at }, index) => ({
    version,
    rules: rules.length,
    createdBy: created_by,
    createdAt: created_at.toISOString(),
    differences: compareSets(sets[index + 1] ?? [], sets[index]!),
  }));
}

/** One kept set, and what putting it back would change. */
export async function readVersion(
  desk: WithStore,
  site: OpenSite,
  version: string,
): Promise<RuleVersionFull> {
  const [[row], current] = await Promise.all([
    ruleSetVersions(desk.store, { site: site.id, version: /^\d{1,9}$/.test(version) ? version : "-1" }),
    currentRules(desk, site),
  ]);
  if (!row) throw notFound("This set of rules");
  const rules = rulesOf(row.rules);
  return {
    version: row.version,
    rules,
    createdBy: row.created_by,
    createdAt: row.created_at.toISOString(),
    against: compareSets(current.rules, rules),
  };
}

/** Puts a kept set into force again, as a new version over the one that the asker saw. */
export async function putBackVersion(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  kept: string,
  version: number,
): Promise<RuleSet> {
  const { rules } = await readVersion(desk, site, kept);
  return replaceRules(desk, actor, site, version, rules);
}
