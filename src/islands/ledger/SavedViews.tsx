import { useMutation, useQuery } from "@tanstack/react-query";
import { Bookmark, X } from "lucide-react";
import { Popover } from "radix-ui";
import { useState } from "react";
import type { LedgerView } from "../../core/ledger/ledger.ts";
import type { Site } from "../../core/sites/site.ts";
import { notify } from "../../ui/notices/notices.ts";
import { asking, refresh } from "../../ui/client/queries.ts";
import { api, messageOf } from "../../ui/client/api.ts";

/** Views of the ledger that were given a name; each is the screen's address as it stood. */
export function SavedViews({ site }: { site: Site }) {
  const [name, setName] = useState("");
  const views = useQuery(asking("GET /sites/:site/links/views", { site: site.id }));
  const refreshViews = (): void => void refresh("GET /sites/:site/links/views");
  const onError = (error: unknown): void => notify(messageOf(error), { tone: "failed" });
  const save = useMutation({
    mutationFn: (view: { name: string; query: string }) =>
      api("POST /sites/:site/links/views", { site: site.id, body: view }),
    onSuccess: (_, { name: saved }) => {
      setName("");
      refreshViews();
      notify(`This view is kept as “${saved}”`);
    },
    onError,
  });
  const remove = useMutation({
    mutationFn: ({ id }: LedgerView) => api("DELETE /sites/:site/links/views/:id", { site: site.id, id }),
    onSuccess: (_, view) => {
      refreshViews();
      notify(`The view “${view.name}” is gone`, { undo: () => save.mutate(view) });
    },
    onError,
  });
  const items = views.data?.items ?? [];
  return (
    <Popover.Root>
      <Popover.Trigger className="action py-1 text-sm">
        <Bookmark size={14} aria-hidden /> Views
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          className="z-40 grid w-72 gap-2 rounded border border-line bg-sheet p-3 text-sm shadow-xl"
        >
          {items.length === 0 ? (
            <p className="text-quiet">No view is kept yet. Narrow the ledger, then give it a name here.</p>
          ) : (
            <ul aria-label="Kept views">
              {items.map((view) => (
                <li key={view.id} className="flex items-center gap-2">
                  <a className="grow py-0.5 hover:underline" href={`?${view.query}`}>
                    {view.name}
                  </a>
                  <button
                    className="text-quiet hover:text-bad"
                    aria-label={`Take the view ${view.name} away`}
                    onClick={() => remove.mutate(view)}
                  >
                    <X size={14} aria-hidden />
                  </button>
                </li>
              ))}
            </ul>
          )}
          <form
            className="flex gap-1 border-t border-line pt-2"
            onSubmit={(event) => {
              event.preventDefault();
              const query = new URLSearchParams(location.search);
              query.delete("open");
              save.mutate({ name, query: query.toString() });
            }}
          >
            <input
              aria-label="Name for this view"
              className="field py-0.5"
              placeholder="name for this view"
              value={name}
              onChange={(event) => setName(event.target.value)}
            />
            <button className="action py-0.5" disabled={!name.trim() || save.isPending}>
              Keep
            </button>
          </form>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
