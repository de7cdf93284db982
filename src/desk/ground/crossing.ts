import { Problem, type ProblemParts } from "./problem.ts";

/** What a thread of the desk answers: a refusal crosses as its parts, for classes of errors do not. */
export type Crossing<Result> = { result: Result } | { refused: ProblemParts };

/** Does a thread's work; what is refused is its answer, everything else is thrown. */
export async function crossing<Result>(work: () => Result | Promise<Result>): Promise<Crossing<Result>> {
  try {
    return { result: await work() };
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    return { refused: error.parts() };
  }
}

/** The result on this side. Throws the Problem that was refused on the other. */
export function crossed<Result>(answer: Crossing<Result>): Result {
  if ("refused" in answer) throw Problem.of(answer.refused);
  return answer.result;
}
