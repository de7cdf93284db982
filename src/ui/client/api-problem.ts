/** A problem document that the API answered (RFC 9457). */
import * as say from "../words.ts";
export class ApiProblem extends Error {
  readonly status: number;
  readonly errors: { path: string; message: string }[];
  /** The current object, when a save was made on an old version. */
  readonly current: unknown;

  constructor(
    status: number,
    problem: {
      detail?: string;
      title?: string;
      errors?: { path: string; message: string }[];
      current?: unknown;
    },
  ) {
    super(problem.detail ?? problem.title ?? say.somethingWentWrong);
    this.status = status;
    this.errors = problem.errors ?? [];
    this.current = problem.current;
  }
}
