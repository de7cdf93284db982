import type { Job } from "../../contract/jobs.ts";
import { useEffect, useMemo, useRef, useState } from "react";
import { api, messageOf, ApiProblem, type Answer, type CallName } from "../client/api.ts";
import * as say from "../words.ts";

/** What a bar shows of work, whatever it comes to. */
export type WorkShown = Pick<Work<CallName>, "state" | "share" | "message" | "stop">;

/** Where work stands, for the screen that started it. */
export interface Work<N extends CallName> {
  state: "idle" | "running" | "done" | "failed" | "stopped";
  /** From 0 to 1; undefined while it is not known. */
  share: number | undefined;
  result: Answer<N> | undefined;
  /** The job that it is, once it is one. */
  jobId: string | undefined;
  error: ApiProblem | undefined;
  message: string;
  /** Starts work; `begin` asks the API for it and answers the job. */
  start(begin: () => Promise<Job>): void;
  stop(): void;
  reset(): void;
}

const ASK_EVERY_MS = 250;
const SOON_MS = 60;
const IDLE = {
  state: "idle" as const,
  share: undefined,
  result: undefined,
  jobId: undefined,
  error: undefined,
  message: "",
};

/** Follows one piece of long work at a time: its progress, its result, and how to stop it. */
export function useWork<N extends CallName>(): Work<N> {
  const [view, setView] = useState<Omit<Work<N>, "start" | "stop" | "reset">>(IDLE);
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
    const show = (job: Job): void => {
      // Work that was begun later is what is shown.
      if (job.id !== current.current) return;
      if (job.state === "failed") return failed(refusalOf(job));
      setView({
        ...IDLE,
        state: job.state,
        jobId: job.id,
        message: job.note,
        share: job.total > 0 ? job.done / job.total : undefined,
        result: (job.result ?? undefined) as Answer<N> | undefined,
      });
      if (job.state === "running") timer.current = setTimeout(() => void ask(job.id), ASK_EVERY_MS);
    };
    const ask = async (id: string): Promise<void> => {
      try {
        show(await api("GET /jobs/:job", { job: id }));
      } catch (error) {
        if (id === current.current) failed(error);
      }
    };
    const halt = (): void => {
      clearTimeout(timer.current);
      if (current.current) void api("DELETE /jobs/:job", { job: current.current }).catch(failed);
    };
    return {
      start(begin: () => Promise<Job>): void {
        const mine = (turn.current += 1);
        clearTimeout(timer.current);
        current.current = undefined;
        setView({ ...IDLE, state: "running" });
        begin().then(
          (job) => {
            if (mine !== turn.current) return;
            current.current = job.id;
            show(job);
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

function refusalOf({ problem }: Job): ApiProblem {
  const { status = 500, ...told } = (problem ?? {}) as { status?: number };
  return new ApiProblem(status, told);
}

/**
 * What a job came to, for whoever waits for it; `show` is told how far it is. Throws ApiProblem where it was refused or
 * has failed, and an AbortError where somebody stopped it.
 */
export async function outcomeOf<N extends CallName>(
  begin: () => Promise<Job>,
  show: (job: Job) => void = () => undefined,
): Promise<Answer<N>> {
  let job = await begin();
  for (let pause = SOON_MS; job.state === "running"; pause = Math.min(ASK_EVERY_MS, pause * 2)) {
    await new Promise((resolve) => setTimeout(resolve, pause));
    job = await api("GET /jobs/:job", { job: job.id });
    show(job);
  }
  if (job.state === "failed") throw refusalOf(job);
  if (job.state === "stopped") throw new DOMException(say.stopped, "AbortError");
  return job.result as Answer<N>;
}
