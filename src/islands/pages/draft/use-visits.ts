import { useEffect, useState } from "react";
import type { Site } from "../../../core/sites/site.ts";
import { api } from "../../../ui/client/api.ts";
import { notify } from "../../../ui/notices/notices.ts";
import type { DraftMachine } from "./draft-machine.ts";
import * as say from "../words.ts";

const VISIT_MS = 4_000;

/** Who else has the page open; what they save is shown, as long as nothing is being written here. */
export function useVisits(site: Site, pageId: string, machine: DraftMachine): readonly string[] {
  const [others, setOthers] = useState<readonly string[]>([]);
  useEffect(() => {
    const tab = crypto.randomUUID();
    const at = { site: site.id, id: pageId };
    const visit = async (): Promise<void> => {
      if (document.visibilityState === "hidden") return;
      const known = machine.version;
      const isUntouched = (): boolean => machine.isIdle && machine.version === known;
      const there = await api("POST /sites/:site/pages/:id/visit", { ...at, body: { tab } });
      setOthers((before) => (before.join() === there.others.join() ? before : there.others));
      await machine.settled();
      if (there.version <= known || !isUntouched()) return;
      const theirs = await api("GET /sites/:site/pages/:id", at);
      if (!isUntouched()) return;
      machine.adopt(theirs);
      const who = theirs.updatedBy === document.documentElement.dataset.person ? say.you : theirs.updatedBy;
      notify(say.savedThisPageInAnotherWindowWhat(who));
    };
    const asking = (): void => void visit().catch(() => setOthers([])); // away: saving tells of it
    asking();
    const every = setInterval(asking, VISIT_MS);
    return () => clearInterval(every);
  }, [site.id, pageId, machine]);
  return others;
}
