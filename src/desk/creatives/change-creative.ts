import type { WithStore, WithDeliveryPort, WithWorkspaceHosts, WithReport } from "../ground/parts.ts";
import type { WithThread } from "../jobs/desk-thread.ts";
import { beforeAndAfter } from "../ground/before-after.ts";
import { audit } from "../ground/audit.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { CreativeChange, ChangedCreative } from "../../core/creatives/creative.ts";
import { openCreative, viewOf } from "./creatives.ts";
import { stale, invalid } from "../ground/problem.ts";
import { readSnippet } from "../../core/creatives/snippet.ts";
import { changeLinks } from "../ledger/bulk/change-links.ts";
import { UNWATCHED } from "../../threads/progress.ts";
import { lockCreative, updateCreative } from "../../store/creatives/creatives.ts";
import type { Actor } from "../../core/people/actor.ts";

/**
 * Changes a creative once, and every place that uses it: drafts, and what readers get where `published` says so. Words
 * that an author changed, and pictures of their own, stay.
 */
export async function changeCreative(
  desk: WithStore & WithDeliveryPort & WithWorkspaceHosts & WithReport & WithThread,
  actor: Actor,
  site: OpenSite,
  id: string,
  { name, html, version, published }: CreativeChange,
): Promise<ChangedCreative> {
  const creative = await openCreative(desk, site, id);
  if (creative.version !== version) throw stale(viewOf(creative, creative.program));
  const read = readSnippet(html);
  if (!read.ok) throw invalid([{ path: "html", message: read.reason }]);
  const action = { do: "creative" as const, creative: id, html };
  return desk.store.transaction(async (transaction) => {
    // Held while its places are changed: they follow what it was, and nobody else changes it meanwhile.
    const held = await lockCreative(desk.store, { id, version }, transaction);
    if (held.length === 0) {
      const current = await openCreative(desk, site, id);
      throw stale(viewOf(current, current.program));
    }
    const places = await changeLinks(
      desk,
      actor,
      site,
      { action, published, routes: false, dryRun: false },
      UNWATCHED,
    );
    // Its places may have fallen behind, although it is what it was.
    if (creative.name === name && creative.html === html && places.links === 0)
      return { creative: viewOf(creative, creative.program), places };
    const [row] = await updateCreative(
      desk.store,
      { id, version, name, html, read: JSON.stringify(read.snippet) },
      transaction,
    );
    await audit(
      desk,
      actor,
      {
        siteId: site.id,
        action: "creative.change",
        object: name,
        detail: {
          id,
          places: places.links,
          ...beforeAndAfter({ name: creative.name, html: creative.html }, { name, html }),
        },
      },
      transaction,
    );
    return { creative: viewOf(row!, creative.program), places };
  });
}
