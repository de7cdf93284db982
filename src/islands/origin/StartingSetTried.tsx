import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import type { Rule } from "../../core/rules/rule.ts";
import { startingSets } from "../../core/rules/sets/starting-sets.ts";
import type { Site } from "../../core/sites/site.ts";
import { startJob } from "../../ui/client/api.ts";
import { asking } from "../../ui/client/queries.ts";
import { counted } from "../../ui/format/counted.ts";
import { useWork } from "../../ui/notices/job.ts";
import { WorkBar } from "../../ui/notices/WorkBar.tsx";
import * as say from "./words.ts";

/** What a starting set of rules would change of what was read, for a site that has no rules yet; tried when a reading has ended. */
export function StartingSetTried({ site, isReading }: { site: Site; isReading: boolean }) {
  const rules = useQuery(asking("GET /sites/:site/rules", { site: site.id }));
  const work = useWork<"POST /sites/:site/rules/try">();
  const [first] = startingSets(site.partners);
  const isWanted = rules.data?.rules.length === 0 && !isReading && work.state === "idle";
  const { start } = work;
  const question = isWanted ? JSON.stringify(first!.rules) : "";
  useEffect(() => {
    if (!question) return;
    const tried = JSON.parse(question) as Rule[];
    start(() => startJob("POST /sites/:site/rules/try", { site: site.id, body: { rules: tried } }));
  }, [question, site.id, start]);
  if (rules.data?.rules.length !== 0) return null;
  const { result } = work;
  return (
    <div>
      <WorkBar work={work} label={say.tryingAStartingSet} />
      {result ? (
        <p>
          {say.startingSetWould(
            first!.name,
            counted(result.changed, ...say.ofLinks),
            counted(result.changedPages, ...say.ofPages),
          )}{" "}
          <a className="text-accent underline" href={`/${site.key}/rules`}>
            {say.beginWithIt}
          </a>
        </p>
      ) : null}
    </div>
  );
}
