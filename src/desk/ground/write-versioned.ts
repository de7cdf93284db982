import type { ModelStatic, Transaction } from "sequelize";
import { noteChange } from "../../store/ground/changes.ts";
import type { Row } from "../../store/ground/models.ts";
import { audit, type AuditEntry } from "./audit.ts";
import type { WithStore } from "./parts.ts";
import { addWritingEntry } from "../../store/ground/audit.ts";
import { requestId } from "./request-id.ts";
import type { Actor } from "../../core/people/actor.ts";

/** A change of something that has a version. */
export interface VersionedChange<T extends { version: number }> {
  table: ModelStatic<Row<T>>;
  /** Which row, and the version that the change was made on. */
  where: Partial<T> & { version: number };
  /** The fields that change, and no others. */
  fields: Partial<T>;
  /** The version after it: one more, unless what is stored stays the same version of the object. */
  nextVersion?: number;
  entry?: AuditEntry;
  /** Whom to tell of it. */
  change?: Parameters<typeof noteChange>[2];
  /** Does what belongs to it, in the same transaction. */
  alongside?: (transaction: Transaction) => Promise<void>;
  /** What to throw when somebody else has written since. */
  stale: () => Promise<unknown>;
}

/**
 * The one way to write what has a version. The version is compared in the statement that writes, and only the fields
 * that change are written: a change that came in between is refused its overwriting, never undone without a word. The
 * audit entry and the notification are of the same transaction: neither is there without the other.
 */
export async function writeVersioned<T extends { version: number }>(
  desk: WithStore,
  actor: Actor,
  {
    table,
    where,
    fields,
    nextVersion = where.version + 1,
    entry,
    change,
    alongside,
    stale,
  }: VersionedChange<T>,
): Promise<void> {
  await desk.store.transaction(async (transaction) => {
    const [saved] = await table.update({ ...fields, version: nextVersion } as never, {
      where: where as never,
      transaction,
    });
    if (saved === 0) throw await stale();
    await alongside?.(transaction);
    if (entry) await audit(desk, actor, entry, transaction);
    // Last of all: its lock is held to the end of the transaction.
    if (change) await noteChange(desk.store, transaction, change);
  });
}

/** Notes that somebody is writing at something, once for each sitting: a text saves itself every few seconds. */
export async function noteWriting(
  desk: WithStore,
  actor: Actor,
  { siteId, action, object }: AuditEntry,
  transaction: Transaction,
): Promise<void> {
  await addWritingEntry(
    desk.store,
    { actor: actor.name, siteId: siteId ?? null, action, object, request: requestId() ?? null },
    transaction,
  );
}
