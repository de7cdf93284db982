import type { LinkAction, LinkBulkAnswer } from "../../../core/ledger/ledger.ts";
import type { Site } from "../../../core/sites/site.ts";
import type { Job } from "../../../contract/jobs.ts";
import { refreshLedger } from "../use-ledger.ts";
import { notify } from "../../../ui/notices/notices.ts";
import { api, startJob, messageOf } from "../../../ui/client/api.ts";
import { count } from "../../../ui/format/format.ts";

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
  { links, pages, routes, left: unchanged, batch }: LinkBulkAnswer,
): void {
  void refreshLedger();
  const parts = [
    links > 0 ? `${count(links)} links in ${count(pages)} places` : "",
    routes > 0 ? `${count(routes)} routes` : "",
  ].filter(Boolean);
  const left = unchanged > 0 ? `; ${unchanged} left as they are` : "";
  notify(`Changed ${parts.join(" and ") || "nothing"}${left}`, {
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
    notify(
      left.length > 0
        ? `Put back ${restored}; these stay as they are: ${left.join(", ")}`
        : "Put back as it was",
    );
  } catch (error) {
    notify(messageOf(error), { tone: "failed" });
  }
  void refreshLedger();
}
