import type { Transaction } from "sequelize";
import type { Role } from "../core/objects/person.ts";
import type { PublishedPage } from "../store/models.ts";
import type { Outgoing } from "../outgoing/outgoing.ts";
import type { Jobs } from "./jobs.ts";
import type { Seal } from "./programs/seal.ts";
import type { Texts } from "./thread/read-text.ts";
import type { DeskThread } from "./thread/desk-thread.ts";
import type { Store } from "../store/store.ts";

/** What looking things up needs: work in a thread of its own has this much of the desk. */
export interface DeskCore {
  store: Store;
  /** Port of the delivery listener, for the public addresses of `.localhost` hosts. */
  deliveryPort: number;
}

/** What saving a page needs, on whatever thread. */
export type PageDesk = DeskCore & Pick<Desk, "texts" | "report">;

/** What every subject of the desk works with. */
export interface Desk extends DeskCore {
  /** Hosts of the workspace itself, with port: links to them are warned about. */
  workspaceHosts: readonly string[];
  /** Asks outside addresses. */
  outgoing: Outgoing;
  /** Tells whoever runs this of a failure that the request at hand does not fail by. */
  report(message: string, error: unknown): void;
  /** Locks up credentials, with a key that stands outside the database. */
  seal: Seal;
  /** Heavy work, off the thread that answers requests. */
  thread: DeskThread;
  /** Reads text from outside, off the thread that answers readers. */
  texts: Texts;
  /** Long work that goes on while its asker looks elsewhere. */
  jobs: Jobs;
  /** What the delivery listener of this process says of itself. */
  health(): Promise<Record<string, unknown>>;
  /** A page's document as the delivery listener of this process would send it; undefined when it cannot yet. */
  preview(siteId: string, page: PublishedPage & { id?: string }): string | undefined;
}

/** Who acts: a person signed in, or a token. */
export interface Actor {
  name: string;
  role: Role;
}

const RANK: Readonly<Record<Role, number>> = { reader: 0, editor: 1, owner: 2 };

/** True when the actor's role is at least the one that is needed. */
export function mayAct(actor: Actor, needed: Role): boolean {
  return RANK[actor.role] >= RANK[needed];
}

/** An entry of the audit log. */
export interface AuditEntry {
  siteId?: string;
  action: string;
  object: string;
  detail?: Record<string, unknown>;
}

/** Notes in the audit log who did what, within the transaction that does it: neither is there without the other. */
export function audit(
  desk: Pick<Desk, "store">,
  actor: Actor,
  entry: AuditEntry,
  transaction: Transaction,
): Promise<void> {
  return note(desk, actor, entry, transaction);
}

/** Notes what changes nothing in the store: something seen, tried or refused. */
export function auditAlone(desk: Pick<Desk, "store">, actor: Actor, entry: AuditEntry): Promise<void> {
  return note(desk, actor, entry);
}

/** Does something and notes it in one transaction; what it came to may be in the entry. */
export function audited<T>(
  desk: Pick<Desk, "store">,
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
  desk: Pick<Desk, "store">,
  actor: Actor,
  entry: AuditEntry,
  transaction?: Transaction,
): Promise<void> {
  await desk.store.rows(
    "INSERT INTO audit (actor, site_id, action, object, detail) VALUES ($actor, $site, $action, $object, $detail::jsonb)",
    {
      actor: actor.name,
      site: entry.siteId ?? null,
      action: entry.action,
      object: entry.object,
      detail: JSON.stringify(entry.detail ?? {}),
    },
    transaction,
  );
}
