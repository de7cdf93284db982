import { setTimeout as rest } from "node:timers/promises";
import { keepRunning } from "../threads/keep-running.ts";
import { startThread } from "../threads/thread.ts";
import { Stopped, UNWATCHED, type Progress } from "../threads/progress.ts";
import { crossed, type Crossing } from "./ground/crossing.ts";
import { requestId } from "./ground/request-id.ts";
import type { DeskThread } from "./jobs/desk-thread.ts";
import type { Task } from "./jobs/task.ts";

/** What the thread works on. */
export interface ThreadWork {
  databaseUrl: string;
  deliveryPort: number;
}

/** A task by its name, with what it works on. */
export interface ThreadTask {
  task: string;
  siteId: string;
  input: unknown;
  /** The id of the request that asks for it. */
  request: string | undefined;
}

/** What the thread is asked: a task, or to let the ledger follow whatever changes until it is told to stop. */
export type ThreadRequest = ThreadTask | "follow";

const YOUNG_MB = 192;
const END_MS = 3_000;
const AT_ONCE = 256;

/** Starts the thread. One that dies is told of and started again; whoever waited for it learns that it failed. */
export function startDeskThread(
  work: ThreadWork,
  report: (message: string, error: unknown) => void,
): DeskThread {
  const thread = startThread<ThreadRequest, Crossing<unknown>>(
    new URL("./desk-worker.mjs", import.meta.url),
    {
      atOnce: AT_ONCE,
      workerData: work,
      // Its work makes many short-lived values: with the usual room, a third of the time goes into clearing them up.
      resourceLimits: { maxYoungGenerationSizeMb: YOUNG_MB },
      report,
    },
  );
  const ending = new AbortController();
  const running = new Set<Promise<unknown>>();

  async function ask(request: ThreadRequest, progress: Progress): Promise<Crossing<unknown>> {
    const signal = AbortSignal.any([progress.signal, ending.signal]);
    const answer = thread.run(request, { ...progress, signal });
    running.add(answer);
    try {
      return await answer;
    } catch (error) {
      if (ending.signal.aborted) throw new Stopped();
      throw error;
    } finally {
      running.delete(answer);
    }
  }
  void keepRunning(
    () => ask("follow", UNWATCHED),
    ending.signal,
    (error) => report("The desk's thread failed; it is started again.", error),
  );
  return {
    async run<Input, Result>(
      task: Task<never, Input, Result>,
      siteId: string,
      input: Input,
      progress: Progress,
    ) {
      return crossed(await ask({ task: task.name, siteId, input, request: requestId() }, progress)) as Result;
    },
    async end() {
      ending.abort();
      await Promise.race([Promise.allSettled(running), rest(END_MS, undefined, { ref: false })]);
      await thread.end();
    },
  };
}
