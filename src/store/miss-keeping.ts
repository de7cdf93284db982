import type { Store } from "./store.ts";

const KEPT_DAYS = 90;

/** Forgets what only robots asked for, and nobody for three months; what people asked for stays until it is dealt with. */
export async function forgetRobotMisses(store: Store, now: number): Promise<void> {
  await store.rows("DELETE FROM misses WHERE (times = 0 OR probe) AND last_seen < $before::timestamptz", {
    before: new Date(now - KEPT_DAYS * 86_400_000).toISOString(),
  });
}
