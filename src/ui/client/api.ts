import type { AnswerOf, CallDefinition, ParamsOf } from "../../contract/ground/call.ts";
import type { CallsByName } from "../../contract/contract.ts";
import { addressOf, methodOf, type CallName } from "../../contract/ground/address.ts";
import type { Job } from "../../contract/jobs.ts";
import type { z } from "zod";
import { ApiProblem } from "./api-problem.ts";
import { serverFrame } from "../frame/frame.ts";
import { signInAgain } from "./session.ts";
import * as say from "../words.ts";

export { ApiProblem };
export type { CallName };
/** What a call answers. */
export type Answer<N extends CallName> = AnswerOf<CallsByName[N]>;

/** A body that is JSON already: a long text is not taken apart only to be put together again. */
export class JsonText {
  readonly text: string;

  constructor(text: string) {
    this.text = text;
  }
}

// A query is text; what it may hold is checked where it is read.
type QueryOf<S> = S extends z.ZodObject
  ? { [K in keyof z.input<S>]?: string | number | undefined } | Readonly<Record<string, string>>
  : { limit?: number; cursor?: string };
type BodyOf<S> = S extends z.ZodType ? { body: z.input<S> | JsonText } : unknown;
type InputOf<C extends CallDefinition & { path: string }> = {
  [K in keyof ParamsOf<C["path"]>]: string | number;
} & {
  query?: QueryOf<C["query"]>;
} & BodyOf<C["body"]>;
/** What a call takes: the parameters of its path by name, its `query` and its `body`. */
export type Input<N extends CallName> = InputOf<CallsByName[N]>;
/** Its arguments: what a call takes may be left out where nothing need be said. */
export type Inputs<N extends CallName> = object extends Input<N> ? [input?: Input<N>] : [input: Input<N>];

/** The address of a call, below the workspace's. */
export function hrefOf<N extends CallName>(name: N, ...[input]: Inputs<N>): string {
  return addressOf(name, input);
}

/** Makes a call of the API. Throws ApiProblem when it refuses, TypeError when the network is gone. */
export function api<N extends CallName>(name: N, ...inputs: Inputs<N>): Promise<Answer<N>> {
  return send(name, inputs[0], {}) as Promise<Answer<N>>;
}

/** Asks for a job instead of waiting (RFC 7240 section 4.1). */
export function startJob<N extends CallName>(name: N, ...inputs: Inputs<N>): Promise<Job> {
  return send(name, inputs[0], AS_JOB) as Promise<Job>;
}

export const AS_JOB = { Prefer: "respond-async" } as const;

async function send(name: CallName, input: unknown, headers: object): Promise<unknown> {
  const { body } = (input ?? {}) as { body?: unknown };
  const frame = serverFrame();
  const ask = (): Promise<Response> =>
    (frame?.ask ?? fetch)(addressOf(name, input), {
      method: methodOf(name),
      headers: { ...(body === undefined ? {} : { "Content-Type": "application/json" }), ...headers },
      body: body instanceof JsonText ? body.text : JSON.stringify(body),
    });
  let response = await ask();
  // A session that has ended takes nobody away from what they are at: they sign in where they are, and it goes on.
  while (response.status === 401 && !frame) {
    await signInAgain();
    response = await ask();
  }
  if (!response.ok)
    throw new ApiProblem(response.status, (await response.json().catch(() => ({}))) as object);
  if (response.status === 204) return undefined;
  return /json/.test(response.headers.get("content-type") ?? "") ? response.json() : response.text();
}

// As browsers word it, for calls and for files that are fetched when they are wanted.
const NETWORK = /fetch|load|network/i;

/** The message of whatever was thrown, for people. What is neither refused nor cut off is a fault of ours, and not hidden. */
export function messageOf(error: unknown): string {
  if (error instanceof ApiProblem) return error.message;
  if (error instanceof TypeError && NETWORK.test(error.message))
    return say.theWorkspaceCannotBeReachedNothingYou;
  globalThis.reportError?.(error);
  return say.somethingWentWrong;
}
