import { useMemo } from "react";
import type { Site } from "../../core/sites/site.ts";
import { adviseRules, type RuleAdvice } from "../../core/rules/sets/advice.ts";
import type { WorkedRule } from "./use-working-set.ts";

/** What is to be said of the set that is worked on, while it is worked on. */
export function useAdvice(site: Site, rules: readonly WorkedRule[]): RuleAdvice[] {
  return useMemo(
    () =>
      adviseRules(
        rules.map(({ rule }) => rule),
        { hosts: site.hosts.map(({ name }) => name), partners: site.partners },
      ),
    [site, rules],
  );
}
