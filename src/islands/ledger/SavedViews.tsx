import { useMutation, useQuery } from "@tanstack/react-query";
import { Bookmark, X } from "lucide-react";
import type { LedgerView } from "../../core/ledger/ledger.ts";
import type { Site } from "../../core/sites/site.ts";
import { keepView } from "./keep-view.ts";
import { notify } from "../../ui/notices/notices.ts";
import { asking, refresh } from "../../ui/client/queries.ts";
import { api, messageOf } from "../../ui/client/api.ts";
import { later } from "../../ui/frame/later.tsx";
import { PopupButton } from "../../ui/panel/PopupButton.tsx";
import * as say from "./words.ts";

const KeepView = later(async () => (await import("./KeepView.tsx")).default);

/** Views of the ledger that were given a name; each is the screen's address as it stood. */
export function SavedViews({ site }: { site: Site }) {
  const views = useQuery(asking("GET /sites/:site/links/views", { site: site.id }));
  const onError = (error: unknown): void => notify(messageOf(error), { tone: "failed" });
  const remove = useMutation({
    mutationFn: ({ id }: LedgerView) => api("DELETE /sites/:site/links/views/:id", { site: site.id, id }),
    onSuccess: (_, view) => {
      void refresh("GET /sites/:site/links/views");
      notify(say.theViewIsGone(view.name), { undo: () => void keepView(site, view).catch(onError) });
    },
    onError,
  });
  const items = views.data?.items ?? [];
  return (
    <PopupButton label={say.savedViews} className="w-72 gap-2" sign={Bookmark} word={say.views}>
      {items.length === 0 ? (
        <p className="text-quiet">{say.noViewIsSavedYetNarrowThe}</p>
      ) : (
        <ul aria-label={say.savedViews}>
          {items.map((view) => (
            <li key={view.id} className="flex items-center gap-2">
              <a className="grow py-0.5 hover:underline" href={`?${view.query}`}>
                {view.name}
              </a>
              <button
                data-needs="editor"
                className="text-quiet hover:text-bad"
                aria-label={say.deleteTheView(view.name)}
                onClick={() => remove.mutate(view)}
              >
                <X size={14} aria-hidden />
              </button>
            </li>
          ))}
        </ul>
      )}
      <KeepView site={site} />
    </PopupButton>
  );
}
