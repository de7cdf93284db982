import { useEffect, useMemo, useRef, useState } from "react";
import { api, ApiProblem, messageOf } from "../client/api.ts";

/** Long work as the API tells of it. */
interface Job<T> {
  id: string;
  state: "running" | "done" | "failed" | "stopped";
  done: number;
  total: number;
  result: T | null;
  problem: {
    status: number;
    detail?: string;
    title?: string;
    errors?: { path: string; message: string }[];
  } | null;
}

/** Where work stands, for the screen that started it. */
export interface Work<T> {
  state: "idle" | "running" | "done" | "failed" | "stopped";
  /** From 0 to 1; undefined while it is not known. */
  share: number | undefined;
  result: T | undefined;
  error: ApiProblem | undefined;
  message: string;
  /** Starts work; `begin` asks the API for it and answers the job. */
  start(begin: () => Promise<unknown>): void;
  stop(): void;
  reset(): void;
}

const ASK_EVERY_MS = 250;
const IDLE = { state: "idle" as const, share: undefined, result: undefined, error: undefined, message: "" };

/** Follows one piece of long work at a time: its progress, its result, and how to stop it. */
export function useWork<T>(): Work<T> {
  const [view, setView] = useState<Omit<Work<T>, "start" | "stop" | "reset">>(IDLE);
  const current = useRef<string>(undefined);
  const turn = useRef(0);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);

  const controls = useMemo(() => {
    const failed = (error: unknown): void =>
      setView({
        ...IDLE,
        state: "failed",
        error: error instanceof ApiProblem ? error : undefined,
        message: messageOf(error),
      });
    const show = (job: Job<T>): void => {
      // Work that was begun later is what is shown.
      if (job.id !== current.current) return;
      if (job.state === "failed")
        return failed(new ApiProblem(job.problem?.status ?? 500, job.problem ?? {}));
      setView({
        ...IDLE,
        state: job.state,
        share: job.total > 0 ? job.done / job.total : undefined,
        result: job.result ?? undefined,
      });
      if (job.state === "running") timer.current = setTimeout(() => void ask(job.id), ASK_EVERY_MS);
    };
    const ask = async (id: string): Promise<void> => {
      try {
        show(await api<Job<T>>("GET", `/jobs/${id}`));
      } catch (error) {
        if (id === current.current) failed(error);
      }
    };
    const halt = (): void => {
      clearTimeout(timer.current);
      if (current.current) void api("DELETE", `/jobs/${current.current}`).catch(failed);
    };
    return {
      start(begin: () => Promise<unknown>): void {
        const mine = (turn.current += 1);
        clearTimeout(timer.current);
        current.current = undefined;
        setView({ ...IDLE, state: "running" });
        begin().then(
          (job) => {
            if (mine !== turn.current) return;
            current.current = (job as Job<T>).id;
            show(job as Job<T>);
          },
          (error: unknown) => mine === turn.current && failed(error),
        );
      },
      stop(): void {
        halt();
        if (current.current) void ask(current.current);
      },
      reset(): void {
        turn.current += 1;
        clearTimeout(timer.current);
        current.current = undefined;
        setView(IDLE);
      },
    };
  }, []);
  return { ...view, ...controls };
}
