import type { OpenSite } from "../sites/open-site.ts";
import type { Progress } from "../../threads/progress.ts";

/**
 * Heavy work of a subject, done in the desk's thread: its name there, and what it does with what of the desk. Input and
 * result cross between threads, so they are plain values.
 */
export interface Task<Desk, Input, Result> {
  readonly name: string;
  run(desk: Desk, site: OpenSite, input: Input, progress: Progress): Promise<Result>;
}
