import { setTimeout as rest } from "node:timers/promises";
import { Stopped } from "./progress.ts";

const AGAIN_MS = 1_000;

/** Keeps work going that does not end by itself, until it is told to stop: what fails is told of, and begun again a little later. */
export async function keepRunning(
  work: () => Promise<unknown>,
  signal: AbortSignal,
  failed: (error: unknown) => void,
): Promise<void> {
  while (!signal.aborted) {
    try {
      await work();
    } catch (error) {
      if (error instanceof Stopped) return;
      failed(error);
      await rest(AGAIN_MS, undefined, { signal, ref: false }).catch(() => undefined); // ended early: it is to stop
    }
  }
}
