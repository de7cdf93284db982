import { LOCKS } from "./locks.ts";
import pg from "pg";
import { addressesOf, connectingTo } from "./connection.ts";
import type { Transaction } from "sequelize";
import type { Store } from "./store.ts";

export const CHANGE_CHANNEL = "maprope_changes";
/** What changed: one route, page or file, or something that all of a site's delivery depends on. */
export type ChangeKind = "route" | "page" | "file" | "rules" | "site";

/** How many changes are read at once. */
export const CHANGES_AT_ONCE = 5_000;

export interface Change {
  seq: string;
  siteId: string;
  kind: ChangeKind;
  objectId: string | null;
}

/**
 * Notes a change in the same transaction that makes it. The lock makes sequence order and commit order the
 * same, so "everything after N" never skips a change that commits late; it is held for the rest of the transaction.
 */
export async function noteChange(
  store: Store,
  transaction: Transaction,
  change: { siteId: string; kind: ChangeKind; objectId?: string },
): Promise<void> {
  await store.rows("SELECT pg_advisory_xact_lock($lock)", { lock: LOCKS.change }, transaction);
  await store.rows(
    `WITH noted AS (INSERT INTO changes (site_id, kind, object_id) VALUES ($siteId, $kind, $objectId) RETURNING seq)
     SELECT pg_notify($channel, seq::text) FROM noted`,
    { siteId: change.siteId, kind: change.kind, objectId: change.objectId ?? null, channel: CHANGE_CHANNEL },
    transaction,
  );
}

/** Notes that many routes changed, as one step of the same transaction. */
export async function noteRoutes(
  store: Store,
  transaction: Transaction,
  siteId: string,
  ids: readonly string[],
): Promise<void> {
  if (ids.length === 0) return;
  await store.rows("SELECT pg_advisory_xact_lock($lock)", { lock: LOCKS.change }, transaction);
  await store.rows(
    `WITH noted AS (INSERT INTO changes (site_id, kind, object_id) SELECT $siteId::bigint, 'route', id FROM unnest($ids::bigint[]) AS id RETURNING seq)
     SELECT pg_notify($channel, max(seq)::text) FROM noted`,
    { siteId, ids, channel: CHANGE_CHANNEL },
    transaction,
  );
}

/** The changes after a sequence number, in order, a portion at a time; undefined when some of them have been cleared away already. */
export async function changesAfter(store: Store, seq: string): Promise<Change[] | undefined> {
  const [edge] = await store.rows<{ first: string | null }>("SELECT min(seq)::text AS first FROM changes");
  if (edge?.first && BigInt(edge.first) > BigInt(seq) + 1n) return undefined;
  return store.rows<Change>(
    `SELECT seq::text, site_id::text AS "siteId", kind, object_id::text AS "objectId" FROM changes WHERE seq > $seq ORDER BY seq LIMIT ${CHANGES_AT_ONCE}`,
    { seq },
  );
}

/** The newest sequence number; "0" in an empty database. */
export async function newestChange(store: Store, transaction?: Transaction): Promise<string> {
  const [row] = await store.rows<{ seq: string }>(
    "SELECT coalesce(max(seq), 0)::text AS seq FROM changes",
    {},
    transaction,
  );
  return row!.seq;
}

/** Sequence number of the last change of a route. */
export async function newestRouteChange(store: Store): Promise<string> {
  const [row] = await store.rows<{ seq: string }>(
    "SELECT coalesce(max(seq), 0)::text AS seq FROM changes WHERE kind = 'route'",
  );
  return row!.seq;
}

/** Forgets changes older than a week, save for the newest; a node that was away longer loads everything anew. */
export async function clearOldChanges(store: Store): Promise<void> {
  await store.sequelize.query(
    "DELETE FROM changes WHERE at < now() - interval '7 days' AND seq < (SELECT max(seq) FROM changes)",
  );
}

/**
 * Listens for changes on a connection of its own and calls `heard` for each message, and once after every
 * (re)connection, when messages may have been missed. Reconnects by itself until stopped.
 */
export function listenForChanges(
  url: string,
  heard: () => void,
  lost: (error: Error) => void,
): { stop(): Promise<void> } {
  let client: pg.Client | undefined;
  let timer: NodeJS.Timeout | undefined;
  let stopped = false;

  const retry = (error: Error): void => {
    client?.removeAllListeners();
    client?.on("error", () => undefined); // a connection that is given up may fail once more while it closes
    void client?.end().catch(() => undefined);
    client = undefined;
    if (stopped) return;
    lost(error);
    clearTimeout(timer);
    timer = setTimeout(connect, 500);
  };
  const connect = (): void => {
    const next = new pg.Client({
      ...connectingTo(addressesOf(url).direct),
      keepAlive: true,
      connectionTimeoutMillis: 8_000,
    });
    client = next;
    next.on("notification", heard);
    next.on("error", retry);
    next.on("end", () => client === next && retry(new Error("the connection ended")));
    next
      .connect()
      .then(() => next.query(`LISTEN ${CHANGE_CHANNEL}`))
      .then(heard, retry);
  };
  connect();
  return {
    async stop() {
      stopped = true;
      clearTimeout(timer);
      client?.removeAllListeners();
      client?.on("error", () => undefined);
      await client?.end().catch(() => undefined);
    },
  };
}
