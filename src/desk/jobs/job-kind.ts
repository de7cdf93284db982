import type { Actor } from "../../core/people/actor.ts";
import type { Progress } from "../../threads/progress.ts";
import type { OpenSite } from "../sites/open-site.ts";

/** What a job, or whoever waits for the same work, works on. */
export interface JobWork<Input> {
  actor: Actor;
  site: OpenSite;
  input: Input;
  /** The file that came with it; empty where none did. */
  file(): Promise<Uint8Array>;
}

/**
 * Long work of one kind. What it is given is kept as JSON until a process takes it on, and it may be begun more than
 * once: what it does, it does in one transaction, and keeps what it came to within that (`settle`) where a second time would do more.
 */
export interface JobKind<Desk, Input, Result> {
  readonly name: string;
  run(desk: Desk, work: JobWork<Input>, progress: Progress): Promise<Result>;
  /** Its file is what it brought, kept for whoever asks for it later; else it goes when the work is done. */
  readonly bringsFile?: true;
  /** Of those that answer the same, one is worked on at a time; absent where they are in nobody's way. */
  oneOf?(siteId: string, input: Input): string;
}
