import { X } from "lucide-react";
import { useEffect, useRef, type ReactNode } from "react";
import type { Selection } from "./use-selection.ts";
import { count } from "../format/format.ts";
import * as say from "../words.ts";

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
  const isShown = marked > 0;
  // Notices stand above the bar: what can be done with the marked is never covered.
  const bar = useRef<HTMLElement>(null);
  useEffect(() => {
    if (!bar.current) return undefined;
    const root = document.documentElement.style;
    const observer = new ResizeObserver(([entry]) =>
      root.setProperty("--marked-bar", `${Math.ceil(entry!.target.clientHeight)}px`),
    );
    observer.observe(bar.current);
    return () => {
      observer.disconnect();
      root.removeProperty("--marked-bar");
    };
  }, [isShown]);
  if (!isShown) return null;
  return (
    <section
      ref={bar}
      data-needs="editor"
      aria-label={label}
      className="sticky bottom-3 z-20 mt-3 grid gap-2 rounded border border-accent bg-sheet p-2.5 shadow-lg"
      onKeyDown={(event) => event.key === "Escape" && !props.onEscape?.() && selection.clear()}
    >
      <div className="flex flex-wrap items-center gap-2">
        <strong>{say.marked(count(marked))}</strong>
        {!selection.all && total > selection.ids.size ? (
          <button className="text-sm text-accent underline" onClick={() => selection.takeAll()}>
            {say.markAll(count(total))}
          </button>
        ) : null}
        {props.actions}
        <button
          className="ml-auto text-quiet hover:text-ink"
          aria-label={say.unmarkAll}
          onClick={() => selection.clear()}
        >
          <X size={16} aria-hidden />
        </button>
      </div>
      {props.children}
    </section>
  );
}
