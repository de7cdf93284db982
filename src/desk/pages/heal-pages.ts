import { admitBody } from "../../core/pages/body/admit.ts";
import { bodyToHtml } from "../../core/pages/body/to-html.ts";
import { noteChange } from "../../store/ground/changes.ts";
import type { PageRow, Row } from "../../store/ground/models.ts";
import { bindLinks } from "../links/bound-links.ts";
import { indexSaved } from "../ledger/index-saved.ts";
import { storedLinks } from "./page-views.ts";
import { changeOf } from "./pages.ts";
import { sanitizeHtml } from "./sanitize-html.ts";
import { openSite } from "../sites/open-site.ts";
import { audit } from "../ground/audit.ts";
import type { WithStore, WithDeliveryPort, WithReport } from "../ground/parts.ts";
import type { Actor } from "../../core/people/actor.ts";
import { lockUnadmitted } from "../../store/pages/pages.ts";

const AT_ONCE = 20;
const HOUSE: Actor = { name: "Map Rope", role: "owner" };

/**
 * Looks through some pages that were written before the gate of addresses: what it would not have let in is taken out
 * of draft and publication, the words stay, and the audit log tells what was left out. Answers how many it looked at.
 */
export async function healPages(desk: WithStore & WithDeliveryPort & WithReport): Promise<number> {
  const healed: { row: Row<PageRow>; dropped: string[] }[] = [];
  const looked = await desk.store.transaction(async (transaction) => {
    const rows = await lockUnadmitted(desk.store, AT_ONCE, transaction);
    for (const row of rows) {
      const { dropped, change } = await healedParts(desk, row).catch((error: unknown) => {
        // What cannot be read is left to the gate on the way out; the others go on.
        desk.report(`The page ${row.path} could not be looked through.`, error);
        return { dropped: [], change: {} };
      });
      await row.update({ ...change, admitted: true }, { transaction, silent: dropped.length === 0 });
      if (dropped.length === 0) continue;
      healed.push({ row, dropped });
      const { id, siteId, path } = row;
      await audit(
        desk,
        HOUSE,
        { siteId, action: "page.heal", object: id, detail: { path, dropped } },
        transaction,
      );
      await noteChange(desk.store, transaction, changeOf(row));
    }
    return rows.length;
  });
  for (const { row, dropped } of healed) {
    const { id, siteId, path } = row;
    desk.report(
      `The page ${path} held what may not be stored; it was taken out: ${dropped.join("; ")}.`,
      undefined,
    );
    if (row.deletedAt === null) await indexSaved(desk, await openSite(desk, siteId), id);
  }
  return looked;
}

async function healedParts(
  desk: WithStore,
  row: PageRow,
): Promise<{ dropped: string[]; change: Partial<PageRow> }> {
  const draft = admitBody(row.body);
  const published = row.published && sanitizeHtml(row.published.html);
  const dropped = [...new Set([...draft.dropped, ...(published?.dropped ?? [])])];
  if (dropped.length === 0) return { dropped, change: {} };
  const site = await openSite(desk, row.siteId);
  const html = bodyToHtml(draft.body);
  const version = row.version + 1;
  const isSame = row.publishedVersion === row.version;
  return {
    dropped,
    change: {
      body: draft.body,
      html,
      ...storedLinks(html),
      bound: await bindLinks(desk, site, html, row.bound),
      version,
      updatedBy: HOUSE.name,
      ...(row.published && published && published.dropped.length > 0
        ? {
            published: { ...row.published, html: bodyToHtml(published.body) },
            publishedVersion: isSame ? version : row.publishedVersion,
          }
        : {}),
    },
  };
}
