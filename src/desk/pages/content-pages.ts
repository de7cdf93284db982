import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore } from "../ground/parts.ts";
import { pagesAmong } from "../../store/pages/places.ts";

/** Those of these page ids that are no pages of the site, deleted ones included. */
export async function foreignPages(
  core: WithStore,
  site: OpenSite,
  ids: readonly string[],
): Promise<ReadonlySet<string>> {
  if (ids.length === 0) return new Set();
  const own = await pagesAmong(core.store, { site: site.id, ids: [...new Set(ids)] });
  const known = new Set(own.map(({ id }) => id));
  return new Set(ids.filter((id) => !known.has(id)));
}
