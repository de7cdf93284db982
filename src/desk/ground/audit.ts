import type { Transaction } from "sequelize";
import type { WithStore } from "./parts.ts";
import { addAuditEntry } from "../../store/ground/audit.ts";
import { requestId } from "./request-id.ts";
import type { Actor } from "../../core/people/actor.ts";

/** An entry of the audit log. */
export interface AuditEntry {
  siteId?: string;
  action: string;
  object: string;
  detail?: Record<string, unknown>;
}

/** Notes in the audit log who did what, within the transaction that does it: neither is there without the other. */
export function audit(
  desk: WithStore,
  actor: Actor,
  entry: AuditEntry,
  transaction: Transaction,
): Promise<void> {
  return note(desk, actor, entry, transaction);
}

/** Notes what changes nothing in the store: something seen, tried or refused. */
export function auditAlone(desk: WithStore, actor: Actor, entry: AuditEntry): Promise<void> {
  return note(desk, actor, entry);
}

/** Does something and notes it in one transaction; what it came to may be in the entry. */
export function audited<T>(
  desk: WithStore,
  actor: Actor,
  entry: AuditEntry | ((done: T) => AuditEntry),
  work: (transaction: Transaction) => Promise<T>,
): Promise<T> {
  return desk.store.transaction(async (transaction) => {
    const done = await work(transaction);
    await audit(desk, actor, typeof entry === "function" ? entry(done) : entry, transaction);
    return done;
  });
}

async function note(
  desk: WithStore,
  actor: Actor,
  entry: AuditEntry,
  transaction?: Transaction,
): Promise<void> {
  await addAuditEntry(
    desk.store,
    {
      actor: actor.name,
      site: entry.siteId ?? null,
      action: entry.action,
      object: entry.object,
      detail: JSON.stringify(entry.detail ?? {}),
      request: requestId() ?? null,
    },
    transaction,
  );
}
