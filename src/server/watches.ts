import { makeNextForms } from "../desk/files/make-forms.ts";
import { healPages } from "../desk/pages/heal-pages.ts";
import { checkNextHealth } from "../desk/trace/route-health.ts";
import { applyDueSchedules } from "../desk/rules/schedule.ts";
import { forgetOldHistory } from "../store/sites/history.ts";
import { clearOldRepeats } from "../store/ground/repeats.ts";
import { beginDueReadings } from "../desk/origin/reading-jobs.ts";
import type { WithJobs } from "../desk/jobs/jobs.ts";
import { repeating } from "./repeating.ts";
import type { WithStore, WithDeliveryPort, WithOutgoing, WithReport } from "../desk/ground/parts.ts";

const REST_MS = 60_000;
const NEXT_MS = 2_000;
const SCHEDULES_MS = 1_000;
const PICTURES_MS = 1_000;
const REPEATS_MS = 3_600_000;
const HEALED_MS = 3_600_000;
const READINGS_MS = 60_000;

/**
 * What a process does by itself beside answering: it looks at destinations, reads pages elsewhere again, and puts rules into
 * force whose time has come.
 */
export function startWatches(
  desk: WithStore & WithDeliveryPort & WithOutgoing & WithReport & WithJobs,
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
  const pictures = repeating(
    {
      turn: async () => ((await makeNextForms(desk)) ? 0 : PICTURES_MS),
      failure: "Sizes of pictures could not be made.",
      restMs: NEXT_MS,
    },
    report,
  );
  const history = repeating(
    {
      turn: async () => ((await forgetOldHistory(desk.store)) > 0 ? NEXT_MS : HEALED_MS),
      failure: "History that is older than its site keeps it could not be taken away.",
      restMs: REST_MS,
    },
    report,
  );
  const repeats = repeating(
    {
      turn: async () => {
        await clearOldRepeats(desk.store);
        return REPEATS_MS;
      },
      failure: "Keys of calls that are older than a day could not be forgotten.",
      restMs: REST_MS,
    },
    report,
  );
  const readings = repeating(
    {
      turn: async () => {
        await beginDueReadings(desk);
        return READINGS_MS;
      },
      failure: "Pages elsewhere that are due could not be read again.",
      restMs: READINGS_MS,
    },
    report,
  );
  return {
    async stop() {
      await Promise.all([
        readings.stop(),
        destinations.stop(),
        schedules.stop(),
        pages.stop(),
        history.stop(),
        pictures.stop(),
        repeats.stop(),
      ]);
    },
  };
}
