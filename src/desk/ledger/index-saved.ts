import { noteChange } from "../../store/ground/changes.ts";
import { indexPages } from "./index-pages.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithDeliveryPort, WithReport } from "../ground/parts.ts";

/**
 * Puts pages that were just saved into the ledger, so that it shows them at once. They are saved whatever comes of
 * this: what goes wrong is told, and made good when the ledger next follows.
 */
export async function indexSaved(
  desk: WithStore & WithDeliveryPort & WithReport,
  site: OpenSite,
  ...pageIds: string[]
): Promise<void> {
  try {
    for (const objectId of await indexPages(desk, site, pageIds)) {
      // Links elsewhere that lead to it are looked at by whoever follows changes.
      await desk.store.transaction((transaction) =>
        noteChange(desk.store, transaction, { siteId: site.id, kind: "page", objectId }),
      );
    }
  } catch (error) {
    desk.report("The ledger could not take in a page that was saved.", error);
  }
}
