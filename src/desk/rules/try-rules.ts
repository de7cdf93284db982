import type { z } from "zod";
import type { rulesTrySchema } from "../../core/rules/rule.ts";
import type { WithThread } from "../jobs/desk-thread.ts";
import type { JobKind } from "../jobs/job-kind.ts";
import type { Task } from "../jobs/task.ts";
import type { Rule } from "../../core/rules/rule.ts";
import type { RuleAdvice } from "../../core/rules/sets/advice.ts";
import { RuleTrial, type ChangedLink, type Trial } from "../../core/rules/sets/try-rules.ts";
import { countLedger, ruledRows } from "../../store/ledger/ledger-rows.ts";
import type { Progress } from "../../threads/progress.ts";
import { catchUpLedger } from "../ledger/follow-ledger.ts";
import { factsOf } from "../ledger/reapply-rules.ts";
import { adviceOn, currentRules } from "./rules.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";

/** What a set would do to a site, and what is to be said of it. */
export interface TriedSet extends Trial {
  samples: ChangedLink[];
  advice: RuleAdvice[];
  /** One portion of the links of the group that was asked for. */
  listed: ChangedLink[];
}

const MAX_SAMPLES = 50;
const MAX_LISTED = 200;
const MAX_HOSTS = 60;

/**
 * Tries a set of rules on every link that readers get (of pages that are not published, on every link that is
 * written), against the set in force. `only` lists one group of changes, from an offset on.
 */
export async function tryOnLedger(
  core: WithStore & WithDeliveryPort,
  site: OpenSite,
  rules: readonly Rule[],
  progress: Progress,
  only?: { change: string; offset: number },
): Promise<TriedSet> {
  await catchUpLedger(core, site, progress);
  const [current, total] = await Promise.all([currentRules(core, site), countLedger(core.store, site.id)]);
  const listed: ChangedLink[] = [];
  let passed = 0;
  const keep = (change: string, link: ChangedLink): void => {
    if (change !== only?.change) return;
    passed += 1;
    if (passed > only.offset && listed.length < MAX_LISTED) listed.push(link);
  };
  const trial = new RuleTrial(current.rules, rules, keep);
  let done = 0;
  for await (const rows of ruledRows(core.store, site.id, true)) {
    for (const row of rows)
      trial.add(
        {
          id: row.id,
          place: row.place,
          words: row.words,
          href: row.href,
          rel: row.stored_rel,
          target: row.stored_target,
          override: row.override,
        },
        factsOf(row),
      );
    await progress.step((done += rows.length), total);
  }
  const result = trial.result();
  return {
    ...result,
    hosts: result.hosts.slice(0, MAX_HOSTS),
    samples: mixed(
      result.groups.map(({ samples }) => samples),
      MAX_SAMPLES,
    ),
    advice: adviceOn(site, rules),
    listed,
  };
}

// Some of each, so that the one large group does not hide the others.
function mixed<T>(lists: readonly (readonly T[])[], most: number): T[] {
  const taken: T[] = [];
  for (let row = 0; taken.length < most && lists.some((list) => row < list.length); row += 1)
    for (const list of lists) if (row < list.length && taken.length < most) taken.push(list[row]!);
  return taken;
}

/** Tries a set on the whole site, however large. */
export const tryRulesTask: Task<WithStore & WithDeliveryPort, z.infer<typeof rulesTrySchema>, TriedSet> = {
  name: "rules.try",
  run: (desk, site, { rules, only }, progress) => tryOnLedger(desk, site, rules, progress, only),
};

/** Tries a set while its asker looks elsewhere. */
export const tryRulesJob: JobKind<WithThread, z.infer<typeof rulesTrySchema>, TriedSet> = {
  name: "rules.try",
  run: (desk, { site, input }, progress) => desk.thread.run(tryRulesTask, site.id, input, progress),
};
