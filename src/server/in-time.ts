import { setTimeout as rest } from "node:timers/promises";

/**
 * Waits for the steps of an end that are taken side by side, for up to `ms` milliseconds. A step that takes longer is
 * told of by its name and left behind, so that a process always comes to its end; one that fails, fails this.
 */
export async function inTime(
  steps: Readonly<Record<string, Promise<unknown>>>,
  ms: number,
  report: (message: string, error: unknown) => void,
): Promise<void> {
  const waiting = new Set(Object.keys(steps));
  const over = new AbortController();
  const taken = Promise.all(
    Object.entries(steps).map(([name, step]) => step.then(() => waiting.delete(name))),
  ).finally(() => over.abort());
  const late = rest(ms, undefined, { signal: over.signal }).catch(() => undefined); // all are done before
  await Promise.race([taken, late]);
  for (const name of waiting)
    report(`Ending, this did not come to its end and is left behind: ${name}.`, undefined);
}
