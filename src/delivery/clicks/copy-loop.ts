import type { BatchSize, SpoolCopier } from "./spool-copier.ts";

const REST_MS = 400;
// How much of the time copying may take, by how many records a second come in.
const SHARES: readonly (readonly [perSecond: number, share: number])[] = [
  [10_000, 0.005],
  [2_000, 0.25],
];
const MAX_WAITING_BYTES = 1024 * 1024 * 1024;

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
 * `npm run bench -- redirects`). A gigabyte is as much as may wait. When nothing waits and nobody is in a hurry,
 * `whenIdle` has its turn.
 */
export function startCopyLoop(
  copier: SpoolCopier,
  recordsWritten: () => number,
  whenIdle: () => Promise<void>,
  report: (message: string, error: unknown) => void,
): CopyLoop {
  let stopped = false;
  let failing = false;
  let timer: NodeJS.Timeout | undefined;
  let running = Promise.resolve();
  let seen = { at: performance.now(), written: recordsWritten() };
  let restUntil = 0;

  const copy = async (mostBatches: number, size: BatchSize, idle = false): Promise<void> => {
    try {
      await copier.copy(mostBatches, size);
      if (idle && copier.waitingBytes === 0) await whenIdle();
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
    if (copier.waitingBytes >= MAX_WAITING_BYTES) return 1;
    return SHARES.find(([from]) => perSecond > from)?.[1] ?? 1;
  };
  const turn = async (): Promise<void> => {
    const share = shareNow();
    const isBusy = share < 1;
    if (!isBusy) restUntil = 0;
    if (performance.now() >= restUntil) {
      const began = performance.now();
      // One batch, then whether it has become busy is asked again; a large one where nobody has to wait for it.
      await copy(1, isBusy ? "small" : "large", !isBusy);
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
      await copy(Infinity, "large");
    },
  };
}
