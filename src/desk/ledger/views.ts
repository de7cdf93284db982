import type { z } from "zod";
import type { LedgerView, ledgerViewInputSchema } from "../../core/ledger/ledger.ts";
import { notFound } from "../ground/problem.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { Actor } from "../ground/audit.ts";
import type { WithStore } from "../ground/parts.ts";

/** The saved views of a site's ledger, by name. */
export function listViews(desk: WithStore, site: OpenSite): Promise<LedgerView[]> {
  return desk.store.rows<LedgerView>(
    'SELECT id::text, name, query, made_by AS "madeBy" FROM ledger_views WHERE site_id = $site::bigint ORDER BY name',
    { site: site.id },
  );
}

/** Saves a view under a name; one of that name is replaced. */
export async function saveView(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  { name, query }: z.infer<typeof ledgerViewInputSchema>,
): Promise<LedgerView> {
  const [view] = await desk.store.rows<LedgerView>(
    `WITH kept AS (INSERT INTO ledger_views (site_id, name, query, made_by) VALUES ($site::bigint, $name, $query, $by)
       ON CONFLICT (site_id, name) DO UPDATE SET query = excluded.query, made_by = excluded.made_by RETURNING *)
     SELECT id::text, name, query, made_by AS "madeBy" FROM kept`,
    { site: site.id, name, query, by: actor.name },
  );
  return view!;
}

/** Takes a view away. */
export async function deleteView(desk: WithStore, site: OpenSite, id: string): Promise<void> {
  const gone = await desk.store.rows(
    "WITH gone AS (DELETE FROM ledger_views WHERE id = $id::bigint AND site_id = $site::bigint RETURNING id) SELECT id FROM gone",
    { id: /^\d{1,18}$/.test(id) ? id : "0", site: site.id },
  );
  if (gone.length === 0) throw notFound("This view");
}
