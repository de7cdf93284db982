import type { SpoolCopier } from "./spool-copier.ts";

const REST_MS = 400;
const BUSY_PER_SECOND = 2_000;
const BUSY_SHARE = 0.02;
const MOST_WAITING_BYTES = 1024 * 1024 * 1024;

/** Copying for as long as the process runs. */
export interface CopyLoop {
  /** Ends after a last copy. */
  stop(): Promise<void>;
}

/**
 * Copies the spool to the database again and again. Readers come first: while more than two thousand records
 * a second come in, the database is given a batch now and then, a fiftieth of the time, and the rest waits
 * on the disk; at full speed it would halve the redirects where database and listener share two cores
 * (measured by `npm run bench -- redirects`). A gigabyte is as much as may wait.
 */
export function startCopyLoop(
  copier: SpoolCopier,
  recordsWritten: () => number,
  report: (message: string, error: unknown) => void,
): CopyLoop {
  let stopped = false;
  let failing = false;
  let timer: NodeJS.Timeout | undefined;
  let running = Promise.resolve();
  let seen = { at: performance.now(), written: recordsWritten() };
  let restUntil = 0;

  const copy = async (mostBatches: number): Promise<void> => {
    try {
      await copier.copy(mostBatches);
      failing = false;
    } catch (error) {
      // Told once for each outage; the records wait where they are.
      if (!failing) report("Clicks wait on the spool: the database does not take them.", error);
      failing = true;
    }
  };
  const isBusy = (): boolean => {
    const now = { at: performance.now(), written: recordsWritten() };
    const perSecond = ((now.written - seen.written) * 1000) / (now.at - seen.at);
    seen = now;
    return perSecond > BUSY_PER_SECOND && copier.waitingBytes < MOST_WAITING_BYTES;
  };
  const turn = async (): Promise<void> => {
    const busy = isBusy();
    if (!busy) restUntil = 0;
    if (performance.now() >= restUntil) {
      const began = performance.now();
      // One batch, then whether it has become busy is asked again.
      await copy(1);
      const ended = performance.now();
      if (busy) restUntil = ended + (ended - began) / BUSY_SHARE;
    }
    const more = !busy && copier.waitingBytes > 0 && !failing;
    if (!stopped) timer = setTimeout(next, more ? 0 : REST_MS);
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
