import type { SpoolCopier } from "./spool-copier.ts";
import type { Spool } from "./spool.ts";

const REST_MS = 400;
const BUSY_PER_SECOND = 2_000;
const BUSY_SHARE = 0.05;
const MOST_WAITING_BYTES = 1024 * 1024 * 1024;

/** Copying for as long as the process runs. */
export interface CopyLoop {
  /** Ends after a last copy. */
  stop(): Promise<void>;
}

/**
 * Copies the spool to the database again and again. Readers come first: while more than two thousand records
 * a second come in, copying takes a twentieth of the time, a batch now and then, and the rest waits on the
 * disk; at full speed it would halve the redirects where database and listener share two cores (measured by
 * `npm run bench -- redirects`). A gigabyte is as much as may wait.
 */
export function startCopyLoop(
  copier: SpoolCopier,
  spool: Spool,
  report: (message: string, error: unknown) => void,
): CopyLoop {
  let stopped = false;
  let failing = false;
  let timer: NodeJS.Timeout | undefined;
  let running = Promise.resolve();
  let seen = { at: performance.now(), written: spool.written };

  const copy = async (batches: number): Promise<void> => {
    try {
      await copier.copy(batches);
      failing = false;
    } catch (error) {
      // Told once for each outage; the records wait where they are.
      if (!failing) report("Clicks wait on the spool: the database does not take them.", error);
      failing = true;
    }
  };
  const isBusy = (): boolean => {
    const now = { at: performance.now(), written: spool.written };
    const perSecond = ((now.written - seen.written) * 1000) / (now.at - seen.at);
    seen = now;
    return perSecond > BUSY_PER_SECOND && copier.waitingBytes < MOST_WAITING_BYTES;
  };
  const turn = async (): Promise<void> => {
    const busy = isBusy();
    const began = performance.now();
    // Never without end: whether it has become busy is asked again after a few batches.
    await copy(busy ? 1 : 8);
    const took = performance.now() - began;
    const more = !busy && copier.waitingBytes > 0 && !failing;
    if (!stopped) timer = setTimeout(next, more ? 1 : busy ? Math.max(REST_MS, took / BUSY_SHARE) : REST_MS);
  };
  const next = (): void => {
    running = turn();
  };
  next();
  return {
    async stop() {
      stopped = true;
      clearTimeout(timer);
      await running;
      await copy(Infinity);
    },
  };
}
