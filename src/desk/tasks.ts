import type { ThreadDesk } from "./desk.ts";
import { importReportTask, lookAtReportTask } from "./earnings/import-report.ts";
import type { ThreadTask } from "./start-desk-thread.ts";
import type { Progress } from "../threads/progress.ts";
import type { Task } from "./jobs/task.ts";
import { catchUpTask, rebuildTask } from "./ledger/follow-ledger.ts";
import { findRepeatsTask } from "./origin/reading/repeats.ts";
import { createPageTask, savePageTask } from "./pages/page-tasks.ts";
import { changeRoutesTask } from "./routes/many/bulk-job.ts";
import { importRoutesTask } from "./routes/transfer/import-routes.ts";
import { trySwapsTask } from "./rules/swaps/try-swaps.ts";
import { tryRulesTask } from "./rules/try-rules.ts";
import { openSite } from "./sites/open-site.ts";

const TASKS: ReadonlyMap<string, Task<ThreadDesk, never, unknown>> = new Map(
  [
    catchUpTask,
    changeRoutesTask,
    createPageTask,
    findRepeatsTask,
    importReportTask,
    importRoutesTask,
    lookAtReportTask,
    rebuildTask,
    savePageTask,
    tryRulesTask,
    trySwapsTask,
  ].map((task) => [task.name, task]),
);

/** Runs a task by its name, on whatever thread. Throws what the task throws. */
export async function runTask(
  desk: ThreadDesk,
  { task: name, siteId, input }: Omit<ThreadTask, "request">,
  progress: Progress,
): Promise<unknown> {
  const task = TASKS.get(name);
  if (!task) throw new Error(`nobody knows the task ${name}`);
  return task.run(desk, await openSite(desk, siteId), input as never, progress);
}
