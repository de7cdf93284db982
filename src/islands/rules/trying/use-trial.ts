import { useEffect } from "react";
import type { Rule, TriedRules } from "../../../core/rules/rule.ts";
import type { Site } from "../../../core/sites/site.ts";
import { useWork, type Work } from "../../../ui/notices/job.ts";
import { useDebounced } from "../../../ui/keys/use-debounced.ts";
import type { WorkingSet } from "../use-working-set.ts";
import { startJob } from "../../../ui/client/api.ts";

/** What the set that is worked on would change, tried anew whenever it changes. */
export interface TrialWork {
  work: Work<"POST /sites/:site/rules/try">;
  /** What came of the newest trial; undefined while none has come to its end. */
  tried: TriedRules | undefined;
  decides: readonly number[] | undefined;
}

const SETTLED_MS = 400;

/** Tries the set a moment after the last change of it. */
export function useTrial(site: Site, set: WorkingSet): TrialWork {
  const work = useWork<"POST /sites/:site/rules/try">();
  const rules = JSON.stringify(set.rules.map(({ rule }) => rule));
  const question = useDebounced(set.inForce ? `${set.inForce.version} ${rules}` : "", SETTLED_MS);
  const { start } = work;
  useEffect(() => {
    if (!question) return;
    const tried = JSON.parse(question.slice(question.indexOf(" ") + 1)) as Rule[];
    start(() => startJob("POST /sites/:site/rules/try", { site: site.id, body: { rules: tried } }));
    // The work's own functions are new with every drawing; what is asked for is what counts.
  }, [site.id, question, start]);
  const tried = work.state === "done" ? work.result : undefined;
  return { work, tried, decides: tried?.decides.length === set.rules.length ? tried.decides : undefined };
}
