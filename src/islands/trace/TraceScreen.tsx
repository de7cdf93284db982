import { useState } from "react";
import type { Site } from "../../core/sites/site.ts";
import type { Trace } from "../../core/trace/trace.ts";
import { Choice } from "../../ui/fields/Choice.tsx";
import { entriesOf } from "../../ui/choose/options.ts";
import { AreaField, ChoiceField } from "../../ui/form/fields.tsx";
import { Form, SaveButton } from "../../ui/form/Form.tsx";
import { useSavedForm } from "../../ui/form/use-saved-form.ts";
import { useWork } from "../../ui/notices/job.ts";
import { SectionTabs } from "../../ui/frame/SectionTabs.tsx";
import { Screen } from "../../ui/frame/Screen.tsx";
import { useAddressState } from "../../ui/client/url-state.ts";
import { WorkBar } from "../../ui/notices/WorkBar.tsx";
import { RedirectChain } from "./RedirectChain.tsx";
import { isGood, VERDICT_WORDS } from "./verdict-words.ts";
import { startJob } from "../../ui/client/api.ts";
import { count } from "../../ui/format/format.ts";
import * as say from "./words.ts";

/** Any number of addresses, each followed hop by hop to where it ends. */
export function TraceScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <SectionTabs site={site} tab="trace" />
      <Tracing site={site} />
    </Screen>
  );
}

function Tracing({ site }: { site: Site }) {
  const [of] = useAddressState("of");
  const [shown, setShown] = useState<"all" | "faults">("all");
  const work = useWork<"POST /sites/:site/routes/trace">();
  const form = useSavedForm({
    values: { addresses: of, outside: "yes" },
    save: (typed) =>
      startJob("POST /sites/:site/routes/trace", {
        site: site.id,
        body: { addresses: entriesOf(typed.addresses, /\n/), outside: typed.outside === "yes" },
      }),
    onSaved: (job) => work.start(() => Promise.resolve(job)),
  });
  const lines = form
    .watch("addresses")
    .split("\n")
    .filter((line) => line.trim() !== "").length;
  const results = work.result?.results ?? [];
  const faults = results.filter(({ verdict }) => !isGood(verdict));
  return (
    <div className="grid items-start gap-6 grid-cols-[minmax(0,1fr)] lg:grid-cols-[24rem_minmax(0,1fr)]">
      <Form of={form} className="grid gap-2">
        <AreaField
          name="addresses"
          label={say.addressesOneALine}
          mono
          rows={10}
          autoFocus
          placeholder={say.reviewHarbourHttpsShopExampleItem}
          onKeyDown={(event) => {
            if (event.key === "Enter" && (event.ctrlKey || event.metaKey)) form.submit();
          }}
        />
        <div className="flex flex-wrap items-center gap-2">
          <SaveButton of={form} disabled={lines === 0 || work.state === "running"}>
            {say.trace(lines > 1 ? count(lines) : say.it)}
          </SaveButton>
          <ChoiceField
            name="outside"
            label={say.outsideHosts}
            options={[
              { value: "yes", word: say.outsideToo },
              { value: "no", word: say.ourSiteOnly },
            ]}
          />
        </div>
        <p className="text-sm text-quiet">{say.ctrlAndEnterDoesTheSameOutside}</p>
      </Form>
      <section aria-label={say.ways} className="min-w-0">
        <WorkBar work={work} label={say.following} />
        {results.length > 0 ? (
          <div className="mb-2 flex flex-wrap items-center gap-3">
            <p aria-live="polite">
              <strong>{count(results.length - faults.length)}</strong> {say.inOrder}{" "}
              <strong className={faults.length > 0 ? "text-bad" : ""}>{faults.length}</strong> {say.toLookAt}
            </p>
            <Choice
              label={say.shown}
              value={shown}
              options={[
                { value: "all", word: say.all },
                { value: "faults", word: say.faultsOnly },
              ]}
              onChange={setShown}
            />
          </div>
        ) : null}
        {work.state === "idle" ? (
          <p className="py-16 text-center text-quiet">{say.pasteAddressesEachIsFollowedThroughOur}</p>
        ) : null}
        <ol className="grid gap-2">
          {(shown === "faults" ? faults : results).slice(0, 500).map((trace, index) => (
            <li key={`${index} ${trace.address}`} className="rounded border border-line bg-sheet p-2.5">
              <RedirectChain site={site} trace={trace} />
            </li>
          ))}
        </ol>
        {results.length > 500 ? (
          <p className="mt-2 text-sm text-quiet">
            {say.theFirst500AreShownInAll(
              Object.entries(countVerdicts(results))
                .map(([verdict, count]) => `${count} ${VERDICT_WORDS[verdict as Trace["verdict"]]}`)
                .join(", "),
            )}
          </p>
        ) : null}
      </section>
    </div>
  );
}

function countVerdicts(results: readonly Trace[]): Record<string, number> {
  const counts: Record<string, number> = {};
  for (const { verdict } of results) counts[verdict] = (counts[verdict] ?? 0) + 1;
  return counts;
}
