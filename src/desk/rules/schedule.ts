import type { z } from "zod";
import { type RuleSchedule, type scheduleInputSchema } from "../../core/rules/rule.ts";
import { compareSets } from "../../core/rules/sets/compare-sets.ts";
import { invalid, Problem, stale } from "../ground/problem.ts";
import { currentRules, replaceRules, rulesOf } from "./rules.ts";
import { openSite, type OpenSite } from "../sites/open-site.ts";
import { audit, audited } from "../ground/audit.ts";
import type { WithStore } from "../ground/parts.ts";
import {
  scheduleOf,
  putSchedule,
  deleteSchedule,
  dueSchedules,
  deleteScheduleOver,
  holdSchedule,
} from "../../store/rules/schedules.ts";
import type { Actor } from "../../core/people/actor.ts";

/** The set that waits for its time; null when none does. */
export async function readSchedule(desk: WithStore, site: OpenSite): Promise<RuleSchedule | null> {
  const [row] = await scheduleOf(desk.store, { site: site.id });
  if (!row) return null;
  const rules = rulesOf(row.rules);
  const current = await currentRules(desk, site);
  return {
    version: row.version,
    rules,
    at: row.at.toISOString(),
    madeBy: row.made_by,
    held: row.held,
    differences: compareSets(current.rules, rules),
  };
}

/** Lets a set come into force at a time; it takes the place of one that waits already. */
export async function scheduleRules(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  { version, rules, at }: z.infer<typeof scheduleInputSchema>,
  now: number,
): Promise<RuleSchedule | null> {
  if (Date.parse(at) <= now)
    throw invalid([
      { path: "at", message: "That time has passed. Choose a later one, or switch on at once." },
    ]);
  const current = await currentRules(desk, site);
  if (current.version !== version) throw stale(current);
  await desk.store.transaction(async (transaction) => {
    const saved = await putSchedule(
      desk.store,
      { site: site.id, version, rules: JSON.stringify(rules), at, by: actor.name },
      transaction,
    );
    if (saved.length === 0) throw stale(await currentRules(desk, site));
    await audit(
      desk,
      actor,
      { siteId: site.id, action: "rules.schedule", object: at, detail: { version } },
      transaction,
    );
  });
  return readSchedule(desk, site);
}

/** Lets a waiting set never come into force. */
export async function dropSchedule(desk: WithStore, actor: Actor, site: OpenSite): Promise<void> {
  await audited(
    desk,
    actor,
    { siteId: site.id, action: "rules.unschedule", object: site.key },
    (transaction) => deleteSchedule(desk.store, { site: site.id }, transaction),
  );
}

/**
 * Puts sets into force whose time has come. One that was made over another set than the one in force is held, and
 * says so: nobody's newer rules are replaced by what waited. Answers how many came into force.
 */
export async function applyDueSchedules(desk: WithStore, now: number): Promise<number> {
  const due = await dueSchedules(desk.store, { now: new Date(now).toISOString() });
  let applied = 0;
  for (const { site_id, version, rules, made_by } of due) {
    const site = await openSite(desk, site_id);
    const set = rulesOf(rules);
    try {
      await replaceRules(desk, { name: made_by, role: "editor" }, site, version, set);
      await deleteScheduleOver(desk.store, { site: site_id, version });
      applied += 1;
    } catch (error) {
      if (!(error instanceof Problem) || error.status !== 409) throw error;
      await hold(desk, site, version, set);
    }
  }
  return applied;
}

// Of several processes one puts the set into force; the others find it done.
async function hold(
  desk: WithStore,
  site: OpenSite,
  version: number,
  rules: readonly unknown[],
): Promise<void> {
  const current = await currentRules(desk, site);
  const isDone = current.version === version + 1 && JSON.stringify(current.rules) === JSON.stringify(rules);
  await (isDone ? deleteScheduleOver : holdSchedule)(desk.store, { site: site.id, version });
}
