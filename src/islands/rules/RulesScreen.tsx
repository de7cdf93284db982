import { Plus } from "lucide-react";
import { useState } from "react";
import type { Rule } from "../../core/rules/rule.ts";
import type { Site } from "../../core/sites/site.ts";
import { SectionTabs } from "../../ui/frame/SectionTabs.tsx";
import { later } from "../../ui/frame/later.tsx";
import { Screen } from "../../ui/frame/Screen.tsx";
import { RuleList } from "./list/RuleList.tsx";
import { SwitchOn } from "./SwitchOn.tsx";
import { TryPanel } from "./trying/TryPanel.tsx";
import { useTrial } from "./trying/use-trial.ts";
import { useAdvice } from "./use-advice.ts";
import { useWorkingSet, worked } from "./use-working-set.ts";
import * as say from "./words.ts";

/** The site's rules as sentences, and beside them what the set that is worked on would change. */
export function RulesScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <SectionTabs site={site} tab="rules" />
      <Rules site={site} />
    </Screen>
  );
}

const StartingSets = later(async () => (await import("./StartingSets.tsx")).StartingSets);
const NEW_RULE: Rule = { name: "", enabled: true, match: { destination: "external" }, set: {}, mode: "fill" };

function Rules({ site }: { site: Site }) {
  const set = useWorkingSet(site);
  const advice = useAdvice(site, set.rules);
  const trial = useTrial(site, set);
  const [open, setOpen] = useState<string>();
  const [choosing, setChoosing] = useState(false);
  if (set.failure) return <p className="text-bad">{set.failure}</p>;
  if (!set.inForce) return <p className="text-quiet">{say.fetchingTheRules}</p>;
  const add = (): void => {
    const made = worked({ ...NEW_RULE, name: freeName(set.rules.map(({ rule }) => rule.name)) });
    set.edit([...set.rules, made]);
    setOpen(made.key);
  };
  const isEmpty = set.rules.length === 0;
  return (
    <div className="grid grow items-start gap-6 grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_minmax(20rem,27rem)] xl:grid-cols-[minmax(0,1fr)_32rem]">
      <div className="min-w-0">
        <p className="mb-3 text-quiet">{say.theyActWhenAPageIsDelivered}</p>
        <SwitchOn site={site} set={set} />
        {isEmpty || choosing ? (
          <StartingSets
            site={site}
            onChoose={(rules) => {
              set.edit(rules.map(worked));
              setChoosing(false);
            }}
          />
        ) : (
          <RuleList
            site={site}
            rules={set.rules}
            advice={advice}
            decides={trial.decides}
            open={open}
            onOpen={setOpen}
            onChange={set.edit}
          />
        )}
        <div className="mt-3 flex flex-wrap gap-2">
          <button data-needs="editor" className="action" onClick={add}>
            <Plus size={15} aria-hidden /> {say.newRule}
          </button>
          {isEmpty ? null : (
            <button
              data-needs="editor"
              className="action action-plain"
              aria-expanded={choosing}
              onClick={() => setChoosing(!choosing)}
            >
              {choosing ? say.keepTheseRules : say.beginFromAStartingSet}
            </button>
          )}
        </div>
      </div>
      <TryPanel site={site} set={set} trial={trial} />
    </div>
  );
}

function freeName(taken: readonly string[]): string {
  for (let number = taken.length + 1; ; number += 1)
    if (!taken.includes(say.rule(number))) return say.rule(number);
}
