import type { SpoolCopier } from "./spool-copier.ts";

const REST_MS = 400;
// How much of the time copying may take, by how many records a second come in.
const SHARES: readonly (readonly [perSecond: number, share: number])[] = [
  [10_000, 0.005],
  [2_000, 0.25],
];
const MOST_WAITING_BYTES = 1024 * 1024 * 1024;

/** Copying for as long as the process runs. */
export interface CopyLoop {
  /** Ends after a last copy. */
  stop(): Promise<void>;
}

/**
 * Copies the spool to the database again and again. Readers come first: while more than two thousand records
 * a second come in, copying takes a quarter of the time, and above ten thousand, where a listener has no time to
 * spare, so little that fewer than one answer in a hundred meets it; the rest waits on the disk. At full speed it
 * would halve the redirects where database and listener share two cores (measured by
 * `npm run bench -- redirects`). A gigabyte is as much as may wait.
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
  const shareNow = (): number => {
    const now = { at: performance.now(), written: recordsWritten() };
    const perSecond = ((now.written - seen.written) * 1000) / (now.at - seen.at);
    seen = now;
    if (copier.waitingBytes >= MOST_WAITING_BYTES) return 1;
    return SHARES.find(([from]) => perSecond > from)?.[1] ?? 1;
  };
  const turn = async (): Promise<void> => {
    const share = shareNow();
    const isBusy = share < 1;
    if (!isBusy) restUntil = 0;
    if (performance.now() >= restUntil) {
      const began = performance.now();
      // One batch, then whether it has become busy is asked again.
      await copy(1);
      const ended = performance.now();
      if (isBusy) restUntil = ended + (ended - began) / share;
    }
    const more = !isBusy && copier.waitingBytes > 0 && !failing;
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
