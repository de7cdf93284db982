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
