import { startThread } from "../../../threads/thread.ts";
import { UNWATCHED } from "../../../threads/progress.ts";
import { crossed, type Crossing } from "../../ground/crossing.ts";
import { invalid, Problem } from "../../ground/problem.ts";
import { readText, type TextTask, type Texts } from "./read-text.ts";

/** Text of this length is read where it is: handing it over would take longer. */
const SHORT = 3_000;
const TIMEOUT_MS = 30_000;
const MAX_WAITING = 100;
const OLD_MB = 1_024;

// What the texts that are no files came in.
const FIELD_OF: Readonly<Partial<Record<TextTask["do"], string>>> = { take: "html", password: "password" };

/** Starts the thread when it is first needed. Text that it is not done with in time is given up, and the thread with it. */
export function startTexts(report: (message: string, error: unknown) => void, timeoutMs = TIMEOUT_MS): Texts {
  const thread = startThread<TextTask, Crossing<unknown>>(new URL("./text-worker.mjs", import.meta.url), {
    atOnce: 1,
    idleMs: 60_000,
    maxWaiting: MAX_WAITING,
    resourceLimits: { maxOldGenerationSizeMb: OLD_MB },
    report,
  });
  return {
    async read(task) {
      if (task.do === "take" && task.html.length <= SHORT) return readText(task);
      const late = AbortSignal.timeout(timeoutMs);
      try {
        return crossed(await thread.run(task, UNWATCHED, late)) as never;
      } catch (error) {
        if (error instanceof Problem) throw error;
        const path = FIELD_OF[task.do] ?? "file";
        if (late.aborted)
          throw invalid([
            {
              path,
              message: "This text takes too long to read; it was given up. Import it in smaller parts.",
            },
          ]);
        if (/queue/i.test((error as Error).message))
          throw new Problem(503, "Too busy", "Many texts are being read; try again in a moment.", {
            headers: { "Retry-After": "5" },
          });
        if ((error as NodeJS.ErrnoException).code === "ERR_WORKER_OUT_OF_MEMORY")
          throw invalid([
            {
              path,
              message: "This text needs more memory than there is for it. Import it in smaller parts.",
            },
          ]);
        throw error;
      }
    },
    end: () => thread.end(),
  };
}
