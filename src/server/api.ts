import { RateLimiterMemory, type RateLimiterRes } from "rate-limiter-flexible";
import { credentialOf, type Actor } from "../core/people/actor.ts";
import type { Desk } from "../desk/desk.ts";
import { answerCall } from "../desk/ground/http/answer.ts";
import { problemResponse } from "../desk/ground/http/responses.ts";
import { Problem } from "../desk/ground/problem.ts";

/** What an installation lets others do with its API. */
export interface ApiLimits {
  /** Calls a minute that each process answers to one person or token. */
  callsPerMinute: number;
  /** Origins of other sites whose scripts may call in a browser (Fetch Standard, section 3.2). */
  origins: readonly string[];
}

/** Answers calls of the API on the workspace's listener. */
export type Api = (request: Request, actor: Actor | undefined) => Promise<Response>;

const SECONDS = 60;
/** What a script of another origin may send and read. */
const SENT = "Authorization, Content-Type, Prefer, If-Match, If-None-Match, Idempotency-Key";
const READ = "Location, ETag, RateLimit, RateLimit-Policy, Retry-After, Content-Disposition, X-Request-Id";

/** The API with its limits: who calls too often is told when to go on, and other origins are let in that are listed. */
export function createApi(
  desk: Desk,
  { callsPerMinute, origins }: ApiLimits,
  report: (message: string, error: unknown) => void,
): Api {
  const limiter = new RateLimiterMemory({ points: callsPerMinute, duration: SECONDS });
  const listed = new Set(origins);
  const limited: Api = async (request, actor) => {
    if (!actor) return call(request, undefined);
    const used = await limiter.consume(credentialOf(actor)).catch((refused: RateLimiterRes) => refused);
    const seconds = Math.max(1, Math.ceil(used.msBeforeNext / 1000));
    const isOver = used.consumedPoints > callsPerMinute;
    const response = isOver ? problemResponse(tooMany(callsPerMinute, seconds)) : await call(request, actor);
    response.headers.set("RateLimit-Policy", `"calls";q=${callsPerMinute};w=${SECONDS}`);
    response.headers.set("RateLimit", `"calls";r=${used.remainingPoints};t=${seconds}`);
    return response;
  };
  const call: Api = (request, actor) =>
    answerCall(desk, request, actor, (error) =>
      report(`${request.method} ${new URL(request.url).pathname} failed.`, error),
    );
  return async (request, actor) => {
    const response = await limited(request, actor);
    if (listed.size > 0) admit(request, response, listed);
    return response;
  };
}

// No cookies are let through: a script of another origin comes with a token.
function admit(request: Request, response: Response, listed: ReadonlySet<string>): void {
  response.headers.append("Vary", "Origin");
  const origin = request.headers.get("origin");
  if (origin === null || !listed.has(origin)) return;
  response.headers.set("Access-Control-Allow-Origin", origin);
  response.headers.set("Access-Control-Expose-Headers", READ);
  if (request.method !== "OPTIONS" || !request.headers.has("access-control-request-method")) return;
  response.headers.set("Access-Control-Allow-Methods", response.headers.get("allow") ?? "");
  response.headers.set("Access-Control-Allow-Headers", SENT);
  response.headers.set("Access-Control-Max-Age", "600");
}

function tooMany(calls: number, seconds: number): Problem {
  return new Problem(
    429,
    "Too many calls",
    `${calls} calls a minute are answered to one person or token. Try again in ${seconds} ${seconds === 1 ? "second" : "seconds"}.`,
    { headers: { "Retry-After": String(seconds) } },
  );
}
