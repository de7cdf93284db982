import type { Progress } from "../../threads/progress.ts";
import type { Task } from "./task.ts";

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
