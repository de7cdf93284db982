import { ApiProblem } from "./api-problem.ts";
import * as say from "../words.ts";

let waiting: { promise: Promise<void>; done: () => void } | undefined;
const listeners = new Set<() => void>();

/** Waits until the person has signed in again; the screen asks them meanwhile. */
export function signInAgain(): Promise<void> {
  if (!waiting) {
    let done = (): void => undefined;
    const promise = new Promise<void>((resolve) => {
      done = resolve;
    });
    waiting = { promise, done };
    changed();
  }
  return waiting.promise;
}

/** Signs in. Throws ApiProblem when that is refused, TypeError when the network is gone. */
export async function enter(input: {
  email: string;
  password: string;
  code?: string | undefined;
}): Promise<void> {
  const response = await fetch("/session", {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify(input),
  });
  if (response.ok) return;
  const problem = (await response.json().catch(() => ({}))) as ConstructorParameters<typeof ApiProblem>[1];
  // Which of address and password is wrong is told of neither; a code that is asked for has a field of its own.
  const errors = problem.errors?.filter(({ path }) => path === "code") ?? [];
  throw new ApiProblem(response.status, { errors, detail: problem.detail ?? say.thatDidNotWork });
}

/** Asks for a mail with a link for a new password. Throws ApiProblem when that is refused. */
export async function askForReset(mail: string): Promise<void> {
  const response = await fetch("/session/reset", {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({ mail }),
  });
  if (!response.ok) throw new ApiProblem(response.status, await response.json().catch(() => ({})));
}

/** Ends the waiting: whatever was held up is sent again. */
export function signedInAgain(): void {
  waiting?.done();
  waiting = undefined;
  changed();
}

/** True while a session has ended and was not begun anew. */
export function isSignedOut(): boolean {
  return waiting !== undefined;
}

export function listenToSession(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

function changed(): void {
  for (const listener of listeners) listener();
}
