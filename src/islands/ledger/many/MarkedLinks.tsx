import { X } from "lucide-react";
import { useState } from "react";
import type { Site } from "../../../core/objects/site.ts";
import type { Selection } from "../../../ui/table/use-selection.ts";
import type { LedgerAsked } from "../use-ledger.ts";
import { ChangeMany } from "./ChangeMany.tsx";

const WAYS = [
  ["override", "Set tab and rel by hand"],
  ["clear-overrides", "Give back to the rules"],
  ["destination", "Replace a destination"],
  ["host", "Replace a host"],
  ["parameter", "Change a parameter"],
  ["shorten", "Make short links of them"],
] as const;
export type Way = (typeof WAYS)[number][0];

/** What can be done with the marked links, all at once and undone as one. */
export function MarkedLinks(props: { site: Site; selection: Selection; asked: LedgerAsked; total: number }) {
  const { site, selection, asked, total } = props;
  const [way, setWay] = useState<Way>();
  const marked = selection.all ? total : selection.ids.size;
  if (marked === 0) return null;
  const select = selection.all ? { filter: asked } : { ids: [...selection.ids] };
  return (
    <section
      aria-label="Marked links"
      className="sticky bottom-3 z-20 mt-3 grid gap-2 rounded border border-accent bg-sheet p-2.5 shadow-lg"
      onKeyDown={(event) => event.key === "Escape" && (way ? setWay(undefined) : selection.clear())}
    >
      <div className="flex flex-wrap items-center gap-2">
        <strong>{marked.toLocaleString("en-GB")} marked</strong>
        {!selection.all && total > selection.ids.size ? (
          <button className="text-sm text-accent underline" onClick={() => selection.takeAll()}>
            mark all {total.toLocaleString("en-GB")}
          </button>
        ) : null}
        {WAYS.map(([key, word]) => (
          <button
            key={key}
            className={`action py-0.5 ${way === key ? "border-accent bg-wash" : ""}`}
            aria-expanded={way === key}
            onClick={() => setWay(way === key ? undefined : key)}
          >
            {word}
          </button>
        ))}
        <button
          className="ml-auto text-quiet hover:text-ink"
          aria-label="Unmark all"
          onClick={() => selection.clear()}
        >
          <X size={16} aria-hidden />
        </button>
      </div>
      {way ? (
        <ChangeMany
          key={way}
          site={site}
          way={way}
          select={select as never}
          onDone={() => {
            setWay(undefined);
            selection.clear();
          }}
        />
      ) : null}
    </section>
  );
}
