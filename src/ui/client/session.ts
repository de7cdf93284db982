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

/** Signs in; answers undefined when that worked, else why it did not. Throws TypeError when the network is gone. */
export async function signIn(input: { email: string; password: string }): Promise<string | undefined> {
  const response = await fetch("/session", {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify(input),
  });
  if (response.ok) return undefined;
  const problem = (await response.json().catch(() => ({}))) as { detail?: string };
  return problem.detail ?? "That did not work.";
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
