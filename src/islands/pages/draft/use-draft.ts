import { useCallback, useEffect, useRef, useState, useSyncExternalStore } from "react";
import type { Page } from "../../../core/pages/page.ts";
import type { Site } from "../../../core/sites/site.ts";
import { api, JsonText, messageOf } from "../../../ui/client/api.ts";
import { refresh } from "../../../ui/client/queries.ts";
import { notify } from "../../../ui/notices/notices.ts";
import { dropBackup, writeBackup, type Backup } from "./backup.ts";
import { DraftMachine } from "./draft-machine.ts";
import type { AdoptedFrom, DraftView } from "./draft-view.ts";
import { useLeaving } from "./use-leaving.ts";
import { usePublishing } from "./use-publishing.ts";
import { useVisits } from "./use-visits.ts";
import { requestText } from "./written-change.ts";
import * as say from "../words.ts";

/** A draft being written: it saves itself, and publishes on request. */
export interface Draft extends DraftView, ReturnType<typeof usePublishing> {
  /** Others who have the page open. */
  others: readonly string[];
  edit: DraftMachine["edit"];
  saveNow: DraftMachine["saveNow"];
  /** Ends a conflict: goes on from the other's version, with one's own text over it or not. The other one is kept. */
  resolveConflict(keepMine: boolean): Promise<void>;
  adopt: DraftMachine["adopt"];
}

/** `adopted` is called with a page whose text replaces what stands in the editor. */
export function useDraft(
  site: Site,
  first: Page,
  recovered: Backup | undefined,
  adopted: (page: Page, from: AdoptedFrom) => void,
): Draft {
  const adopting = useRef(adopted);
  useEffect(() => {
    adopting.current = adopted;
  });
  const [machine] = useState(
    () =>
      new DraftMachine(first, recovered, {
        save: (change, version) =>
          api("PUT /sites/:site/pages/:id", {
            site: site.id,
            id: first.id,
            body: new JsonText(requestText(change, version)),
          }),
        keep: (backup) => void writeBackup(first.id, backup),
        forget: () => void dropBackup(first.id),
        adopted: (page, from) => adopting.current(page, from),
        wordsOf: messageOf,
        now: () => Date.now(),
        later(ms, work) {
          const timer = setTimeout(work, ms);
          return () => clearTimeout(timer);
        },
      }),
  );
  const view = useSyncExternalStore(machine.subscribe, machine.view);
  useEffect(() => {
    if (recovered && machine.recover(recovered, first) === "goes on")
      notify(say.restoredWhatThisBrowserHadNotBeen);
  }, [machine, recovered, first]);
  const { isAllSaved, backupNow, saveNow } = machine;
  useLeaving({ siteId: site.id, pageId: first.id, isAllSaved, backupNow, saveNow });
  const others = useVisits(site, first.id, machine);
  const publishing = usePublishing(site, machine);
  const resolveConflict = useCallback<Draft["resolveConflict"]>(
    async (keepMine) => {
      const { conflict } = machine.view();
      if (!conflict) return;
      const { placement: _placement, ...mine } = machine.unsaved();
      const { title, description, category, path, body } = conflict;
      // Neither is lost: the one that does not become the draft is kept among the page's versions.
      const stash = keepMine ? { title, description, category, path, body } : mine;
      try {
        await api("POST /sites/:site/pages/:id/aside", { site: site.id, id: first.id, body: stash });
      } catch (error) {
        notify(messageOf(error), { tone: "failed" });
        return;
      }
      void refresh("GET /sites/:site/pages/:id/revisions");
      machine.resolve(conflict, keepMine);
    },
    [machine, site.id, first.id],
  );
  return {
    ...view,
    ...publishing,
    others,
    edit: machine.edit,
    saveNow,
    resolveConflict,
    adopt: machine.adopt,
  };
}
