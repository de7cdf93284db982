import findMyWay from "find-my-way";
import { type Desk } from "../../desk.ts";
import { waitForLedger } from "../../ledger/fresh-ledger.ts";
import { isTooLate } from "../../../store/ground/store.ts";
import { fieldErrors, Problem } from "../problem.ts";
import { withOwnHost } from "../../routes/route-values.ts";
import { openApiDocument } from "./openapi.ts";
import { partOf, wholeListQuery } from "../lists.ts";
import type { z } from "zod";
import { Accepted, isWholeList, type FileAnswer, type Method, type Operation } from "./operation.ts";
import { operations } from "../../operations.ts";
import { readBytes, readJson } from "./read-body.ts";
import { readHeaders } from "./read-headers.ts";
import { readParameters, readQuery } from "./read-query.ts";
import { openSite } from "../../sites/open-site.ts";
import { mayAct, type Actor } from "../audit.ts";

/** From so many bytes on, working on a text would hold up those who ask for something else. */
const LONG_BODY = 100_000;

const router = findMyWay({ ignoreTrailingSlash: true, maxParamLength: 200 });
for (const one of operations) router.on(one.method, one.path, () => undefined, one);
const document = openApiDocument(operations);

/** Answers one call of the API. Whatever is wrong with it becomes a problem document; nothing is thrown. */
export async function answerCall(
  desk: Desk,
  request: Request,
  actor: Actor | undefined,
  failed: (error: unknown) => void,
): Promise<Response> {
  const response = await answerOrProblem(desk, request, actor, failed);
  // What is answered is for its asker alone, and true at this moment.
  response.headers.set("Cache-Control", "no-store");
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

/** A problem as a response (RFC 9457). */
export function problemResponse(problem: Problem): Response {
  return Response.json(problem, {
    status: problem.status,
    headers: { "Cache-Control": "no-store", ...problem.headers, "Content-Type": "application/problem+json" },
  });
}

async function answer(desk: Desk, request: Request, actor: Actor | undefined): Promise<Response> {
  const url = new URL(request.url);
  if (/%00/.test(request.url))
    throw new Problem(400, "Not an address of ours", "The address holds a null character.");
  const path = url.pathname.replace(/^\/api\/v1/, "") || "/";
  if (path === "/openapi.json" && request.method === "GET") return Response.json(document);
  const found = router.find(request.method as Method, path);
  if (!found) throw unknownCall(path, request.method);
  const operation = found.store as Operation;
  if (!actor) {
    throw new Problem(401, "Not signed in", "Sign in, or send a token as “Authorization: Bearer …”.", {
      headers: { "WWW-Authenticate": "Bearer" },
    });
  }
  if (!mayAct(actor, operation.role))
    throw new Problem(403, "Not allowed", `This needs the role ${operation.role}; yours is ${actor.role}.`);

  const params = readParameters(operation.params, found.params);
  const { prefer, "content-type": contentType } = readHeaders(request.headers);
  const whole = isWholeList(operation);
  const parameters = new URLSearchParams(url.searchParams);
  const part = whole ? (readQuery(wholeListQuery, taken(parameters, ["limit", "cursor"])) as z.infer<typeof wholeListQuery>) : undefined; // prettier-ignore
  const query = readQuery(operation.query, parameters);
  const site = params.site === undefined ? undefined : await openSite(desk, params.site);
  let input = operation.body ? await readJson(request, operation.mostBody) : undefined;
  if (site && operation.path.includes("/routes") && isObject(input)) input = withOwnHost(site, input);
  const body = operation.body ? checked(operation.body, input) : undefined;

  const bytes = operation.takesBytes ? await readBytes(request, operation.takesBytes) : new Uint8Array();
  const current = operation.ofLedger ? await waitForLedger(desk, site!, prefer.timeoutMs) : undefined;
  const answered = await operation.run({
    desk,
    actor,
    site: site!,
    params,
    query,
    body,
    bytes,
    contentType,
    isLong: Number(request.headers.get("content-length") ?? Infinity) > LONG_BODY,
    background: prefer.background,
    now: Date.now(),
  });
  if (operation.status === 204) return new Response(null, { status: 204 });
  const result = part ? { ...(answered as object), ...partOf((answered as { items: unknown[] }).items, part) } : answered; // prettier-ignore
  if (operation.media === "text/html") {
    return new Response(String(result), {
      headers: {
        "Content-Type": "text/html; charset=utf-8",
        "Content-Security-Policy": operation.shownWithin ?? "sandbox",
        ...(operation.shownWithin ? { "X-Frame-Options": "SAMEORIGIN" } : {}),
      },
    });
  }
  if (operation.media === "application/zip" || operation.media === "file") {
    const { name, type, content } = result as FileAnswer;
    return new Response(content as string | Uint8Array<ArrayBuffer>, {
      headers: {
        "Content-Type": type ?? operation.media,
        "X-Content-Type-Options": "nosniff",
        "Content-Disposition": `attachment; filename="${name.replace(/[^\w.-]/g, "-")}"`,
      },
    });
  }
  if (result instanceof Accepted)
    return Response.json(result.job, { status: 202, headers: { Location: `/api/v1/jobs/${result.job.id}` } });
  return Response.json(current === undefined ? result : { ...(result as object), current }, {
    status: operation.status,
  });
}

// Takes parameters out, to be read by themselves.
function taken(parameters: URLSearchParams, names: readonly string[]): URLSearchParams {
  const out = new URLSearchParams([...parameters].filter(([name]) => names.includes(name)));
  for (const name of names) parameters.delete(name);
  return out;
}

function unknownCall(path: string, method: string): Problem {
  const others = (["GET", "POST", "PUT", "PATCH", "DELETE"] as const).filter((other) =>
    router.find(other, path),
  );
  return others.length > 0
    ? new Problem(405, "Method not allowed", `${method} is not answered here; ${others.join(", ")} is.`, {
        headers: { Allow: others.join(", ") },
      })
    : new Problem(404, "Not found", `There is no call ${path}. /api/v1/openapi.json lists them all.`);
}

function checked(schema: Operation["body"] & object, value: unknown): unknown {
  const result = schema.safeParse(value);
  if (result.success) return result.data;
  const errors = fieldErrors(result.error);
  throw new Problem(422, "This cannot be taken as it is", errors.map(({ message }) => message).join(" "), {
    errors,
  });
}

function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}

function isDatabaseGone(error: unknown): boolean {
  return error instanceof Error && /^Sequelize(?:Connection|HostNot|AccessDenied)/.test(error.name);
}
