import { healPages } from "../desk/pages/heal-pages.ts";
import { checkNextHealth } from "../desk/trace/route-health.ts";
import { applyDueSchedules } from "../desk/rules/schedule.ts";
import { repeating } from "./repeating.ts";
import type { WithStore, WithDeliveryPort, WithOutgoing, WithReport } from "../desk/ground/parts.ts";

const REST_MS = 60_000;
const NEXT_MS = 2_000;
const SCHEDULES_MS = 1_000;
const HEALED_MS = 3_600_000;

/** What a process does by itself beside answering: it looks at destinations, and puts rules into force whose time has come. */
export function startWatches(
  desk: WithStore & WithDeliveryPort & WithOutgoing & WithReport,
  report: (message: string, error: unknown) => void,
): { stop(): Promise<void> } {
  // A few destinations at a time, so that a dead one is known within a day.
  const destinations = repeating(
    {
      turn: async (signal) => ((await checkNextHealth(desk, signal)) > 0 ? NEXT_MS : REST_MS),
      failure: "Destinations could not be looked at.",
      restMs: NEXT_MS,
    },
    report,
  );
  const schedules = repeating(
    {
      turn: async () => {
        await applyDueSchedules(desk, Date.now());
        return SCHEDULES_MS;
      },
      failure: "Rules whose time has come could not be put into force.",
      restMs: SCHEDULES_MS,
    },
    report,
  );
  const pages = repeating(
    {
      turn: async () => ((await healPages(desk)) > 0 ? 0 : HEALED_MS),
      failure: "Pages from before the gate of addresses could not be looked through.",
      restMs: REST_MS,
    },
    report,
  );
  return {
    async stop() {
      await Promise.all([destinations.stop(), schedules.stop(), pages.stop()]);
    },
  };
}
