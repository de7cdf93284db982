export interface OwnPostgres {
  port: number;
  data: string;
  /** True when the server ran already, left by an earlier start. */
  reused: boolean;
  url(database: string): string;
  stop(mode?: "fast" | "immediate"): void;
  /** Takes the data away for good. */
  discard(): void;
  restart(): void;
}
export function postgresFolder(): string | undefined;
export function startPostgres(folder: string, settings?: Record<string, string>): Promise<OwnPostgres>;
export function freePort(): Promise<number>;
