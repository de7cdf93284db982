import { MessageChannel, type ResourceLimits } from "node:worker_threads";
import { Piscina } from "piscina";
import type { FromThread, Handed, Outcome } from "./in-thread.ts";
import { Stopped, type Progress } from "./progress.ts";

/** A thread beside the requests: begun when it is first needed, begun again when it dies. */
export interface Thread<Request, Answer> {
  /**
   * Has a request worked on. Throws what the work throws, and an Error when the thread dies of it. When `within`
   * ends, the thread is ended with it; the progress' own signal asks the work to stop by itself.
   */
  run(request: Request, progress: Progress, within?: AbortSignal): Promise<Answer>;
  end(): Promise<void>;
}

export interface ThreadOptions {
  /** Requests that it works on at once; more of them wait. */
  atOnce: number;
  /** How many may wait before others are refused. */
  maxWaiting?: number;
  workerData?: unknown;
  resourceLimits?: ResourceLimits;
  /** How long it is kept without work, in milliseconds. */
  idleMs?: number;
  report(message: string, error: unknown): void;
}

/** Makes a thread of a file whose default export `inThread` has made. */
export function startThread<Request, Answer>(file: URL, options: ThreadOptions): Thread<Request, Answer> {
  const { atOnce, maxWaiting, workerData, resourceLimits, idleMs, report } = options;
  const pool = new Piscina({
    filename: file.href,
    minThreads: 0,
    maxThreads: 1,
    concurrentTasksPerWorker: atOnce,
    // A thread that waits for its next request goes on with what it has begun.
    atomics: "disabled",
    ...(idleMs === undefined ? {} : { idleTimeout: idleMs }),
    ...(maxWaiting === undefined ? {} : { maxQueue: maxWaiting }),
    ...(workerData === undefined ? {} : { workerData }),
    ...(resourceLimits === undefined ? {} : { resourceLimits }),
  });
  return {
    async run(request, progress, within) {
      const { port1: ours, port2: port } = new MessageChannel();
      const stop = (): void => ours.postMessage("stop");
      ours.on("message", (message: FromThread) => {
        if (message.kind === "report") report(message.message, message.error);
        // Whoever watches wants it stopped; the thread answers when it has.
        else progress.step(message.done, message.total).catch(stop);
      });
      progress.signal.addEventListener("abort", stop);
      if (progress.signal.aborted) stop();
      try {
        const handed: Handed<Request> = { request, job: progress.job, port };
        const outcome = (await pool.run(handed, {
          transferList: [port],
          ...(within === undefined ? {} : { signal: within }),
        })) as Outcome<Answer>;
        if ("stopped" in outcome) throw new Stopped();
        return outcome.answer;
      } finally {
        // Some signals outlive every request.
        progress.signal.removeEventListener("abort", stop);
        ours.close();
      }
    },
    end: () => pool.destroy(),
  };
}
