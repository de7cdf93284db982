import { createHash } from "node:crypto";
import type { Call } from "../../../contract/ground/call.ts";
import { credentialOf, type Actor } from "../../../core/people/actor.ts";
import { beginRepeatable, dropRepeat, keepRepeat, type Repeat } from "../../../store/ground/repeats.ts";
import type { WithStore } from "../parts.ts";
import { Problem } from "../problem.ts";

/** Answers that are longer than this, in characters, are not kept: that it was done is. */
const MAX_KEPT = 1_000_000;
const KEPT_HEADERS = ["content-type", "location", "etag"];

/**
 * Does a call once, however often it comes with the same `Idempotency-Key`: what comes again is answered as the first
 * was. What was refused may be tried again. Throws a 422 for a key that another call has had, and a 409 while the first
 * is being worked on.
 */
export async function onceOnly(
  desk: WithStore,
  { call, actor, key, asked }: { call: Call; actor: Actor; key: string; asked: RepeatedCall },
  answer: () => Promise<Response>,
): Promise<Response> {
  const repeat = { who: credentialOf(actor), key };
  const short = shortOf(asked);
  const before = await beginRepeatable(desk.store, repeat, short);
  if (before) return answered(before, short);
  let response: Response;
  try {
    response = await answer();
  } catch (error) {
    await dropRepeat(desk.store, repeat);
    throw error;
  }
  const body = await bodyToKeep(call, response);
  const headers = Object.fromEntries(
    KEPT_HEADERS.flatMap((name) => {
      const value = response.headers.get(name);
      return value === null ? [] : [[name, value]];
    }),
  );
  await keepRepeat(desk.store, { ...repeat, status: response.status, headers, body });
  return response;
}

/** What a call asks for, as it came. */
export interface RepeatedCall {
  path: string;
  contentType: string;
  body: Uint8Array;
}

function shortOf({ path, contentType, body }: RepeatedCall): string {
  return createHash("sha256").update(`${path}\n${contentType}\n`).update(body).digest("base64url");
}

function answered(before: Repeat, call: string): Response {
  if (before.call !== call)
    throw new Problem(
      422,
      "This key was used",
      "Another call was made with this Idempotency-Key; a call of its own needs a key of its own.",
      { errors: [{ path: "Idempotency-Key", message: "Another call was made with this key." }] },
    );
  const { status, headers, body } = before;
  if (status === null)
    throw new Problem(
      409,
      "Not done yet",
      "The first call with this Idempotency-Key is being worked on, or its process ended meanwhile: look whether it was done.",
      { headers: { "Retry-After": "5" } },
    );
  if (status !== 204 && body === null)
    throw new Problem(
      409,
      "Done already",
      "The first call with this Idempotency-Key was done, and what it answered is not kept.",
    );
  return new Response(body, { status, headers: { ...headers, "Idempotency-Replayed": "true" } });
}

// A secret is shown once; a file or a page is made anew whenever it is asked for.
async function bodyToKeep({ showsSecret }: Call, response: Response): Promise<string | null> {
  if (showsSecret || !response.headers.get("content-type")?.includes("json")) return null;
  const text = await response.clone().text();
  return text.length > MAX_KEPT ? null : text;
}
