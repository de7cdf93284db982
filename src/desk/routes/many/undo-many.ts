import type { Transaction } from "sequelize";
import { batchBefore, markBatchUndone } from "../../../store/routes/batches.ts";
import { lockRoutes } from "../../../store/routes/routes.ts";
import { rowIdOf } from "../../../store/ground/row-ids.ts";
import { violatedIndex } from "../../../store/ground/store.ts";
import type { Actor } from "../../../core/people/actor.ts";
import { audit } from "../../ground/audit.ts";
import type { WithStore } from "../../ground/parts.ts";
import { notFound, Problem } from "../../ground/problem.ts";
import type { OpenSite } from "../../sites/open-site.ts";
import type { Change } from "./change.ts";
import { writeChanges } from "./write-changes.ts";

/** Puts many routes back as they were before a change of many. Those that somebody changed since are left, and named. */
export async function undoMany(
  desk: WithStore,
  actor: Actor,
  site: OpenSite,
  batchId: string,
  within?: Transaction,
): Promise<{ restored: number; left: string[] }> {
  const [batch] = await batchBefore(desk.store, {
    id: rowIdOf(batchId),
    site: site.id,
  });
  if (!batch) throw notFound("This change");
  const left: string[] = [];
  const restored = await inOne(desk, within, async (transaction) => {
    const rows = await lockRoutes(
      desk.store,
      batch.before.map(({ id: one }) => one),
      transaction,
    );
    const byId = new Map(rows.map((row) => [row.id, row]));
    const back: Change[] = [];
    for (const before of batch.before) {
      const row = byId.get(before.id);
      if (!row || row.version !== before.version + 1) left.push(before.address);
      else
        back.push({
          row,
          tags: before.tags,
          enabled: before.enabled,
          destination: before.destination,
          address: before.address,
          aliases: before.aliases ?? row.aliases,
          noindex: before.noindex ?? row.noindex,
          nofollow: before.nofollow ?? row.nofollow,
          deleted: false,
        });
    }
    await writeChanges(desk, site, back, transaction);
    await markBatchUndone(desk.store, { id: batchId }, transaction);
    await audit(
      desk,
      actor,
      { siteId: site.id, action: "routes.undo", object: `batch ${batchId}` },
      transaction,
    );
    return back.length;
  }).catch((error: unknown) => {
    if (violatedIndex(error) !== "route_addresses_pkey") throw error;
    throw new Problem(
      409,
      "An address was given away",
      "One of these addresses belongs to another route by now. Free it, then undo again.",
    );
  });
  return { restored, left };
}

// In a transaction that is there already, or in one of its own.
function inOne<T>(
  desk: WithStore,
  within: Transaction | undefined,
  work: (transaction: Transaction) => Promise<T>,
): Promise<T> {
  return within ? work(within) : desk.store.transaction(work);
}
