import type { WrittenBulk } from "../../../contract/routes/bulk.ts";
import type { Site } from "../../../core/sites/site.ts";
import { useMutation } from "@tanstack/react-query";
import { refreshRoutes } from "../use-routes.ts";
import { notify } from "../../../ui/notices/notices.ts";
import { outcomeOf } from "../../../ui/notices/job.ts";
import { api, messageOf, startJob } from "../../../ui/client/api.ts";
import { count } from "../../../ui/format/format.ts";
import * as say from "../words.ts";

/** Changes many routes and offers the undo of all of them. */
export function useBulk(site: Site, onDone: () => void) {
  return useMutation({
    mutationFn: (body: WrittenBulk) =>
      outcomeOf<"POST /sites/:site/routes/bulk">(() =>
        startJob("POST /sites/:site/routes/bulk", { site: site.id, body }),
      ),
    onSuccess: (answer) => {
      onDone();
      refreshRoutes();
      const { changed, refused, batch } = answer;
      const left =
        refused.length > 0 ? say.left(refused.length, refused[0]!.address, refused[0]!.message) : "";
      notify(say.changedRoutes(count(changed), left), {
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
        ? say.putBackChangedSinceAndStayAs(restored, left.join(", "))
        : say.putBackRoutes(count(restored)),
    );
  } catch (error) {
    notify(messageOf(error), { tone: "failed" });
  }
  refreshRoutes();
}
