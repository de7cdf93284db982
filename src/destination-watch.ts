import type { Desk } from "./desk/desk.ts";
import { checkNextHealth } from "./desk/routes/route-health.ts";

const REST_MS = 60_000;
const NEXT_MS = 2_000;

/**
 * Looks at routes' destinations for as long as the process runs, a few at a time, so that a dead one is known
 * within a day. What fails is told once for each outage.
 */
export function lookAtDestinations(
  desk: Desk,
  report: (message: string, error: unknown) => void,
): { stop(): Promise<void> } {
  const control = new AbortController();
  let failing = false;
  let timer: NodeJS.Timeout | undefined;
  let running = Promise.resolve();
  const turn = async (): Promise<void> => {
    let looked = 0;
    try {
      looked = await checkNextHealth(desk, control.signal);
      failing = false;
    } catch (error) {
      if (!failing) report("Destinations could not be looked at.", error);
      failing = true;
    }
    if (!control.signal.aborted) timer = setTimeout(next, looked > 0 ? NEXT_MS : REST_MS);
  };
  const next = (): void => {
    running = turn();
  };
  timer = setTimeout(next, NEXT_MS);
  timer.unref();
  return {
    async stop() {
      control.abort();
      clearTimeout(timer);
      await running;
    },
  };
}
