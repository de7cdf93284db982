import type { Logger } from "pino";
import { requestId } from "../desk/ground/request-id.ts";

const QUIET_MS = 60_000;

/** Tells of what went wrong. */
export interface Reporting {
  report(message: string, error: unknown): void;
  /** Tells what was held back, at the end. */
  stop(): void;
}

interface Repeated {
  held: number;
  error: unknown;
  timer: NodeJS.Timeout;
}

/**
 * Writes what goes wrong into the log. What is said again within a minute is counted instead, and told once, with its count,
 * when the minute is over; what goes on failing is told once a minute.
 */
export function reportTo(log: Pick<Logger, "warn">, quietMs = QUIET_MS): Reporting {
  const repeated = new Map<string, Repeated>();
  const write = (message: string, error: unknown, times = 1): void =>
    log.warn(
      {
        ...(error === undefined ? {} : { err: error }),
        ...(times > 1 ? { times } : {}),
        requestId: requestId(),
      },
      message,
    );
  function quiet(message: string): Repeated {
    const timer = setTimeout(() => endOf(message), quietMs);
    timer.unref();
    return { held: 0, error: undefined, timer };
  }
  function endOf(message: string): void {
    const { held, error } = repeated.get(message)!;
    if (held === 0) return void repeated.delete(message);
    write(message, error, held);
    repeated.set(message, quiet(message));
  }
  return {
    report(message, error) {
      const again = repeated.get(message);
      if (again) {
        again.held += 1;
        again.error = error;
        return;
      }
      write(message, error);
      repeated.set(message, quiet(message));
    },
    stop() {
      for (const [message, { held, error, timer }] of repeated) {
        clearTimeout(timer);
        if (held > 0) write(message, error, held);
      }
      repeated.clear();
    },
  };
}
