import type { Navigation, StoredItem } from "../../core/navigation/navigation.ts";
import { noteChange } from "../../store/ground/changes.ts";
import { indexSaved } from "../ledger/index-saved.ts";
import { stale } from "../ground/problem.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { beforeAndAfter, isSame } from "../ground/before-after.ts";
import { audit } from "../ground/audit.ts";
import type { WithStore, WithDeliveryPort, WithReport } from "../ground/parts.ts";
import { NAVIGATION_PAGE } from "../../store/ledger/content.ts";
import { navigationOf, putNavigation } from "../../store/navigation/navigation.ts";
import type { Actor } from "../../core/people/actor.ts";

/** The site's navigation; version 0 and empty before anybody has made one. */
export async function readNavigation(desk: WithStore, site: OpenSite): Promise<Navigation> {
  const [row] = await navigationOf(desk.store, { id: site.id });
  return row ?? { version: 0, items: [], updatedBy: "" };
}

/** Replaces the navigation over the version it was read at; readers get it at once. */
export async function replaceNavigation(
  desk: WithStore & WithDeliveryPort & WithReport,
  actor: Actor,
  site: OpenSite,
  version: number,
  items: readonly StoredItem[],
): Promise<Navigation> {
  const before = await readNavigation(desk, site);
  if (before.version === version && isSame(before.items, items)) return before;
  await desk.store.transaction(async (transaction) => {
    const [saved] = await putNavigation(
      desk.store,
      { id: site.id, version, next: version + 1, items: JSON.stringify(items), by: actor.name },
      transaction,
    );
    if (!saved) throw stale(await readNavigation(desk, site));
    await audit(
      desk,
      actor,
      {
        siteId: site.id,
        action: "navigation.replace",
        object: site.key,
        detail: beforeAndAfter({ items: before.items }, { items }),
      },
      transaction,
    );
    await noteChange(desk.store, transaction, { siteId: site.id, kind: "site" });
  });
  await indexSaved(desk, site, NAVIGATION_PAGE);
  return readNavigation(desk, site);
}
