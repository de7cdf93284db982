import { setTimeout as rest } from "node:timers/promises";
import {
  beginJob,
  type BegunJob,
  dropJobFile,
  endJob,
  handBackJob,
  jobFile,
  tellJob,
  tidyJobs,
  waitWithJob,
} from "../../store/jobs/jobs.ts";
import { startQueue, type QueuedJob } from "../../store/jobs/queue.ts";
import { Stopped, type JobMark, type Progress } from "../../threads/progress.ts";
import type { WithReport, WithStore } from "../ground/parts.ts";
import { Problem } from "../ground/problem.ts";
import { withRequestId } from "../ground/request-id.ts";
import { openSite } from "../sites/open-site.ts";
import type { JobKind, JobWork } from "./job-kind.ts";

/** How often a job's row is told how far it is, and asked whether it is to stop, in milliseconds. */
const TELL_MS = 300;
const TIDY_MS = 5_000;
/** How long an end waits for work that is told to stop, before it is handed back as it is. */
const END_MS = 10_000;

const OUR_FAULT = new Problem(
  500,
  "Something failed here",
  "The fault is ours and has been logged. Nothing was saved.",
);
const BROKEN_OFF = new Problem(
  500,
  "Given up",
  "This was begun several times, and each time the process that worked on it ended. Nothing was saved.",
);

/**
 * Takes this process's part in long work: jobs are worked on as they come, one that fails by no fault of its own is tried
 * again a little later, and one whose process fell silent is taken on. When this process ends, it hands back what it has.
 */
export function startJobs<Desk extends WithStore & WithReport>(
  desk: Desk,
  kinds: ReadonlyMap<string, JobKind<Desk, never, unknown>>,
  endMs = END_MS,
): { stop(): Promise<void> } {
  const { store, report } = desk;
  const ending = new AbortController();
  const held = new Map<string, JobMark>();

  async function work(queued: QueuedJob): Promise<void> {
    const [begun] = await beginJob(store, queued);
    // What it notes and what it fails at are known by the request that asked for it.
    if (begun) await withRequestId(begun.request ?? undefined, () => workOn(queued, begun));
  }

  async function workOn({ id, isLast }: QueuedJob, begun: BegunJob): Promise<void> {
    const mark: JobMark = { id, attempt: begun.attempt };
    // A worker that was asking while the queue was told to stop may get one more.
    if (ending.signal.aborted) return handBackJob(store, mark);
    if (begun.settled) return void (await endJob(store, mark, { state: "done" }));
    const told = telling(mark);
    held.set(id, mark);
    try {
      const kind = kinds.get(begun.kind)!;
      const site = await openSite(desk, begun.siteId);
      const asked: JobWork<never> = {
        site,
        actor: { name: begun.owner, role: begun.role },
        input: begun.input as never,
        file: async () => (await jobFile(store, { id, site: site.id })) ?? new Uint8Array(),
      };
      const result = await kind.run(desk, asked, told.progress);
      await told.end();
      await endJob(store, mark, { state: "done", result: result ?? null });
      if (!kind.bringsFile) await dropJobFile(store, { id });
    } catch (error) {
      await told.end();
      if (await isOver(error, mark, isLast)) return;
      // The queue gives it out again when this one is thrown.
      throw error;
    } finally {
      held.delete(id);
    }
  }

  async function isOver(error: unknown, mark: JobMark, isLast: boolean): Promise<boolean> {
    if (error instanceof Problem) await endJob(store, mark, { state: "failed", problem: error });
    else if (ending.signal.aborted) await handBackJob(store, mark);
    else if (error instanceof Stopped) await endJob(store, mark, { state: "stopped" });
    else if (isLast) {
      report("A piece of long work failed.", error);
      await endJob(store, mark, { state: "failed", problem: OUR_FAULT });
    } else {
      report("A piece of long work failed; it is tried again.", error);
      await waitWithJob(store, { ...mark, note: "It failed, and is tried again in a moment." });
      return false;
    }
    return true;
  }

  // Progress is written down now and then, beside the work; the same statement tells whether to stop.
  function telling(mark: JobMark): { progress: Progress; end(): Promise<void> } {
    const control = new AbortController();
    const over = new AbortController();
    const signal = AbortSignal.any([control.signal, ending.signal]);
    let done = 0;
    let total = 0;
    async function tell(): Promise<void> {
      try {
        const [row] = await tellJob(store, { ...mark, done, total });
        if (!row || row.stopping) control.abort();
      } catch (error) {
        report("How far long work is could not be written down.", error);
      }
    }
    const loop = (async () => {
      while (!over.signal.aborted) {
        await tell();
        await rest(TELL_MS, undefined, { signal: over.signal }).catch(() => undefined);
      }
    })();
    return {
      progress: {
        job: mark,
        signal,
        async step(now, of) {
          [done, total] = [now, of];
          await new Promise((resolve) => setImmediate(resolve));
          if (signal.aborted) throw new Stopped();
        },
      },
      async end() {
        over.abort();
        await loop;
        // How far it came is told a last time.
        await tell();
      },
    };
  }

  const queue = startQueue(store.url, [...kinds.keys()], work, report);
  const tidying = (async () => {
    while (!ending.signal.aborted) {
      await tidyJobs(store, BROKEN_OFF).catch((error: unknown) =>
        report("Long work whose process ended could not be looked for.", error),
      );
      await rest(TIDY_MS, undefined, { signal: ending.signal, ref: false }).catch(() => undefined);
    }
  })();
  return {
    async stop() {
      // What is handed back is for others: first it takes no more.
      const stopped = queue.stop(() => ending.abort());
      await Promise.race([stopped, rest(endMs, undefined, { ref: false })]);
      // What does not hear is handed back all the same: whatever it still does goes under the number of an attempt that is over.
      for (const mark of held.values()) await handBackJob(store, mark);
      await tidying;
    },
  };
}
