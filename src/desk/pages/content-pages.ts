import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore } from "../ground/parts.ts";

/** Those of these page ids that are no pages of the site, deleted ones included. */
export async function foreignPages(
  core: WithStore,
  site: OpenSite,
  ids: readonly string[],
): Promise<ReadonlySet<string>> {
  if (ids.length === 0) return new Set();
  const own = await core.store.rows<{ id: string }>(
    "SELECT id::text FROM pages WHERE site_id = $site::bigint AND deleted_at IS NULL AND id = ANY($ids::bigint[])",
    { site: site.id, ids: [...new Set(ids)] },
  );
  const known = new Set(own.map(({ id }) => id));
  return new Set(ids.filter((id) => !known.has(id)));
}
