import { LOCKS } from "./locks.ts";
import type { Store } from "./store.ts";

/** Does what only one process may do at a time, such as filling an empty database; the others wait, and find it done. */
export async function inTurn(store: Store, work: () => Promise<void>): Promise<void> {
  await store.transaction(async (transaction) => {
    await store.rows("SET LOCAL statement_timeout = 0", {}, transaction);
    await store.rows("SELECT pg_advisory_xact_lock($lock)", { lock: LOCKS.preparing }, transaction);
    await work();
  });
}
