import { arrayMove } from "@dnd-kit/sortable";
import { Plus } from "lucide-react";
import { useState } from "react";
import { swapSentence } from "../../../core/rules/swaps/sentence.ts";
import type { Site } from "../../../core/sites/site.ts";
import { SortedList } from "../../../ui/fields/SortedList.tsx";
import { later } from "../../../ui/frame/later.tsx";
import { Screen } from "../../../ui/frame/Screen.tsx";
import { SectionTabs } from "../../../ui/frame/SectionTabs.tsx";
import { EarlierSwaps } from "./EarlierSwaps.tsx";
import { SwapRow } from "./SwapRow.tsx";
import { TriedSwaps, useTriedSwaps } from "./TriedSwaps.tsx";
import { useSwaps, workedSwap, type WorkingSwaps } from "./use-swaps.ts";
import * as say from "./words.ts";

const SwapForm = later(async () => (await import("./SwapForm.tsx")).SwapForm);
const NEW = "new";

/** What readers get in place of addresses in pages, and beside it what that changes. */
export function SwapsScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <SectionTabs site={site} tab="rules/swaps" />
      <Swaps site={site} />
    </Screen>
  );
}

function Swaps({ site }: { site: Site }) {
  const set = useSwaps(site);
  const tried = useTriedSwaps(site, set.inForce && set.swaps.map(({ swap }) => swap));
  const [open, setOpen] = useState<string>();
  if (set.failure) return <p className="text-bad">{set.failure}</p>;
  if (!set.inForce) return <p className="text-quiet">{say.fetching}</p>;
  const { swaps } = set;
  const counts = tried.data?.changes.length === swaps.length ? tried.data.changes : undefined;
  return (
    <div className="grid grow items-start gap-6 grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_minmax(20rem,30rem)]">
      <div className="min-w-0">
        <p className="mb-3 max-w-3xl text-quiet">{say.whatSwapsAre}</p>
        <Applying set={set} />
        {swaps.length === 0 && open !== NEW ? (
          <p className="rounded border border-dashed border-line px-4 py-8 text-center text-quiet">
            {say.noSwapsYet}
          </p>
        ) : null}
        <SortedList
          ids={swaps.map(({ key }) => key)}
          nameOf={(key) => {
            const one = swaps.find((other) => other.key === key);
            return one ? swapSentence(one.swap) : "";
          }}
          onDrop={({ from, to }) => from !== to && set.edit(arrayMove([...swaps], from, to))}
        >
          <ol aria-label={say.swapsInTheirOrder} className="relative">
            {swaps.map((one, index) => (
              <SwapRow
                key={one.key}
                worked={one}
                place={index + 1}
                changes={counts?.[index]}
                isOpen={open === one.key}
                onOpen={(isOpen) => setOpen(isOpen ? one.key : undefined)}
                onChange={(swap) =>
                  set.edit(swaps.map((other) => (other === one ? { ...one, swap } : other)))
                }
                onRemove={() => set.edit(swaps.filter((other) => other !== one))}
              />
            ))}
          </ol>
        </SortedList>
        {open === NEW ? (
          <SwapForm
            swap={undefined}
            onTake={(swap) => {
              set.edit([...swaps, workedSwap(swap)]);
              setOpen(undefined);
            }}
            onClose={() => setOpen(undefined)}
          />
        ) : (
          <button data-needs="editor" className="action mt-3" onClick={() => setOpen(NEW)}>
            <Plus size={15} aria-hidden /> {say.newSwap}
          </button>
        )}
        <EarlierSwaps site={site} version={set.inForce.version} />
      </div>
      <TriedSwaps site={site} of={tried} />
    </div>
  );
}

function Applying({ set }: { set: WorkingSwaps }) {
  const { version } = set.inForce!;
  return (
    <div className="mb-3 grid gap-2">
      <div
        className={`flex flex-wrap items-center gap-2 rounded border px-3 py-2 ${set.isChanged ? "border-accent bg-wash" : "border-line bg-sheet"}`}
      >
        <p className="grow" aria-live="polite">
          {set.isChanged ? (
            <>
              <strong>{say.notInForceYet}</strong> {say.workingOver(set.base)} {say.kept}
            </>
          ) : version === 0 ? (
            say.noneInForce
          ) : (
            say.setIsInForce(version)
          )}
        </p>
        {set.isChanged ? (
          <>
            <button data-needs="editor" className="action action-plain" onClick={set.discard}>
              {say.discard}
            </button>
            <button
              data-needs="editor"
              className="action action-main"
              disabled={set.isApplying || set.isOvertaken}
              onClick={set.apply}
            >
              {say.applyNow}
            </button>
          </>
        ) : null}
      </div>
      {set.isOvertaken ? (
        <p role="alert" className="rounded border border-warn px-3 py-2 text-warn">
          {say.overtaken(version)}{" "}
          <button className="underline" onClick={set.rebase}>
            {say.goOnOver(version)}
          </button>
        </p>
      ) : null}
    </div>
  );
}
