import type { LinkAction, LinkBulkAnswer } from "../../../core/ledger/ledger.ts";
import type { Site } from "../../../core/sites/site.ts";
import type { Job } from "../../../contract/jobs.ts";
import { refreshLedger } from "../use-ledger.ts";
import { notify } from "../../../ui/notices/notices.ts";
import { api, startJob, messageOf } from "../../../ui/client/api.ts";
import { count } from "../../../ui/format/format.ts";
import * as say from "../words.ts";

/** Which links, and what is to become of them. */
export interface Change {
  select: { ids: string[] } | { filter: Record<string, string> } | Record<string, never>;
  action: LinkAction;
  published: boolean;
  routes: boolean;
}

/** Asks for the change, or for its preview, as a job. */
export function askChange(site: Site, { select, ...change }: Change, dryRun: boolean): Promise<Job> {
  return startJob("POST /sites/:site/links/bulk", { site: site.id, body: { ...select, ...change, dryRun } });
}

/** Tells what a change came to, with the undo of all of it. */
export function tellChanged(
  site: Site,
  { links, pages, routes, elsewhere, left: unchanged, batch }: LinkBulkAnswer,
): void {
  void refreshLedger();
  const parts = [
    links > 0 ? say.linksInPlaces(count(links), count(pages)) : "",
    routes > 0 ? say.routes2(count(routes)) : "",
  ].filter(Boolean);
  const left = unchanged > 0 ? say.leftAsTheyAre(unchanged) : "";
  const there = elsewhere > 0 ? say.onTheListToDoThere(count(elsewhere)) : "";
  const changed =
    parts.length > 0 || there === "" ? say.changed(parts.join(" and ") || say.nothing, left) : "";
  notify([changed, there].filter(Boolean).join(". "), {
    tone: batch === null ? "failed" : "done",
    ...(batch === null ? {} : { undo: () => void undoChange(site, batch) }),
  });
}

/** Puts a change of many back, and tells what was left. */
export async function undoChange(site: Site, batch: string): Promise<void> {
  try {
    const { restored, left } = await api("POST /sites/:site/links/bulk/:id/undo", {
      site: site.id,
      id: batch,
    });
    notify(left.length > 0 ? say.putBackTheseStayAsTheyAre(restored, left.join(", ")) : say.putBackAsItWas);
  } catch (error) {
    notify(messageOf(error), { tone: "failed" });
  }
  void refreshLedger();
}
