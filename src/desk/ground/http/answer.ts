import findMyWay from "find-my-way";
import { contract } from "../../../contract/contract.ts";
import { hasVersion, type Call, type Method } from "../../../contract/ground/call.ts";
import { openApiDocument } from "../../../contract/ground/openapi/document.ts";
import type { Actor } from "../../../core/people/actor.ts";
import { isTooLate } from "../../../store/ground/store.ts";
import type { Desk } from "../../desk.ts";
import { HANDLED } from "../../handlers.ts";
import { waitForLedger } from "../../ledger/fresh-ledger.ts";
import { Problem } from "../problem.ts";
import { preconditionFailed } from "./conditional.ts";
import type { Handled } from "./handler.ts";
import { readCall, type ReadCall } from "./read-call.ts";
import { onceOnly } from "./repeats.ts";
import { problemResponse, responseOf } from "./responses.ts";

/** What somebody may ask for who has to set up a second factor first. */
const MAY_SET_UP = /^\/me(?:$|\/(?:second-factor|password|sessions)(?:\/|$))/;
const METHODS = ["GET", "POST", "PUT", "PATCH", "DELETE"] as const;
/** The document of all calls, which anybody may read. */
const DOCUMENT = "/openapi.json";

const router = findMyWay({ ignoreTrailingSlash: true, maxParamLength: 200 });
for (const one of HANDLED) router.on(one.call.method, one.call.path, () => undefined, one);
// Written when it is first asked for: it takes a tenth of a start.
let document: ReturnType<typeof openApiDocument> | undefined;

/** Answers one call of the API. Whatever is wrong with it becomes a problem document; nothing is thrown. */
export async function answerCall(
  desk: Desk,
  request: Request,
  actor: Actor | undefined,
  failed: (error: unknown) => void,
): Promise<Response> {
  const answered = await answerOrProblem(desk, request, actor, failed);
  // HEAD is answered as GET, without what follows the headers (RFC 9110, section 9.3.2).
  const response = request.method === "HEAD" ? new Response(null, answered) : answered;
  // What is answered is for its asker alone, and true at this moment; with a tag it may be asked for again by it.
  response.headers.set("Cache-Control", response.headers.has("ETag") ? "private, no-cache" : "no-store");
  return response;
}

async function answerOrProblem(
  desk: Desk,
  request: Request,
  actor: Actor | undefined,
  failed: (error: unknown) => void,
): Promise<Response> {
  try {
    return await answer(desk, request, actor);
  } catch (error) {
    if (error instanceof Problem) return problemResponse(error);
    if (isTooLate(error))
      return problemResponse(
        new Problem(
          503,
          "Busy",
          "What this needs is being changed by somebody else, or took too long. Nothing was saved; try again.",
          {
            headers: { "Retry-After": "5" },
          },
        ),
      );
    failed(error);
    return problemResponse(
      isDatabaseGone(error)
        ? new Problem(503, "The database does not answer", "Nothing was saved. Try again in a moment.", {
            headers: { "Retry-After": "5" },
          })
        : new Problem(
            500,
            "Something failed here",
            "The fault is ours and has been logged. Nothing was saved.",
          ),
    );
  }
}

async function answer(desk: Desk, request: Request, actor: Actor | undefined): Promise<Response> {
  if (/%00/.test(request.url))
    throw new Problem(400, "Not an address of ours", "The address holds a null character.");
  const path = new URL(request.url).pathname.replace(/^\/api\/v1/, "") || "/";
  const method = request.method === "HEAD" ? "GET" : request.method;
  if (method === "OPTIONS") return allowed(path);
  if (path === DOCUMENT && method === "GET") {
    document ??= openApiDocument(contract);
    return Response.json(document);
  }
  const found = router.find(method as Method, path);
  if (!found) throw unknownCall(path, request.method);
  const { call, run } = found.store as Handled<Desk>;
  if (!actor) {
    throw new Problem(401, "Not signed in", "Sign in, or send a token as “Authorization: Bearer …”.", {
      headers: { "WWW-Authenticate": "Bearer" },
    });
  }
  if (actor.mustSetUp && !MAY_SET_UP.test(call.path))
    throw new Problem(
      403,
      "Second factor needed",
      "Everybody here signs in with a second factor: set one up under “Your account” first.",
    );
  const read = await readCall(call, desk, request, actor, found.params);
  const key = call.method === "POST" ? read.headers["idempotency-key"] : undefined;
  if (key === undefined) return done(call, run, read, path);
  const asked = {
    path: new URL(request.url).pathname,
    contentType: read.asked.contentType,
    body: read.bytes,
  };
  return onceOnly(desk, { call, actor, key, asked }, () => done(call, run, read, path));
}

async function done(call: Call, run: Handled<Desk>["run"], read: ReadCall, path: string): Promise<Response> {
  const { asked, ifMatch, headers, timeoutMs } = read;
  if (ifMatch !== undefined && call.method === "DELETE") await refuseOtherVersion(path, read, ifMatch);
  const current = call.ofLedger ? await waitForLedger(asked.desk, asked.site!, timeoutMs) : undefined;
  try {
    return responseOf(call, await run(asked), {
      query: asked.query,
      params: asked.params as Readonly<Record<string, string>>,
      current,
      ifNoneMatch: headers["if-none-match"] ?? null,
    });
  } catch (error) {
    const isStale = error instanceof Problem && error.status === 409 && "current" in error.more;
    throw isStale && ifMatch !== undefined ? preconditionFailed(error.more.current) : error;
  }
}

// A call that deletes is told no version; what its address shows has one.
async function refuseOtherVersion(path: string, { asked }: ReadCall, version: number): Promise<void> {
  const shown = router.find("GET", path)?.store as Handled<Desk> | undefined;
  if (!shown || !hasVersion(shown.call)) return;
  const current = (await shown.run(asked)) as { version: number };
  if (current.version !== version) throw preconditionFailed(current);
}

/** The methods that an address answers. */
function methodsAt(path: string): string[] {
  const own = path === DOCUMENT ? ["GET"] : METHODS.filter((method) => router.find(method, path));
  return own.length === 0 ? [] : [...own, ...(own.includes("GET") ? ["HEAD"] : []), "OPTIONS"];
}

function allowed(path: string): Response {
  const methods = methodsAt(path);
  if (methods.length === 0) throw unknownCall(path, "OPTIONS");
  return new Response(null, { status: 204, headers: { Allow: methods.join(", ") } });
}

function unknownCall(path: string, method: string): Problem {
  const others = methodsAt(path);
  return others.length > 0
    ? new Problem(405, "Method not allowed", `${method} is not answered here; ${others.join(", ")} is.`, {
        headers: { Allow: others.join(", ") },
      })
    : new Problem(404, "Not found", `There is no call ${path}. /api/v1/openapi.json lists them all.`);
}

// Not there, going, or no longer the one that takes writes (SQLSTATE class 08, 57P01 to 57P03, 25006).
function isDatabaseGone(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  if (/^Sequelize(?:Connection|HostNot|AccessDenied)/.test(error.name)) return true;
  const cause = ((error as { parent?: unknown }).parent ?? error) as { code?: string; message?: string };
  return (
    /^(?:08...|57P0[123]|25006|ECONN\w+|EPIPE)$/.test(cause.code ?? "") ||
    /^Connection terminated/.test(cause.message ?? "")
  );
}
