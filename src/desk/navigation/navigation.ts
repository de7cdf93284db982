import type { Navigation, StoredItem } from "../../core/navigation/navigation.ts";
import { noteChange } from "../../store/ground/changes.ts";
import { NAVIGATION_PAGE } from "../ledger/documents.ts";
import { indexSaved } from "../ledger/index-saved.ts";
import { stale } from "../ground/problem.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { audit, type Actor } from "../ground/audit.ts";
import type { WithStore, WithDeliveryPort, WithReport } from "../ground/parts.ts";

/** The site's navigation; version 0 and empty before anybody has made one. */
export async function readNavigation(desk: WithStore, site: OpenSite): Promise<Navigation> {
  const [row] = await desk.store.rows<Navigation>(
    'SELECT version, items, updated_by AS "updatedBy" FROM navigations WHERE site_id = $id::bigint',
    { id: site.id },
  );
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
  await desk.store.transaction(async (transaction) => {
    const [saved] = await desk.store.rows(
      `INSERT INTO navigations (site_id, version, items, updated_by)
         SELECT $id::bigint, $next, $items::jsonb, $by WHERE $version = 0 OR EXISTS (SELECT 1 FROM navigations WHERE site_id = $id::bigint)
       ON CONFLICT (site_id) DO UPDATE SET version = excluded.version, items = excluded.items, updated_by = excluded.updated_by, updated_at = now()
         WHERE navigations.version = $version RETURNING version`,
      { id: site.id, version, next: version + 1, items: JSON.stringify(items), by: actor.name },
      transaction,
    );
    if (!saved) throw stale(await readNavigation(desk, site));
    await audit(
      desk,
      actor,
      { siteId: site.id, action: "navigation.replace", object: site.key },
      transaction,
    );
    await noteChange(desk.store, transaction, { siteId: site.id, kind: "site" });
  });
  await indexSaved(desk, site, NAVIGATION_PAGE);
  return readNavigation(desk, site);
}
