import type { WrittenBulk } from "../../../contract/routes/bulk.ts";
import { useState } from "react";
import type { Site } from "../../../core/sites/site.ts";
import { setFilters, type RouteFilterState } from "../use-route-list.ts";
import { Retarget } from "./Retarget.tsx";
import { MarkedBar } from "../../../ui/table/MarkedBar.tsx";
import type { Selection } from "../../../ui/table/use-selection.ts";
import { useBulk } from "./use-bulk.ts";

/** What can be done with the marked routes, all at once and undone as one. */
export function SelectionBar(props: {
  site: Site;
  selection: Selection;
  filter: RouteFilterState;
  total: number;
}) {
  const { site, selection, filter, total } = props;
  const [tag, setTag] = useState("");
  const [retargeting, setRetargeting] = useState(false);
  const select = selection.all ? { filter: setFilters(filter) } : { ids: [...selection.ids] };
  const change = useBulk(site, () => {
    selection.clear();
    setRetargeting(false);
  });
  const run = (action: WrittenBulk["action"]): void => change.mutate({ ...select, action });
  return (
    <MarkedBar
      label="Marked routes"
      selection={selection}
      total={total}
      actions={
        <>
          <form
            className="flex gap-1"
            onSubmit={(event) => {
              event.preventDefault();
              if (tag.trim()) run({ do: "tag", tag: tag.trim() });
            }}
          >
            <input
              aria-label="Tag"
              className="field w-32 py-0.5"
              placeholder="a tag"
              value={tag}
              onChange={(event) => setTag(event.target.value)}
            />
            <button className="action py-0.5" disabled={!tag.trim()}>
              Add tag
            </button>
            <button
              type="button"
              className="action py-0.5"
              disabled={!tag.trim()}
              onClick={() => run({ do: "untag", tag: tag.trim() })}
            >
              Take tag off
            </button>
          </form>
          <button
            className="action py-0.5"
            aria-expanded={retargeting}
            onClick={() => setRetargeting(!retargeting)}
          >
            Change destinations…
          </button>
          <button className="action py-0.5" onClick={() => run({ do: "switch", on: true })}>
            Switch on
          </button>
          <button className="action py-0.5" onClick={() => run({ do: "switch", on: false })}>
            Switch off
          </button>
          <button className="action py-0.5 text-bad" onClick={() => run({ do: "delete" })}>
            Delete
          </button>
        </>
      }
    >
      {retargeting ? (
        <Retarget
          site={site}
          select={select}
          busy={change.isPending}
          onRun={(find, replace) => run({ do: "retarget", find, replace })}
        />
      ) : null}
    </MarkedBar>
  );
}
