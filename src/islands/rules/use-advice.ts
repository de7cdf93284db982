import { useEffect, useMemo, useState } from "react";
import type { Site } from "../../core/sites/site.ts";
import type { adviseRules, RuleAdvice } from "../../core/rules/sets/advice.ts";
import type { WorkedRule } from "./use-working-set.ts";

/** What is to be said of the set that is worked on, while it is worked on. */
export function useAdvice(site: Site, rules: readonly WorkedRule[]): RuleAdvice[] {
  const [advise, setAdvise] = useState<typeof adviseRules>();
  useEffect(() => {
    void import("../../core/rules/sets/advice.ts").then((module) => setAdvise(() => module.adviseRules));
  }, []);
  return useMemo(
    () =>
      advise?.(
        rules.map(({ rule }) => rule),
        { hosts: site.hosts.map(({ name }) => name), partners: site.partners },
      ) ?? [],
    [advise, site, rules],
  );
}
