/** How work tells how far it is, and learns that it is to stop. */
export interface Progress {
  /** Tells how much is done, and lets others have their turn. Throws Stopped when somebody asked for that. */
  step(done: number, total: number): Promise<void>;
  readonly signal: AbortSignal;
  /** The job that this is an attempt at; absent where somebody waits for the answer. */
  readonly job?: JobMark | undefined;
}

/** One attempt at a job: another one has another number. */
export interface JobMark {
  id: string;
  attempt: number;
}

/** Thrown by `step` when the work is to stop; whatever it holds in a transaction is rolled back. */
export class Stopped extends Error {
  constructor() {
    super("stopped");
  }
}

/** Progress for work that nobody watches: it only lets others have their turn. */
export const UNWATCHED: Progress = {
  step: () => new Promise((resolve) => setImmediate(resolve)),
  signal: new AbortController().signal,
};
