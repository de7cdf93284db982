import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import type { Site } from "../../../core/objects/site.ts";
import { api, messageOf } from "../../../ui/api.ts";
import { tell } from "../../../ui/notices.ts";
import { refreshRoutes } from "../use-routes.ts";
import { setFilters, type RouteFilterState } from "../use-route-list.ts";
import { Retarget } from "./Retarget.tsx";
import { MarkedBar } from "../../../ui/table/MarkedBar.tsx";
import type { Selection } from "../../../ui/table/use-selection.ts";

/** What a change of many answered. */
export interface BulkAnswer {
  changed: number;
  batch: string | null;
  refused: { id: string; address: string; message: string }[];
  samples: { id: string; address: string; before: string; after: string }[];
}

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
  const run = (action: object): void => change.mutate({ ...select, action });
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

/** Changes many routes and offers the undo of all of them. */
export function useBulk(site: Site, onDone: () => void) {
  return useMutation({
    mutationFn: (body: object) => api<BulkAnswer>("POST", `/sites/${site.id}/routes/bulk`, body),
    onSuccess: (answer) => {
      onDone();
      refreshRoutes();
      const { changed, refused, batch } = answer;
      const left =
        refused.length > 0 ? `; ${refused.length} left: ${refused[0]!.address}: ${refused[0]!.message}` : "";
      tell(`Changed ${changed.toLocaleString("en-GB")} routes${left}`, {
        tone: changed === 0 && refused.length > 0 ? "failed" : "done",
        ...(batch ? { undo: () => void undo(site, batch) } : {}),
      });
    },
    onError: (error) => tell(messageOf(error), { tone: "failed" }),
  });
}

async function undo(site: Site, batch: string): Promise<void> {
  try {
    const { restored, left } = await api<{ restored: number; left: string[] }>(
      "POST",
      `/sites/${site.id}/routes/bulk/${batch}/undo`,
    );
    tell(
      left.length > 0
        ? `Put back ${restored}; ${left.join(", ")} changed since and stay as they are`
        : `Put back ${restored.toLocaleString("en-GB")} routes`,
    );
  } catch (error) {
    tell(messageOf(error), { tone: "failed" });
  }
  refreshRoutes();
}
