import type { Page } from "../../core/pages/page.ts";
import { indexSaved } from "../ledger/index-saved.ts";
import { changeOf, pageRow, readPage } from "./pages.ts";
import { stale } from "../ground/problem.ts";
import { writeVersioned } from "../ground/write-versioned.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithDeliveryPort, WithReport } from "../ground/parts.ts";
import type { Actor } from "../../core/people/actor.ts";

/** Takes a page back from readers; its draft and its versions stay. Refused when somebody saved it since `version`. */
export async function unpublishPage(
  desk: WithStore & WithDeliveryPort & WithReport,
  actor: Actor,
  site: OpenSite,
  id: string,
  version: number,
): Promise<Page> {
  const row = await pageRow(desk, site, id);
  await writeVersioned(desk, actor, {
    table: desk.store.pages,
    where: { id, version, deletedAt: null },
    fields: { published: null, publishedKey: null, publishedVersion: null, publishedAt: null },
    // The draft is as it was: whoever writes at it goes on.
    nextVersion: version,
    entry: { siteId: site.id, action: "page.unpublish", object: id },
    change: changeOf(row),
    stale: async () => stale(await readPage(desk, site, id)),
  });
  await indexSaved(desk, site, id);
  return readPage(desk, site, id);
}
