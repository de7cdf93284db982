import type { ClicksAnswer } from "../../core/clicks/clicks.ts";
import { count } from "../../ui/format/format.ts";
import * as say from "./words.ts";

/** The routes that were used most in these days; one is picked to see its clicks alone. */
export function MostUsed(props: {
  rows: ClicksAnswer | undefined;
  routeId: string;
  onPick: (id: string) => void;
}) {
  const { rows, routeId, onPick } = props;
  return (
    <section aria-labelledby="routes">
      <h2 id="routes" className="mb-1 font-semibold">
        {say.mostUsed}
      </h2>
      {rows?.items.length === 0 ? <p className="text-quiet">{say.noRouteHasBeenUsedInThese}</p> : null}
      <ol>
        {rows?.items.slice(0, 20).map((row) => (
          <li key={row.key} className="border-b border-line/60">
            <button
              aria-pressed={row.key === routeId}
              className={`flex w-full items-baseline gap-2 px-1 py-1 text-left ${row.key === routeId ? "bg-wash" : "hover:bg-sheet"}`}
              onClick={() => onPick(row.key)}
            >
              <span className="truncate font-mono text-[0.86em]">{row.label}</span>
              <span className="ml-auto tabular-nums">{count(row.clicks)}</span>
            </button>
          </li>
        ))}
      </ol>
    </section>
  );
}
