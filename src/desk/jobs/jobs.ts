import { randomUUID } from "node:crypto";
import { Problem } from "../ground/problem.ts";
import type { Job } from "../../contract/jobs.ts";

/** How work tells how far it is, and learns that it is to stop. */
export interface Progress {
  /** Tells how much is done, and lets others have their turn. Throws Stopped when somebody asked for that. */
  step(done: number, total: number): Promise<void>;
  readonly signal: AbortSignal;
}

/** Thrown by `step` when the work is to stop; whatever it holds in a transaction is rolled back. */
export class Stopped extends Error {
  constructor() {
    super("stopped");
  }
}

/** Long work of this process, each piece known by an id for an hour. */
export interface Jobs {
  start(owner: string, name: string, work: (progress: Progress) => Promise<unknown>): Job;
  find(owner: string, id: string): Job | undefined;
  stop(owner: string, id: string): boolean;
}

export interface WithJobs {
  /** Long work that goes on while its asker looks elsewhere. */
  jobs: Jobs;
}

/** Progress for work that nobody watches: it only lets others have their turn. */
export const UNWATCHED: Progress = {
  step: () => new Promise((resolve) => setImmediate(resolve)),
  signal: new AbortController().signal,
};

const KEPT_MS = 3_600_000;
const MAX_KEPT = 200;

interface Held {
  owner: string;
  job: Job;
  control: AbortController;
  began: number;
}

/** Keeps jobs in memory: a job is its process's own, and ends with it. */
export function createJobs(failed: (error: unknown) => void): Jobs {
  const held = new Map<string, Held>();
  const find = (owner: string, id: string): Held | undefined => {
    const found = held.get(id);
    return found?.owner === owner ? found : undefined;
  };
  return {
    start(owner, name, work) {
      const began = performance.now();
      for (const [id, { job, began: then }] of held)
        if (job.state !== "running" && (began - then > KEPT_MS || held.size > MAX_KEPT)) held.delete(id);
      const control = new AbortController();
      const job: Job = {
        id: randomUUID(),
        name,
        state: "running",
        done: 0,
        total: 0,
        result: null,
        problem: null,
      };
      held.set(job.id, { owner, job, control, began });
      const progress: Progress = {
        signal: control.signal,
        async step(done, total) {
          Object.assign(job, { done, total });
          await new Promise((resolve) => setImmediate(resolve));
          if (control.signal.aborted) throw new Stopped();
        },
      };
      work(progress).then(
        (result) => Object.assign(job, { state: "done", result, done: job.total }),
        (error: unknown) => {
          if (error instanceof Stopped) return void Object.assign(job, { state: "stopped" });
          if (!(error instanceof Problem)) failed(error);
          const problem =
            error instanceof Problem
              ? error
              : new Problem(
                  500,
                  "Something failed here",
                  "The fault is ours and has been logged. Nothing was saved.",
                );
          Object.assign(job, { state: "failed", problem: problem.toJSON() });
        },
      );
      return job;
    },
    find: (owner, id) => find(owner, id)?.job,
    stop(owner, id) {
      const found = find(owner, id);
      found?.control.abort();
      return found !== undefined;
    },
  };
}
