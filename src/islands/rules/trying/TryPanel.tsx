import { lazy, Suspense, useState } from "react";
import type { TriedRules } from "../../../core/rules/rule.ts";
import type { Site } from "../../../core/sites/site.ts";
import { WorkBar } from "../../../ui/notices/WorkBar.tsx";
import type { WorkingSet } from "../use-working-set.ts";
import { ChangeGroups } from "./ChangeGroups.tsx";
import type { TrialWork } from "./use-trial.ts";

const HostChart = lazy(() => import("./HostChart.tsx"));

/** What the set would do to the whole site, before it is switched on. */
export function TryPanel({ site, set, trial }: { site: Site; set: WorkingSet; trial: TrialWork }) {
  const { work, tried } = trial;
  const [shown, setShown] = useState<TriedRules>();
  // What the last trial said stays until the next has come.
  if (tried && tried !== shown) setShown(tried);
  return (
    <section
      aria-label="What it would change"
      className="grid gap-3 rounded border border-line bg-sheet p-4 lg:sticky lg:top-16 lg:max-h-[calc(100vh-5rem)] lg:overflow-auto"
    >
      <h2 className="font-semibold">Tried on the whole site</h2>
      <WorkBar work={work} label="Trying" />
      {shown ? (
        <div className={work.state === "running" ? "grid gap-3 opacity-60" : "grid gap-3"}>
          <Summary tried={shown} isChanged={set.isChanged} />
          <ChangeGroups site={site} rules={set.rules.map(({ rule }) => rule)} groups={shown.groups} />
          {shown.hosts.length > 0 ? (
            <Suspense fallback={<p className="text-quiet">Drawing…</p>}>
              <HostChart hosts={shown.hosts} isChanged={set.isChanged} />
            </Suspense>
          ) : null}
        </div>
      ) : work.state === "running" ? null : (
        <p className="text-quiet">Nothing has been tried yet.</p>
      )}
    </section>
  );
}

function Summary({ tried, isChanged }: { tried: TriedRules; isChanged: boolean }) {
  const { links, pages, changed, changedPages } = tried;
  const number = (count: number): string => count.toLocaleString("en-GB");
  if (links === 0) return <p className="text-quiet">The site has no links yet.</p>;
  return (
    <p aria-live="polite">
      {changed === 0 ? (
        isChanged ? (
          <>Switched on, it would change none of {number(links)} links.</>
        ) : (
          <>
            This set is in force on {number(links)} links of {number(pages)} pages. Change something, and what
            it would do stands here.
          </>
        )
      ) : (
        <>
          Switched on, it changes <strong>{number(changed)}</strong> of {number(links)} links on{" "}
          <strong>{number(changedPages)}</strong> of {number(pages)} pages.
        </>
      )}
    </p>
  );
}
