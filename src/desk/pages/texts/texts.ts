import { Piscina } from "piscina";
import { invalid, Problem, type ProblemParts } from "../../ground/problem.ts";
import { readText, type Texts } from "./read-text.ts";

/** Text of this length is read where it is: handing it over would take longer. */
const SHORT = 3_000;
const TIMEOUT_MS = 30_000;
const MAX_WAITING = 100;
const OLD_MB = 1_024;

/** Starts the thread when it is first needed. Text that it is not done with in time is given up, and the thread with it. */
export function startTexts(timeoutMs = TIMEOUT_MS): Texts {
  const pool = new Piscina({
    filename: new URL("./text-worker.mjs", import.meta.url).href,
    minThreads: 0,
    maxThreads: 1,
    idleTimeout: 60_000,
    maxQueue: MAX_WAITING,
    resourceLimits: { maxOldGenerationSizeMb: OLD_MB },
  });
  return {
    async read(task) {
      if (task.do === "take" && task.html.length <= SHORT) return readText(task);
      const late = AbortSignal.timeout(timeoutMs);
      try {
        const answer = (await pool.run(task, { signal: late })) as Answer;
        if ("refused" in answer) throw Problem.of(answer.refused);
        return answer.result as never;
      } catch (error) {
        if (error instanceof Problem) throw error;
        const path = task.do === "take" ? "html" : "file";
        if (late.aborted)
          throw invalid([
            {
              path,
              message: "This text takes too long to read; it was given up. Bring it in smaller parts.",
            },
          ]);
        if (/queue/i.test((error as Error).message))
          throw new Problem(503, "Too busy", "Many texts are being read; try again in a moment.", {
            headers: { "Retry-After": "5" },
          });
        if ((error as NodeJS.ErrnoException).code === "ERR_WORKER_OUT_OF_MEMORY")
          throw invalid([
            { path, message: "This text needs more memory than there is for it. Bring it in smaller parts." },
          ]);
        throw error;
      }
    },
    end: () => pool.destroy(),
  };
}

/** What the thread answers: a refusal crosses as its parts. */
export type Answer = { result: unknown } | { refused: ProblemParts };
