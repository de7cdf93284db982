import { useState } from "react";
import type { TriedRules } from "../../../core/rules/rule.ts";
import type { Site } from "../../../core/sites/site.ts";
import { whenSeen } from "../../../ui/frame/later.tsx";
import { WorkBar } from "../../../ui/notices/WorkBar.tsx";
import type { WorkingSet } from "../use-working-set.ts";
import { ChangeGroups } from "./ChangeGroups.tsx";
import type { TrialWork } from "./use-trial.ts";
import { count } from "../../../ui/format/format.ts";

const HostChart = whenSeen(
  async () => (await import("./HostChart.tsx")).default,
  () => <p className="h-40 text-quiet">Drawing…</p>,
);

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
          {shown.hosts.length > 0 ? <HostChart hosts={shown.hosts} isChanged={set.isChanged} /> : null}
        </div>
      ) : work.state === "running" ? null : (
        <p className="text-quiet">Nothing has been tried yet.</p>
      )}
    </section>
  );
}

function Summary({ tried, isChanged }: { tried: TriedRules; isChanged: boolean }) {
  const { links, pages, changed, changedPages } = tried;
  if (links === 0) return <p className="text-quiet">The site has no links yet.</p>;
  return (
    <p aria-live="polite">
      {changed === 0 ? (
        isChanged ? (
          <>Applied, it would change none of {count(links)} links.</>
        ) : (
          <>
            This set is in force on {count(links)} links of {count(pages)} pages. Change something, and what
            it would do stands here.
          </>
        )
      ) : (
        <>
          Applied, it changes <strong>{count(changed)}</strong> of {count(links)} links on{" "}
          <strong>{count(changedPages)}</strong> of {count(pages)} pages.
        </>
      )}
    </p>
  );
}
