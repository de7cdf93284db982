import type { Page } from "../core/objects/page.ts";
import { noteChange } from "../store/changes.ts";
import { audit, type Actor, type Desk } from "./desk.ts";
import { keepSaved } from "./ledger/keep-saved.ts";
import { pageView } from "./page-views.ts";
import { changeOf, pageRow } from "./pages.ts";
import { stale } from "./problem.ts";
import type { OpenSite } from "./sites.ts";

/** Takes a page back from readers; its draft and its versions stay. Refused when somebody saved it since `version`. */
export async function unpublishPage(
  desk: Desk,
  actor: Actor,
  site: OpenSite,
  id: string,
  version: number,
): Promise<Page> {
  const row = await pageRow(desk, site, id);
  if (row.version !== version) throw stale(await pageView(desk, site, row));
  await desk.store.transaction(async (transaction) => {
    await row.update(
      { published: null, publishedKey: null, publishedVersion: null, publishedAt: null },
      { transaction, silent: true },
    );
    await noteChange(desk.store, transaction, changeOf(row));
  });
  await keepSaved(desk, site, id);
  await audit(desk, actor, { siteId: site.id, action: "page.unpublish", object: id });
  return pageView(desk, site, row);
}
