import type { Waiting } from "./spool-copier.ts";
import { keepRunning } from "../../threads/keep-running.ts";
import { UNWATCHED } from "../../threads/progress.ts";
import { startThread } from "../../threads/thread.ts";

/** What the copying thread works on. */
export interface CopyWork {
  databaseUrl: string;
  folder: string;
  /** The name of the spool that is written here. */
  owner: string;
  /** The spool's counter, by which copying knows how busy readers are. */
  counter: SharedArrayBuffer;
}

/** What it is asked: to copy until it is told to stop, or how many records wait in the folder. */
export type CopyRequest = "copy" | "pending";

/** Copying of the spool to the database, beside the listener. */
export interface Copying {
  /** What waits in the folder, as the thread says, or said last while it is being started again. */
  pending(): Promise<Waiting>;
  /** Ends after a last copy. */
  stop(): Promise<void>;
}

/**
 * Copies in a thread of its own: a batch of some thousand records takes tens of milliseconds to read and to
 * put into a statement, and on the listener's thread every answer of that time would wait for it. A thread
 * that dies is told of and begun again; what it had not copied is still on the disk.
 */
export function startCopying(
  databaseUrl: string,
  { folder, owner }: { folder: string; owner: string },
  counter: SharedArrayBuffer,
  report: (message: string, error: unknown) => void,
): Copying {
  const workerData: CopyWork = { databaseUrl, folder, owner, counter };
  const thread = startThread<CopyRequest, Waiting>(new URL("./copy-worker.mjs", import.meta.url), {
    atOnce: 16,
    workerData,
    report,
  });
  const stopping = new AbortController();
  let lastPending: Waiting = { records: 0, oldest: null };
  let isRunning = false;

  const copying = keepRunning(
    () => {
      isRunning = true;
      return thread.run("copy", { ...UNWATCHED, signal: stopping.signal });
    },
    stopping.signal,
    (error) => {
      isRunning = false;
      report("The thread that copies clicks failed; it is started again.", error);
    },
  );
  return {
    async pending() {
      if (!isRunning) return lastPending;
      try {
        lastPending = await thread.run("pending", UNWATCHED);
      } catch (error) {
        // A thread that dies over the question is told of by what it was copying.
        if (isRunning) throw error;
      }
      return lastPending;
    },
    async stop() {
      stopping.abort();
      await copying;
      await thread.end();
    },
  };
}
