/** Work that is done over and over for as long as the process runs. */
export interface Repeating {
  /** One turn; answers how long to rest before the next, in milliseconds. */
  turn(signal: AbortSignal): Promise<number>;
  /** What to say when a turn fails; said once for each outage. */
  failure: string;
  /** Rest before the first turn and after a failed one, in milliseconds. */
  restMs: number;
}

/** Begins such work; `stop` lets the turn that runs come to its end. */
export function repeating(
  { turn, failure, restMs }: Repeating,
  report: (message: string, error: unknown) => void,
): { stop(): Promise<void> } {
  const control = new AbortController();
  let failing = false;
  let timer: NodeJS.Timeout | undefined;
  let running = Promise.resolve();
  const once = async (): Promise<void> => {
    let rest = restMs;
    try {
      rest = await turn(control.signal);
      failing = false;
    } catch (error) {
      if (!failing) report(failure, error);
      failing = true;
    }
    if (!control.signal.aborted) timer = setTimeout(next, rest);
  };
  const next = (): void => {
    running = once();
  };
  timer = setTimeout(next, restMs);
  timer.unref();
  return {
    async stop() {
      control.abort();
      clearTimeout(timer);
      await running;
    },
  };
}
