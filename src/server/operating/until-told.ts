/** Whether the process was told to stop. */
export interface Told {
  readonly isTold: boolean;
  /** Resolves after so many milliseconds, or as soon as it is told. */
  rest(ms: number): Promise<void>;
}

/** Listens for what ends a command that runs until it is stopped. */
export function untilTold(): Told {
  const stopping = new AbortController();
  for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"] as const) process.on(signal, () => stopping.abort());
  return {
    get isTold() {
      return stopping.signal.aborted;
    },
    rest(ms) {
      return new Promise((resolve) => {
        if (stopping.signal.aborted) return resolve();
        const timer = setTimeout(done, ms);
        function done(): void {
          clearTimeout(timer);
          stopping.signal.removeEventListener("abort", done);
          resolve();
        }
        stopping.signal.addEventListener("abort", done);
      });
    },
  };
}
