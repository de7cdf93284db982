import { useQuery } from "@tanstack/react-query";
import type { FrontState } from "../../../core/origin/origin.ts";
import type { Site } from "../../../core/sites/site.ts";
import { messageOf } from "../../../ui/client/api.ts";
import { asking } from "../../../ui/client/queries.ts";
import { count } from "../../../ui/format/format.ts";
import { counted } from "../../../ui/format/counted.ts";
import { Screen } from "../../../ui/frame/Screen.tsx";
import { SectionTabs } from "../../../ui/frame/SectionTabs.tsx";
import { AddressText } from "../../../ui/links/AddressText.tsx";
import { DataTable, type Column } from "../../../ui/table/DataTable.tsx";
import { Attributes } from "../Attributes.tsx";
import { NoOrigin } from "../NoOrigin.tsx";
import { FrontCheck } from "./FrontCheck.tsx";
import { FrameForm } from "./FrameForm.tsx";
import { FrontForm } from "./FrontForm.tsx";
import { WithAndWithout } from "./WithAndWithout.tsx";
import * as say from "../words.ts";

/** Whether readers get the pages through us, what is done with them on the way, and what came of it. */
export function FrontScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <SectionTabs site={site} tab="origin/front" />
      {site.origin === null ? <NoOrigin site={site} /> : <Front site={site} />}
    </Screen>
  );
}

function Front({ site }: { site: Site }) {
  const front = useQuery({
    ...asking("GET /sites/:site/origin/front", { site: site.id }),
    refetchInterval: 6_000,
  });
  if (front.isError) return <p className="text-bad">{messageOf(front.error)}</p>;
  if (!front.data) return null;
  const { comes, passes, only, here } = front.data;
  return (
    <div className="grid items-start gap-x-8 gap-y-6 grid-cols-[minmax(0,1fr)] lg:grid-cols-[24rem_minmax(0,1fr)]">
      <div className="grid gap-6 grid-cols-[minmax(0,1fr)]">
        <FrontForm key={JSON.stringify([comes, passes, only, here])} site={site} front={front.data} />
        <FrontCheck site={site} />
        {comes === "front" ? <WithAndWithout site={site} /> : null}
      </div>
      <Passed front={front.data} />
      {comes === "front" ? (
        <div className="min-w-0 lg:col-span-2">
          <FrameForm key={JSON.stringify(front.data.frame)} site={site} front={front.data} />
        </div>
      ) : null}
    </div>
  );
}

function Passed({ front }: { front: FrontState }) {
  const { counts, samples, comes, passes } = front;
  if (comes === "read" && counts.passed === 0)
    return (
      <p className="rounded border border-dashed border-line p-8 text-center text-quiet">
        {say.nothingPassedYet}
      </p>
    );
  const isOn = comes === "front" && passes === "on";
  return (
    <section aria-label={say.whatPassed} className="grid min-w-0 gap-3">
      <h2 className="font-semibold">{say.whatPassed}</h2>
      <p>
        {say.passedOf(counted(counts.passed, ...say.ofRequests), counted(counts.pages, ...say.ofPages))}{" "}
        {(isOn ? say.wereChanged : say.wouldBeChanged)(
          counted(counts.changedLinks, ...say.ofLinks),
          count(counts.links),
          counted(counts.changedPages, ...say.ofPages),
        )}
        {counts.misses > 0 ? ` ${say.missesOf(counted(counts.misses, ...say.ofMisses))}` : ""}
        {counts.failures > 0 ? (
          <span className="text-bad"> {say.failuresOf(counted(counts.failures, ...say.ofRequests))}</span>
        ) : null}
      </p>
      {samples.length > 0 ? (
        <DataTable
          label={say.samples}
          rows={samples}
          columns={isOn ? CHANGED : WOULD_BE}
          keyOf={({ page, words, before }) => `${page} ${words} ${before.href}`}
          rowClass={() => "align-top"}
        />
      ) : null}
    </section>
  );
}

const columnsOf = (after: string): readonly Column<FrontState["samples"][number]>[] => [
  {
    key: "page",
    word: say.page,
    head: true,
    cell: ({ page }) => <span className="font-mono text-[0.9em] wrap-anywhere">{page}</span>,
  },
  {
    key: "words",
    word: say.link,
    cell: ({ words, before }) => (
      <>
        {words}
        <span className="block text-sm text-quiet">
          <AddressText address={before.href} most={40} />
        </span>
      </>
    ),
  },
  { key: "before", word: say.asItIs, cell: ({ before, after }) => <Attributes of={before} other={after} /> },
  {
    key: "after",
    word: after,
    cell: (sample) => <Attributes of={sample.after} other={sample.before} />,
  },
];
const CHANGED = columnsOf(say.asReadersGetIt);
const WOULD_BE = columnsOf(say.asItWouldBe);
