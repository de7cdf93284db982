import { dropOldMonths } from "../../store/clicks/click-months.ts";
import { settleDay, unsettledDays } from "../../store/clicks/click-settling.ts";
import { forgetOldMisses } from "../../store/misses/miss-keeping.ts";
import type { Store } from "../../store/ground/store.ts";

const LEAST_BETWEEN_MS = 1_500;
// Settling a day takes at most this share of the time: a large day is counted less often.
const SHARE = 0.05;
const TIDY_EVERY_MS = 3_600_000;

/** What is done with clicks after they have been copied: visitors are counted, and what is old goes. */
export interface ClickKeeping {
  /** Does what is due now. Throws when the database does not answer. */
  turn(now: number): Promise<void>;
}

/** Keeps the clicks of one database; several processes may do so, one of them settles at a time. */
export function keepClicks(store: Store): ClickKeeping {
  const next = new Map<string, number>();
  let tidied = 0;
  return {
    async turn(now) {
      for (const waiting of await unsettledDays(store)) {
        if ((next.get(waiting.day) ?? 0) > now) continue;
        const began = performance.now();
        if (!(await settleDay(store, waiting))) return;
        const took = performance.now() - began;
        next.set(waiting.day, now + Math.max(LEAST_BETWEEN_MS, took / SHARE));
      }
      if (next.size > 400) next.clear();
      if (now - tidied < TIDY_EVERY_MS) return;
      tidied = now;
      await dropOldMonths(store, now);
      await forgetOldMisses(store, now);
    },
  };
}
