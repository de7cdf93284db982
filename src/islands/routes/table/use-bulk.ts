import type { Site } from "../../../core/sites/site.ts";
import { useMutation } from "@tanstack/react-query";
import { api, messageOf } from "../../../ui/client/api.ts";
import { refreshRoutes } from "../use-routes.ts";
import { notify } from "../../../ui/notices/notices.ts";

/** What a change of many answered. */
export interface BulkAnswer {
  changed: number;
  batch: string | null;
  refused: { id: string; address: string; message: string }[];
  samples: { id: string; address: string; before: string; after: string }[];
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
      notify(`Changed ${changed.toLocaleString("en-GB")} routes${left}`, {
        tone: changed === 0 && refused.length > 0 ? "failed" : "done",
        ...(batch ? { undo: () => void undo(site, batch) } : {}),
      });
    },
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
}
export async function undo(site: Site, batch: string): Promise<void> {
  try {
    const { restored, left } = await api<{ restored: number; left: string[] }>(
      "POST",
      `/sites/${site.id}/routes/bulk/${batch}/undo`,
    );
    notify(
      left.length > 0
        ? `Put back ${restored}; ${left.join(", ")} changed since and stay as they are`
        : `Put back ${restored.toLocaleString("en-GB")} routes`,
    );
  } catch (error) {
    notify(messageOf(error), { tone: "failed" });
  }
  refreshRoutes();
}
