import type { z } from "zod";
import type { AnswerOf, Call, CallDefinition, Contract, ParamsOf } from "../../../contract/ground/call.ts";
import type { Job } from "../../../contract/jobs.ts";
import { UNWATCHED } from "../../../threads/progress.ts";
import type { JobKind } from "../../jobs/job-kind.ts";
import type { WithJobs } from "../../jobs/jobs.ts";
import type { OpenSite } from "../../sites/open-site.ts";
import type { Actor } from "../../../core/people/actor.ts";

type Output<S> = S extends z.ZodType ? z.output<S> : undefined;

/** What a call works on: of the desk as much as its handler names. */
export interface Asked<C extends Call, Desk> {
  desk: Desk;
  actor: Actor;
  /** The site of its path. */
  site: C["path"] extends `/sites/:site${string}` ? OpenSite : undefined;
  params: ParamsOf<C["path"]>;
  query: Output<C["query"]>;
  body: Output<C["body"]>;
  /** The request's body as it came, for calls that take one whole. */
  bytes: Uint8Array;
  contentType: string;
  /** The body is so long that what is done with it is done on the desk's thread. */
  isLong: boolean;
  /** The caller would rather have a job than wait (`Prefer: respond-async`, RFC 7240 section 4.1). */
  background: boolean;
  now: number;
}

// Lists that nobody may change are answered as any.
type Unchanging<T> = T extends readonly (infer Item)[]
  ? readonly Unchanging<Item>[]
  : T extends object
    ? { [K in keyof T]: Unchanging<T[K]> }
    : T;
type Answered<C extends Call> = C["job"] extends "always"
  ? never
  : C["answer"] extends z.ZodType
    ? Unchanging<AnswerOf<C>>
    : AnswerOf<C>;
type JobOf<C extends CallDefinition> = C["job"] extends "always" | "preferred" ? Accepted : never;

/** Does what a call asks for; what it returns is the answer that the contract declares. Throws a Problem for what cannot be done. */
export type Handler<C extends Call, Desk> = (
  asked: Asked<C, Desk>,
) => Answered<C> | JobOf<C> | Promise<Answered<C> | JobOf<C>>;

/** The handlers of a subject's calls, by their names in its contract. */
export type Handlers<S extends Contract, Desk> = { [Name in keyof S]: Handler<S[Name], Desk> };

/** A call with its handler, for the dispatcher. */
export interface Handled<Desk> {
  call: Call;
  run: (asked: Asked<Call, Desk>) => unknown;
}

/** Joins a subject's calls with their handlers. */
export function handled<S extends Contract, Desk>(contract: S, handlers: Handlers<S, Desk>): Handled<Desk>[] {
  return Object.entries(contract).map(([name, call]) => ({
    call,
    run: handlers[name]! as unknown as Handled<Desk>["run"],
  }));
}

/** An answer that is still being worked on: 202 with the job, and where to ask for it. */
export class Accepted {
  readonly job: Job;

  constructor(job: Job) {
    this.job = job;
  }
}

/** A call as long work needs it. */
interface AskedOfSite<Desk> {
  desk: Desk & WithJobs;
  actor: Actor;
  site: OpenSite;
}

/** Does long work: as a job where the caller would rather not wait for it, else at once. */
export async function asPreferred<Desk, Input, Result>(
  call: AskedOfSite<Desk> & { background: boolean },
  kind: JobKind<Desk, Input, Result>,
  input: Input,
  bytes?: Uint8Array,
): Promise<Result | Accepted> {
  if (call.background) return asJob(call, kind, input, bytes);
  const { desk, actor, site } = call;
  const file = async (): Promise<Uint8Array> => bytes ?? new Uint8Array();
  return kind.run(desk, { actor, site, input, file }, UNWATCHED);
}

/** Begins long work as a job. */
export async function asJob<Desk, Input>(
  { desk, actor, site }: AskedOfSite<Desk>,
  kind: JobKind<Desk, Input, unknown>,
  input: Input,
  bytes?: Uint8Array,
): Promise<Accepted> {
  return new Accepted(await desk.jobs.start(actor, site, kind, input, bytes));
}

/** A list that is answered whole. */
export function wholeList<T>(items: T[]): { items: T[]; nextCursor: null; total: number } {
  return { items, nextCursor: null, total: items.length };
}
