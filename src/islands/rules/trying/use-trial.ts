import { useEffect } from "react";
import type { TriedRules } from "../../../core/rules/rule.ts";
import type { Site } from "../../../core/sites/site.ts";
import { api, AS_JOB } from "../../../ui/client/api.ts";
import { useWork, type Work } from "../../../ui/notices/job.ts";
import { useDebounced } from "../../../ui/keys/use-debounced.ts";
import type { WorkingSet } from "../use-working-set.ts";

/** What the set that is worked on would change, tried anew whenever it changes. */
export interface TrialWork {
  work: Work<TriedRules>;
  /** What came of the newest trial; undefined while none has come to its end. */
  tried: TriedRules | undefined;
  decides: readonly number[] | undefined;
}

const SETTLED_MS = 400;

/** Tries the set a moment after the last change of it. */
export function useTrial(site: Site, set: WorkingSet): TrialWork {
  const work = useWork<TriedRules>();
  const rules = JSON.stringify(set.rules.map(({ rule }) => rule));
  const question = useDebounced(set.inForce ? `${set.inForce.version} ${rules}` : "", SETTLED_MS);
  const { start } = work;
  useEffect(() => {
    if (!question) return;
    const tried = JSON.parse(question.slice(question.indexOf(" ") + 1)) as unknown;
    start(() => api("POST", `/sites/${site.id}/rules/try`, { rules: tried }, AS_JOB));
    // The work's own functions are new with every drawing; what is asked for is what counts.
  }, [site.id, question, start]);
  const tried = work.state === "done" ? work.result : undefined;
  return { work, tried, decides: tried?.decides.length === set.rules.length ? tried.decides : undefined };
}
