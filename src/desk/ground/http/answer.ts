import findMyWay from "find-my-way";
import type { z } from "zod";
import { contract } from "../../../contract/contract.ts";
import {
  isWholeList,
  statusOf,
  USUAL_BODY,
  type Call,
  type FileAnswer,
  type Method,
} from "../../../contract/ground/call.ts";
import type { wholeListQuery } from "../../../contract/ground/lists.ts";
import { openApiDocument } from "../../../contract/ground/openapi.ts";
import { isTooLate } from "../../../store/ground/store.ts";
import type { Desk } from "../../desk.ts";
import { HANDLED } from "../../handlers.ts";
import { waitForLedger } from "../../ledger/fresh-ledger.ts";
import { withOwnHost } from "../../routes/route-values.ts";
import { openSite } from "../../sites/open-site.ts";
import { mayAct } from "../audit.ts";
import { partOf } from "../lists.ts";
import { fieldErrors, Problem } from "../problem.ts";
import { Accepted, type Asked, type Handled } from "./handler.ts";
import { readBytes, readJson } from "./read-body.ts";
import { readHeaders } from "./read-headers.ts";
import { readParameters, readQuery } from "./read-query.ts";
import type { Actor } from "../../../core/people/actor.ts";

/** From so many bytes on, working on a text would hold up those who ask for something else. */
const LONG_BODY = 100_000;

const router = findMyWay({ ignoreTrailingSlash: true, maxParamLength: 200 });
for (const one of HANDLED) router.on(one.call.method, one.call.path, () => undefined, one);
const document = openApiDocument(contract);

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
  const { call, run } = found.store as Handled<Desk>;
  if (!actor) {
    throw new Problem(401, "Not signed in", "Sign in, or send a token as “Authorization: Bearer …”.", {
      headers: { "WWW-Authenticate": "Bearer" },
    });
  }
  if (!mayAct(actor, call.role))
    throw new Problem(403, "Not allowed", `This needs the role ${call.role}; yours is ${actor.role}.`);
  const asked = await read(call, desk, request, url, actor, found.params);
  const current = call.ofLedger ? await waitForLedger(desk, asked.site!, asked.timeoutMs) : undefined;
  return responseOf(call, await run(asked), asked.query, current);
}

// What a request asks for, each part by its schema.
async function read(
  call: Call,
  desk: Desk,
  request: Request,
  url: URL,
  actor: Actor,
  inPath: Record<string, string | undefined>,
): Promise<Asked<Call, Desk> & { timeoutMs: number }> {
  const params = readParameters(call.params, inPath);
  const { prefer, "content-type": contentType } = readHeaders(request.headers);
  const query = readQuery(call.asked, url.searchParams);
  const site = params.site === undefined ? undefined : await openSite(desk, params.site);
  if (call.bytes) refuseOther(call.bytes.media, contentType);
  let input = call.body ? await readJson(request, call.maxBody ?? USUAL_BODY) : undefined;
  if (site && call.takesHost && isObject(input)) input = withOwnHost(site, input);
  return {
    desk,
    actor,
    site: site as never,
    params,
    query: query as never,
    body: (call.body ? checked(call.body, input) : undefined) as never,
    bytes: call.bytes ? await readBytes(request, call.bytes.max) : new Uint8Array(),
    contentType,
    isLong: Number(request.headers.get("content-length") ?? Infinity) > LONG_BODY,
    background: prefer.background,
    timeoutMs: prefer.timeoutMs,
    now: Date.now(),
  };
}

function refuseOther(media: readonly string[], contentType: string): void {
  const given = contentType.split(";")[0]!.trim().toLowerCase();
  const kind = /^application\/[\w.+-]+\+json$/.test(given) ? "application/json" : given;
  if (kind === "" || media.includes("*/*") || media.includes(kind)) return;
  throw new Problem(415, "Unsupported media type", `This takes ${media.join(", ")}; not ${given}.`);
}

function responseOf(call: Call, answered: unknown, query: unknown, current: boolean | undefined): Response {
  if (answered instanceof Accepted)
    return Response.json(answered.job, {
      status: 202,
      headers: { Location: `/api/v1/jobs/${answered.job.id}` },
    });
  const status = statusOf(call);
  if (status === 204) return new Response(null, { status });
  if (call.html) return htmlResponse(String(answered), call.html.shownWithin);
  if (call.file) return fileResponse(answered as FileAnswer, call.file.media[0]!);
  const part = isWholeList(call)
    ? partOf((answered as { items: unknown[] }).items, query as z.output<typeof wholeListQuery>)
    : {};
  return Response.json(
    { ...(answered as object), ...part, ...(current === undefined ? {} : { current }) },
    { status },
  );
}

function htmlResponse(html: string, shownWithin: string | undefined): Response {
  return new Response(html, {
    headers: {
      "Content-Type": "text/html; charset=utf-8",
      "Content-Security-Policy": shownWithin ?? "sandbox",
      ...(shownWithin ? { "X-Frame-Options": "SAMEORIGIN" } : {}),
    },
  });
}

function fileResponse({ name, type, content }: FileAnswer, usual: string): Response {
  return new Response(content as string | Uint8Array<ArrayBuffer>, {
    headers: {
      "Content-Type": type ?? usual,
      "X-Content-Type-Options": "nosniff",
      "Content-Disposition": `attachment; filename="${name.replace(/[^\w.-]/g, "-")}"`,
    },
  });
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

function checked(schema: z.ZodType, value: unknown): unknown {
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
