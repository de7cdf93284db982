import { useState } from "react";
import type { TriedRules } from "../../../core/rules/rule.ts";
import type { Site } from "../../../core/sites/site.ts";
import { whenSeen } from "../../../ui/frame/later.tsx";
import { WorkBar } from "../../../ui/notices/WorkBar.tsx";
import type { WorkingSet } from "../use-working-set.ts";
import { ChangeGroups } from "./ChangeGroups.tsx";
import type { TrialWork } from "./use-trial.ts";
import { count } from "../../../ui/format/format.ts";
import * as say from "../words.ts";

const HostChart = whenSeen(
  async () => (await import("./HostChart.tsx")).default,
  () => <p className="h-40 text-quiet">{say.drawing}</p>,
);

/** What the set would do to the whole site, before it is switched on. */
export function TryPanel({ site, set, trial }: { site: Site; set: WorkingSet; trial: TrialWork }) {
  const { work, tried } = trial;
  const [shown, setShown] = useState<TriedRules>();
  // What the last trial said stays until the next has come.
  if (tried && tried !== shown) setShown(tried);
  return (
    <section
      aria-label={say.whatItWouldChange}
      className="grid gap-3 rounded border border-line bg-sheet p-4 lg:sticky lg:top-16 lg:max-h-[calc(100vh-5rem)] lg:overflow-auto"
    >
      <h2 className="font-semibold">{say.triedOnTheWholeSite}</h2>
      <WorkBar work={work} label={say.trying} />
      {shown ? (
        <div className={work.state === "running" ? "grid gap-3 opacity-60" : "grid gap-3"}>
          <Summary tried={shown} isChanged={set.isChanged} />
          <ChangeGroups site={site} rules={set.rules.map(({ rule }) => rule)} groups={shown.groups} />
          {shown.hosts.length > 0 ? <HostChart hosts={shown.hosts} isChanged={set.isChanged} /> : null}
        </div>
      ) : work.state === "running" ? null : (
        <p className="text-quiet">{say.nothingHasBeenTriedYet}</p>
      )}
    </section>
  );
}

function Summary({ tried, isChanged }: { tried: TriedRules; isChanged: boolean }) {
  const { links, pages, changed, changedPages } = tried;
  if (links === 0) return <p className="text-quiet">{say.theSiteHasNoLinksYet}</p>;
  return (
    <p aria-live="polite">
      {changed === 0 ? (
        isChanged ? (
          <>{say.appliedItWouldChangeNoneOfLinks(count(links))}</>
        ) : (
          <>{say.thisSetIsInForceOnLinks(count(links), count(pages))}</>
        )
      ) : (
        <>
          {say.appliedItChanges} <strong>{count(changed)}</strong> {say.ofLinksOn(count(links))}{" "}
          <strong>{count(changedPages)}</strong> {say.ofPages(count(pages))}
        </>
      )}
    </p>
  );
}
