import { useMemo, useState } from "react";
import type { Site } from "../../core/sites/site.ts";
import type { Trace } from "../../core/trace/trace.ts";
import { Choice } from "../../ui/fields/Choice.tsx";
import { useWork } from "../../ui/notices/job.ts";
import { SectionTabs } from "../../ui/frame/SectionTabs.tsx";
import { Screen } from "../../ui/frame/Screen.tsx";
import { useAddressState } from "../../ui/client/url-state.ts";
import { WorkBar } from "../../ui/notices/WorkBar.tsx";
import { RedirectChain } from "./RedirectChain.tsx";
import { isGood, VERDICT_WORDS } from "./verdict-words.ts";
import { startJob } from "../../ui/client/api.ts";

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
  const [text, setText] = useState(of);
  const [outside, setOutside] = useState<"yes" | "no">("yes");
  const [shown, setShown] = useState<"all" | "faults">("all");
  const work = useWork<"POST /sites/:site/routes/trace">();
  const addresses = useMemo(
    () =>
      text
        .split("\n")
        .map((line) => line.trim())
        .filter(Boolean),
    [text],
  );
  const run = (): void => {
    if (addresses.length === 0) return;
    work.start(() =>
      startJob("POST /sites/:site/routes/trace", {
        site: site.id,
        body: { addresses, outside: outside === "yes" },
      }),
    );
  };
  const results = work.result?.results ?? [];
  const faults = results.filter(({ verdict }) => !isGood(verdict));
  return (
    <div className="grid items-start gap-6 lg:grid-cols-[24rem_minmax(0,1fr)]">
      <form
        className="grid gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          run();
        }}
      >
        <label htmlFor="trace-addresses" className="text-sm font-medium">
          Addresses, one a line
        </label>
        <textarea
          id="trace-addresses"
          className="field font-mono text-sm"
          rows={10}
          autoFocus
          placeholder={"/review-harbour\nhttps://shop.example/item?partner=…"}
          value={text}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === "Enter" && (event.ctrlKey || event.metaKey)) run();
          }}
        />
        <div className="flex flex-wrap items-center gap-2">
          <button
            className="action action-main"
            disabled={addresses.length === 0 || work.state === "running"}
          >
            Trace {addresses.length > 1 ? addresses.length.toLocaleString("en-GB") : "it"}
          </button>
          <Choice
            label="Outside hosts"
            value={outside}
            options={[
              { value: "yes", word: "Outside too" },
              { value: "no", word: "Our site only" },
            ]}
            onChange={setOutside}
          />
        </div>
        <p className="text-sm text-quiet">
          Ctrl and Enter does the same. Outside hosts are asked once each, from here.
        </p>
      </form>
      <section aria-label="Ways" className="min-w-0">
        <WorkBar work={work} label="Following" />
        {results.length > 0 ? (
          <div className="mb-2 flex flex-wrap items-center gap-3">
            <p aria-live="polite">
              <strong>{(results.length - faults.length).toLocaleString("en-GB")}</strong> in order,{" "}
              <strong className={faults.length > 0 ? "text-bad" : ""}>{faults.length}</strong> to look at
            </p>
            <Choice
              label="Shown"
              value={shown}
              options={[
                { value: "all", word: "All" },
                { value: "faults", word: "Faults only" },
              ]}
              onChange={setShown}
            />
          </div>
        ) : null}
        {work.state === "idle" ? (
          <p className="py-16 text-center text-quiet">
            Paste addresses: each is followed through our routes as readers are answered now, and then
            outside, with every hop, who answered it, and whether the tracking arrives.
          </p>
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
            The first 500 are shown;{" "}
            {Object.entries(countVerdicts(results))
              .map(([verdict, count]) => `${count} ${VERDICT_WORDS[verdict as Trace["verdict"]]}`)
              .join(", ")}{" "}
            in all.
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
