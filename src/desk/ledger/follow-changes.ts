import { listenForChanges } from "../../store/ground/changes.ts";
import type { WithDeliveryPort, WithReport, WithStore } from "../ground/parts.ts";
import { followAllLedgers } from "./follow-ledger.ts";

const REST_MS = 60;
const LOOK_ANYWAY_MS = 20_000;

/**
 * Lets all ledgers follow whatever changes, until it is told to stop: one look at a time, and what changes during a
 * look makes another one.
 */
export async function followChanges(
  desk: WithStore & WithDeliveryPort & WithReport,
  signal: AbortSignal,
): Promise<void> {
  let looking: Promise<void> | undefined;
  let again = false;
  let failing = false;
  let timer: NodeJS.Timeout | undefined;

  function follow(): void {
    if (signal.aborted) return;
    if (looking) return void (again = true);
    clearTimeout(timer);
    looking = look().finally(() => {
      looking = undefined;
      if (signal.aborted) return;
      timer = setTimeout(follow, again ? REST_MS : LOOK_ANYWAY_MS);
      again = false;
    });
  }
  async function look(): Promise<void> {
    await new Promise((resolve) => setTimeout(resolve, REST_MS));
    try {
      await followAllLedgers(desk, () => signal.aborted);
      failing = false;
    } catch (error) {
      // Told once for each outage; what was missed is made good by the next look.
      if (!failing && !signal.aborted) desk.report("The ledger could not follow.", error);
      failing = true;
    }
  }
  const listening = listenForChanges(desk.store.url, follow, () => {});
  follow();
  if (!signal.aborted)
    await new Promise((resolve) => signal.addEventListener("abort", resolve, { once: true }));
  clearTimeout(timer);
  await listening.stop();
  await looking;
}
