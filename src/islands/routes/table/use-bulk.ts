import type { WrittenBulk } from "../../../contract/routes/bulk.ts";
import type { Site } from "../../../core/sites/site.ts";
import { useMutation } from "@tanstack/react-query";
import { refreshRoutes } from "../use-routes.ts";
import { notify } from "../../../ui/notices/notices.ts";
import { api, messageOf } from "../../../ui/client/api.ts";

/** Changes many routes and offers the undo of all of them. */
export function useBulk(site: Site, onDone: () => void) {
  return useMutation({
    mutationFn: (body: WrittenBulk) => api("POST /sites/:site/routes/bulk", { site: site.id, body }),
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

async function undo(site: Site, batch: string): Promise<void> {
  try {
    const { restored, left } = await api("POST /sites/:site/routes/bulk/:id/undo", {
      site: site.id,
      id: batch,
    });
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
