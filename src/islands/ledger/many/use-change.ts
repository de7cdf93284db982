import type { LinkAction, LinkBulkAnswer } from "../../../core/ledger/ledger.ts";
import type { Site } from "../../../core/sites/site.ts";
import { api, AS_JOB, messageOf, queries } from "../../../ui/client/api.ts";
import { notify } from "../../../ui/notices/notices.ts";

/** Which links, and what is to become of them. */
export interface Change {
  select: { ids: string[] } | { filter: Record<string, string> } | Record<string, never>;
  action: LinkAction;
  published: boolean;
  routes: boolean;
}

/** Asks for the change, or for its preview, as a job. */
export function askChange(site: Site, { select, ...change }: Change, dryRun: boolean): Promise<unknown> {
  return api("POST", `/sites/${site.id}/links/bulk`, { ...select, ...change, dryRun }, AS_JOB);
}

/** Tells what a change came to, with the undo of all of it. */
export function tellChanged(
  site: Site,
  { links, pages, routes, left: unchanged, batch }: LinkBulkAnswer,
): void {
  void queries.invalidateQueries({ queryKey: ["links", site.id] });
  const parts = [
    links > 0 ? `${links.toLocaleString("en-GB")} links in ${pages.toLocaleString("en-GB")} places` : "",
    routes > 0 ? `${routes.toLocaleString("en-GB")} routes` : "",
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
    const { restored, left } = await api<{ restored: number; left: string[] }>("POST", `/sites/${site.id}/links/bulk/${batch}/undo`); // prettier-ignore
    notify(
      left.length > 0
        ? `Put back ${restored}; these stay as they are: ${left.join(", ")}`
        : "Put back as it was",
    );
  } catch (error) {
    notify(messageOf(error), { tone: "failed" });
  }
  void queries.invalidateQueries({ queryKey: ["links", site.id] });
}
