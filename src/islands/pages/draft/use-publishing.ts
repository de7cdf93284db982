import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import type { Page } from "../../../core/pages/page.ts";
import type { Site } from "../../../core/sites/site.ts";
import { api, ApiProblem, messageOf } from "../../../ui/client/api.ts";
import { refresh } from "../../../ui/client/queries.ts";
import { notify } from "../../../ui/notices/notices.ts";
import type { LeftPath } from "../LeftBehind.tsx";
import type { DraftMachine } from "./draft-machine.ts";
import * as say from "../words.ts";

/** Lets readers have the draft, or takes the page back from them; and tells which path is answered by nothing since. */
export function usePublishing(site: Site, machine: DraftMachine) {
  const [left, setLeft] = useState<LeftPath>();
  const at = (): { site: string; id: string; body: { version: number } } => ({
    site: site.id,
    id: machine.view().page.id,
    body: { version: machine.version },
  });
  // A path that readers knew may be answered by nothing now.
  const show = (after: Page): void => {
    const [was, is] = [pathOf(machine.view().page), pathOf(after)];
    if (was !== null && was !== is) setLeft({ path: was, now: is });
    machine.showPage(after);
    void refresh("GET /sites/:site/pages");
  };
  const publishing = useMutation({
    mutationFn: async () => {
      if (!(await machine.saveNow())) throw new Error(say.notSaved);
      return api("POST /sites/:site/pages/:id/publish", at());
    },
    onSuccess: (published) => {
      show(published);
      void refresh("GET /sites/:site/pages/:id/revisions");
      notify(say.published(published.title));
    },
    onError: (error) => {
      if (error instanceof ApiProblem) machine.showRefusal(error);
    },
  });
  const taking = useMutation({
    mutationFn: () => {
      machine.showSaved();
      return api("POST /sites/:site/pages/:id/unpublish", at());
    },
    onSuccess: (taken) => {
      show(taken);
      notify(say.unpublished(taken.title));
    },
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
  return {
    left,
    forgetLeft: () => setLeft(undefined),
    unpublish: () => taking.mutate(),
    publish: () => publishing.mutate(),
    publishing: publishing.isPending,
  };
}

function pathOf({ status, kind, url }: Page): string | null {
  return status === "published" && kind === "page" ? new URL(url).pathname : null;
}
