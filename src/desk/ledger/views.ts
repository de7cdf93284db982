import type { z } from "zod";
import type { LedgerView, ledgerViewInputSchema } from "../../core/ledger/ledger.ts";
import { audit } from "../ground/audit.ts";
import { invalid, notFound } from "../ground/problem.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore } from "../ground/parts.ts";
import { violatedIndex } from "../../store/ground/store.ts";
import { ledgerViews, putLedgerView, deleteLedgerView, restoreLedgerView } from "../../store/ledger/views.ts";
import type { Actor } from "../../core/people/actor.ts";
import { rowIdOf } from "../../store/ground/row-ids.ts";

/** The saved views of a site's ledger, by name. */
export function listViews(desk: WithStore, site: OpenSite): Promise<LedgerView[]> {
  return ledgerViews(desk.store, { site: site.id });
}

/** Saves a view under a name; one of that name is replaced. */
export async function saveView(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  { name, query }: z.infer<typeof ledgerViewInputSchema>,
): Promise<LedgerView> {
  const [view] = await putLedgerView(desk.store, { site: site.id, name, query, by: actor.name });
  return view!;
}

/** Deletes a view; the bin keeps it for a while. */
export async function deleteView(desk: WithStore, actor: Actor, site: OpenSite, id: string): Promise<void> {
  await desk.store.transaction(async (transaction) => {
    const [gone] = await deleteLedgerView(desk.store, { id: rowIdOf(id), site: site.id }, transaction);
    if (!gone) throw notFound("This view");
    const entry = { siteId: site.id, action: "view.delete", object: gone.name };
    await audit(desk, actor, entry, transaction);
  });
}

/** Brings a view back, under another name where its own was given away. Throws a 422 where it was. */
export async function restoreView(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  id: string,
  name: string | undefined,
): Promise<void> {
  await desk.store
    .transaction(async (transaction) => {
      const of = { id: rowIdOf(id), site: site.id, name: name ?? null };
      const [back] = await restoreLedgerView(desk.store, of, transaction);
      if (!back) throw notFound("This view");
      await audit(desk, actor, { siteId: site.id, action: "view.restore", object: back.name }, transaction);
    })
    .catch((error: unknown) => {
      if (violatedIndex(error) !== "ledger_views_name") throw error;
      throw invalid([{ path: "address", message: "Another view has this name by now; give it another." }]);
    });
}
