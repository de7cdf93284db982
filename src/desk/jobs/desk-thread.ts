import { Worker } from "node:worker_threads";
import { Stopped, type Progress } from "./jobs.ts";
import { Problem, type ProblemParts } from "../ground/problem.ts";
import type { Task } from "./task.ts";

/** What the thread works on. */
export interface ThreadWork {
  databaseUrl: string;
  deliveryPort: number;
}

/** A task by its name, with what it works on. */
export interface ThreadRequest {
  task: string;
  siteId: string;
  input: unknown;
}

export type ToThread =
  ({ kind: "run"; id: number } & ThreadRequest) | { kind: "stop"; id: number } | { kind: "end" };
export type FromThread =
  | { kind: "step"; id: number; done: number; total: number }
  | { kind: "done"; id: number; result: unknown }
  | { kind: "failed"; id: number; stopped: boolean; problem?: ProblemParts; error?: unknown }
  | { kind: "report"; message: string; error: unknown };

/** Work beside the requests: rules are tried and the ledger is read anew in a thread of their own. */
export interface DeskThread {
  /** Runs a task to its end. Throws Stopped when its progress is told to, and what the task throws. */
  run<Input, Result>(
    task: Task<never, Input, Result>,
    siteId: string,
    input: Input,
    progress: Progress,
  ): Promise<Result>;
  /** Ends the thread; what it was doing is given up, and begun again by the next start. */
  end(): Promise<void>;
}

export interface WithThread {
  /** Heavy work, off the thread that answers requests. */
  thread: DeskThread;
}

interface Waiting {
  resolve(result: unknown): void;
  reject(error: unknown): void;
  progress: Progress;
}

const AGAIN_MS = 1_000;
const YOUNG_MB = 192;

/** Starts the thread. One that dies is told of and started again; whoever waited for it learns that it failed. */
export function startDeskThread(
  work: ThreadWork,
  report: (message: string, error: unknown) => void,
): DeskThread {
  const waiting = new Map<number, Waiting>();
  let lastId = 0;
  let worker: Worker | undefined;
  let ending = false;
  let again: NodeJS.Timeout | undefined;
  let ended: Promise<void> = Promise.resolve();

  function begin(): void {
    const thread = new Worker(new URL("../desk-worker.mjs", import.meta.url), {
      workerData: work,
      // Its work makes many short-lived values: with the usual room, a third of the time goes into clearing them up.
      resourceLimits: { maxYoungGenerationSizeMb: YOUNG_MB },
    });
    worker = thread;
    ended = new Promise((resolve) => {
      thread.once("exit", () => {
        worker = undefined;
        for (const { reject } of waiting.values())
          reject(ending ? new Stopped() : new Error("the thread ended"));
        waiting.clear();
        if (!ending) again = setTimeout(begin, AGAIN_MS);
        resolve();
      });
    });
    thread.on("error", (error) => report("The desk's thread failed; it is started again.", error));
    thread.on("message", take);
  }
  function take(message: FromThread): void {
    if (message.kind === "report") return report(message.message, message.error);
    const asked = waiting.get(message.id);
    if (!asked) return;
    if (message.kind === "step") return void step(message.id, asked, message.done, message.total);
    waiting.delete(message.id);
    if (message.kind === "done") asked.resolve(message.result);
    else asked.reject(thrown(message));
  }
  async function step(id: number, { progress }: Waiting, done: number, total: number): Promise<void> {
    try {
      await progress.step(done, total);
    } catch {
      // Whoever watches wants it stopped; the thread answers when it has.
      say({ kind: "stop", id });
    }
  }
  const say = (message: ToThread): void => worker?.postMessage(message);

  begin();
  return {
    run: async <Input, Result>(
      task: Task<never, Input, Result>,
      siteId: string,
      input: Input,
      progress: Progress,
    ) => {
      if (!worker) throw new Problem(503, "Not ready", "This is started anew; try again in a moment.");
      const id = (lastId += 1);
      const stop = (): void => say({ kind: "stop", id });
      progress.signal.addEventListener("abort", stop);
      try {
        return await new Promise<Result>((resolve, reject) => {
          waiting.set(id, { resolve: resolve as (result: unknown) => void, reject, progress });
          say({ kind: "run", id, task: task.name, siteId, input });
        });
      } finally {
        // Some signals outlive every task.
        progress.signal.removeEventListener("abort", stop);
      }
    },
    async end() {
      ending = true;
      clearTimeout(again);
      say({ kind: "end" });
      const timer = setTimeout(() => void worker?.terminate(), 3_000);
      await ended;
      clearTimeout(timer);
    },
  };
}

function thrown({ stopped, problem, error }: FromThread & { kind: "failed" }): unknown {
  if (stopped) return new Stopped();
  return problem ? Problem.of(problem) : error;
}
