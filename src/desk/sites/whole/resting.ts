import type { Actor } from "../../../core/people/actor.ts";
import type { Site } from "../../../core/sites/site.ts";
import { noteChange } from "../../../store/ground/changes.ts";
import { exportedSince } from "../../../store/sites/history.ts";
import { removeSite, setArchived } from "../../../store/sites/sites.ts";
import { audited } from "../../ground/audit.ts";
import type { WithDeliveryPort, WithStore } from "../../ground/parts.ts";
import { invalid, Problem } from "../../ground/problem.ts";
import { type OpenSite, openSite } from "../open-site.ts";
import { siteView } from "../sites.ts";
import { EXPORTED } from "./export-site.ts";

/** Lets a site rest, or wakes it: a resting one answers readers as before, and nothing of it is changed. */
export async function setResting(
  desk: WithStore & WithDeliveryPort,
  actor: Actor,
  site: OpenSite,
  rests: boolean,
): Promise<Site> {
  if (rests !== (site.archivedAt !== null)) {
    const entry = { siteId: site.id, action: rests ? "site.rest" : "site.wake", object: site.key };
    await audited(desk, actor, entry, (transaction) =>
      setArchived(desk.store, { site: site.id, rests }, transaction),
    );
  }
  return siteView(desk, await openSite(desk, site.id));
}

/**
 * Takes a site away for good, with all that is its own. It must rest, have been exported whole since it does, and its key is
 * given once more. Throws a 409 or a 422 where it is not so.
 */
export async function deleteSite(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  { key }: { key: string },
): Promise<void> {
  if (key !== site.key)
    throw invalid([{ path: "key", message: `Type the site's key, ${site.key}, to delete it for good.` }]);
  if (site.archivedAt === null)
    throw new Problem(
      409,
      "It is not archived",
      "Archive the site first; readers get it until it is deleted.",
    );
  if (!(await exportedSince(desk.store, { site: site.id, action: EXPORTED, since: site.archivedAt })))
    throw new Problem(
      409,
      "Not exported",
      "Export the whole site first, since it was archived: nothing of it can be restored afterwards.",
    );
  await audited(desk, actor, { action: "site.delete", object: site.key }, async (transaction) => {
    await removeSite(desk.store, site.key, transaction);
    await noteChange(desk.store, transaction, { siteId: site.id, kind: "site" });
  });
}
