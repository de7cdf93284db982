import type { Site } from "../../core/sites/site.ts";
import { api } from "../../ui/client/api.ts";
import { refresh } from "../../ui/client/queries.ts";

/** Keeps a view of the ledger, the screen's address as it stands, under a name. */
export async function keepView(site: Site, body: { name: string; query: string }): Promise<void> {
  await api("POST /sites/:site/links/views", { site: site.id, body });
  await refresh("GET /sites/:site/links/views");
}
