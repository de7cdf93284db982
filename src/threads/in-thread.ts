import { setImmediate as immediate } from "node:timers/promises";
import type { MessagePort } from "node:worker_threads";
import { Stopped, type JobMark, type Progress } from "./progress.ts";

/** What a thread tells of a request while it works on it. */
export type FromThread =
  { kind: "step"; done: number; total: number } | { kind: "report"; message: string; error: unknown };

/** A request as it is handed to a thread: its port carries FromThread there, and any message back asks it to stop. */
export interface Handed<Request> {
  request: Request;
  job: JobMark | undefined;
  port: MessagePort;
}

/** What a request came to in the thread, where it did not fail: the classes of errors do not cross. */
export type Outcome<Answer> = { answer: Answer } | { stopped: true };

/** What a thread's work is given besides the request. */
export interface InThread extends Progress {
  /** Tells whoever runs this of a failure that the work does not fail by. */
  report(message: string, error: unknown): void;
}

/** Makes the function that a thread of a pool answers requests with. What it throws, whoever asked is thrown. */
export function inThread<Request, Answer>(
  work: (request: Request, progress: InThread) => Answer | Promise<Answer>,
): (handed: Handed<Request>) => Promise<Outcome<Answer>> {
  return async ({ request, job, port }) => {
    const control = new AbortController();
    const tell = (message: FromThread): void => port.postMessage(message);
    port.on("message", () => control.abort());
    try {
      const answer = await work(request, {
        job,
        signal: control.signal,
        report: (message, error) => tell({ kind: "report", message, error }),
        async step(done, total) {
          tell({ kind: "step", done, total });
          await immediate();
          if (control.signal.aborted) throw new Stopped();
        },
      });
      return { answer };
    } catch (error) {
      if (error instanceof Stopped) return { stopped: true };
      throw error;
    } finally {
      port.close();
    }
  };
}
