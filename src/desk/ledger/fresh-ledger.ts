import { catchUpTask } from "./follow-ledger.ts";
import { newestChange } from "../../store/ground/changes.ts";
import { ledgerState } from "../../store/ledger/ledger-rows.ts";
import { UNWATCHED } from "../../threads/progress.ts";
import { Problem } from "../ground/problem.ts";
import { currentRules } from "../rules/rules.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithReport } from "../ground/parts.ts";
import type { WithThread } from "../jobs/desk-thread.ts";

/** How long an answer waits for the ledger when its caller does not say (`Prefer: wait`). */
export const DEFAULT_TIMEOUT_MS = 1_500;
/** The longest that anything waits for it. */
export const MAX_TIMEOUT_MS = 60_000;

/**
 * Lets the ledger catch up with what was just changed: whoever changes a rule and asks for links should see what came
 * of it. True when it has; false when it goes on behind the answer, which is then made from what was.
 */
export async function waitForLedger(
  desk: WithStore & WithReport & WithThread,
  site: OpenSite,
  timeoutMs: number,
): Promise<boolean> {
  const [state, seq, { version }] = await Promise.all([
    ledgerState(desk.store, site.id),
    newestChange(desk.store),
    currentRules(desk, site),
  ]);
  if (state && state.seq === seq && state.rulesVersion === version) return true;
  const caughtUp = desk.thread.run(catchUpTask, site.id, null, UNWATCHED).then(
    () => true,
    (error: unknown) => {
      desk.report("The ledger could not catch up.", error);
      return false;
    },
  );
  let timer: NodeJS.Timeout | undefined;
  const timeout = new Promise<boolean>((resolve) => {
    timer = setTimeout(() => resolve(false), timeoutMs);
  });
  const ready = await Promise.race([caughtUp, timeout]);
  clearTimeout(timer);
  return ready;
}

/** For what cannot say that it is made from what was (files, changes): waits long, and throws a 503 after that. */
export async function requireFreshLedger(
  desk: WithStore & WithReport & WithThread,
  site: OpenSite,
): Promise<void> {
  if (await waitForLedger(desk, site, MAX_TIMEOUT_MS)) return;
  throw new Problem(
    503,
    "The ledger is behind",
    "It is still reading what was changed last, and nothing was done. Try again in a moment.",
    { headers: { "Retry-After": "10" } },
  );
}
