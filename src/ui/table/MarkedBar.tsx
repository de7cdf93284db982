import { X } from "lucide-react";
import type { ReactNode } from "react";
import type { Selection } from "./use-selection.ts";

/** The bar at the end of a table with marked rows: how many, what can be done with them, and what that asks for. */
export function MarkedBar(props: {
  /** What is marked, as “Marked links”. */
  label: string;
  selection: Selection;
  /** How many rows there are in all, shown or not. */
  total: number;
  actions: ReactNode;
  /** Escape closes what is open below the actions first; answers whether there was anything. */
  onEscape?: () => boolean;
  children?: ReactNode;
}) {
  const { label, selection, total } = props;
  const marked = selection.all ? total : selection.ids.size;
  if (marked === 0) return null;
  return (
    <section
      aria-label={label}
      className="sticky bottom-3 z-20 mt-3 grid gap-2 rounded border border-accent bg-sheet p-2.5 shadow-lg"
      onKeyDown={(event) => event.key === "Escape" && !props.onEscape?.() && selection.clear()}
    >
      <div className="flex flex-wrap items-center gap-2">
        <strong>{marked.toLocaleString("en-GB")} marked</strong>
        {!selection.all && total > selection.ids.size ? (
          <button className="text-sm text-accent underline" onClick={() => selection.takeAll()}>
            mark all {total.toLocaleString("en-GB")}
          </button>
        ) : null}
        {props.actions}
        <button
          className="ml-auto text-quiet hover:text-ink"
          aria-label="Unmark all"
          onClick={() => selection.clear()}
        >
          <X size={16} aria-hidden />
        </button>
      </div>
      {props.children}
    </section>
  );
}
