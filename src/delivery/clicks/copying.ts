import { Worker } from "node:worker_threads";

/** What the copying thread works on. */
export interface CopyWork {
  databaseUrl: string;
  folder: string;
  /** The name of the spool that is written here. */
  owner: string;
  /** The spool's counter, by which copying knows how busy readers are. */
  counter: SharedArrayBuffer;
}

export type ToCopyWorker = { kind: "pending"; id: number } | { kind: "stop" };
export type FromCopyWorker =
  | { kind: "report"; message: string; error: unknown }
  | { kind: "pending"; id: number; records: number }
  | { kind: "failed"; id: number; error: unknown };

/** Copying of the spool to the database, beside the listener. */
export interface Copying {
  /** How many records wait in the folder, as the thread says, or said last while it is being started again. */
  pending(): Promise<number>;
  /** Ends after a last copy. */
  stop(): Promise<void>;
}

const AGAIN_MS = 1_000;

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
  const asked = new Map<number, { resolve(records: number): void; reject(error: unknown): void }>();
  let lastId = 0;
  let lastPending = 0;
  let stopping = false;
  let again: NodeJS.Timeout | undefined;
  let worker: Worker | undefined;
  let ended: Promise<void> = Promise.resolve();

  function begin(): void {
    const work: CopyWork = { databaseUrl, folder, owner, counter };
    const thread = new Worker(new URL("./copy-worker.mjs", import.meta.url), { workerData: work });
    worker = thread;
    ended = new Promise((resolve) => {
      thread.once("exit", () => {
        worker = undefined;
        for (const { resolve: answer } of asked.values()) answer(lastPending);
        asked.clear();
        if (!stopping) again = setTimeout(begin, AGAIN_MS);
        resolve();
      });
    });
    thread.on("error", (error) =>
      report("The thread that copies clicks failed; it is started again.", error),
    );
    thread.on("message", take);
  }
  function take(message: FromCopyWorker): void {
    if (message.kind === "report") return report(message.message, message.error);
    const waiting = asked.get(message.id);
    asked.delete(message.id);
    if (message.kind === "failed") return waiting?.reject(message.error);
    lastPending = message.records;
    waiting?.resolve(message.records);
  }
  begin();
  return {
    pending: () =>
      new Promise((resolve, reject) => {
        if (!worker) return resolve(lastPending);
        const message: ToCopyWorker = { kind: "pending", id: (lastId += 1) };
        asked.set(message.id, { resolve, reject });
        worker.postMessage(message);
      }),
    async stop() {
      stopping = true;
      clearTimeout(again);
      const message: ToCopyWorker = { kind: "stop" };
      worker?.postMessage(message);
      await ended;
    },
  };
}
