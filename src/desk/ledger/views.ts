import type { z } from "zod";
import type { LedgerView, ledgerViewInputSchema } from "../../core/ledger/ledger.ts";
import { notFound } from "../ground/problem.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore } from "../ground/parts.ts";
import { ledgerViews, putLedgerView, deleteLedgerView } from "../../store/ledger/views.ts";
import type { Actor } from "../../core/people/actor.ts";

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

/** Takes a view away. */
export async function deleteView(desk: WithStore, site: OpenSite, id: string): Promise<void> {
  const gone = await deleteLedgerView(desk.store, { id: /^\d{1,18}$/.test(id) ? id : "0", site: site.id });
  if (gone.length === 0) throw notFound("This view");
}
