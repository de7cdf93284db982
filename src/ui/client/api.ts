import { QueryClient } from "@tanstack/react-query";
import { signInAgain } from "../frame/session.ts";
import { isStale } from "./stale.ts";

/** A problem document that the API answered (RFC 9457). */
export class ApiProblem extends Error {
  readonly status: number;
  readonly errors: { path: string; message: string }[];
  /** The current object, when a save was made on an old version. */
  readonly current: unknown;

  constructor(
    status: number,
    problem: {
      detail?: string;
      title?: string;
      errors?: { path: string; message: string }[];
      current?: unknown;
    },
  ) {
    super(problem.detail ?? problem.title ?? "Something went wrong.");
    this.status = status;
    this.errors = problem.errors ?? [];
    this.current = problem.current;
  }
}

/** A body that is JSON already: a long text is not taken apart only to be put together again. */
export class JsonText {
  readonly text: string;

  constructor(text: string) {
    this.text = text;
  }
}

/** Calls the API of the workspace. Throws ApiProblem when it refuses, TypeError when the network is gone. */
export async function api<T>(
  method: string,
  path: string,
  body?: unknown,
  headers: Record<string, string> = {},
): Promise<T> {
  const ask = (): Promise<Response> =>
    fetch(`/api/v1${path}`, {
      method,
      headers: { ...(body === undefined ? {} : { "Content-Type": "application/json" }), ...headers },
      body: body instanceof JsonText ? body.text : JSON.stringify(body),
    });
  let response = await ask();
  // A session that has ended takes nobody away from what they are at: they sign in where they are, and it goes on.
  while (response.status === 401) {
    await signInAgain();
    response = await ask();
  }
  if (!response.ok)
    throw new ApiProblem(response.status, (await response.json().catch(() => ({}))) as object);
  return (response.status === 204 ? undefined : await response.json()) as T;
}

/** Asks for a job instead of waiting (RFC 7240 section 4.1). */
export const AS_JOB = { Prefer: "respond-async" } as const;

/** One answer of a list call. */
export interface ListOf<T> {
  items: T[];
  nextCursor: string | null;
  total: number;
}

/** Server state of all islands on a screen. */
export const queries = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 2_000,
      refetchInterval: ({ state }) => (isStale(state.data) ? 1_000 : false),
      retry: (count, error) => !(error instanceof ApiProblem) && count < 2,
    },
  },
});

/** The message of whatever was thrown, for people. */
export function messageOf(error: unknown): string {
  if (error instanceof ApiProblem) return error.message;
  return "The workspace cannot be reached. Nothing you typed is lost; it is tried again when you are.";
}
