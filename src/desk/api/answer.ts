import findMyWay from "find-my-way";
import { MAX_HTML } from "../../core/objects/page.ts";
import { mayAct, type Actor, type Desk } from "../desk.ts";
import { ledgerReady, MOST_PATIENCE_MS, USUAL_PATIENCE_MS } from "../ledger/ready.ts";
import { fieldErrors, Problem } from "../problem.ts";
import { withOwnHost } from "../routes/route-values.ts";
import { openSite } from "../sites.ts";
import { openApiDocument } from "./openapi.ts";
import { Accepted, type FileAnswer, type Method, type Operation } from "./operation.ts";
import { operations } from "./operations.ts";

/** The longest request body in bytes: the longest page, with room for JSON's escapes. */
const MAX_BODY = MAX_HTML + 1_000_000;

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
  try {
    return await answer(desk, request, actor);
  } catch (error) {
    if (error instanceof Problem) return problemResponse(error);
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
    headers: { ...problem.headers, "Content-Type": "application/problem+json" },
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

  const params = found.params as Record<string, string>;
  const site = params.site === undefined ? undefined : await openSite(desk, params.site);
  const query = operation.query
    ? checked(operation.query, Object.fromEntries(url.searchParams), 400)
    : undefined;
  let input = operation.body ? await readJson(request) : undefined;
  if (site && operation.path.includes("/routes") && isObject(input)) input = withOwnHost(site, input);
  const body = operation.body ? checked(operation.body, input, 422) : undefined;

  const bytes = operation.takesBytes ? await readBytes(request, operation.takesBytes) : new Uint8Array();
  const prefer = request.headers.get("prefer") ?? "";
  const current = operation.ofLedger ? await ledgerReady(desk, site!, patienceOf(prefer)) : undefined;
  const background = /(?:^|[,\s])respond-async(?:[,;\s]|$)/i.test(prefer);
  const result = await operation.run({
    desk,
    actor,
    site: site!,
    params,
    query,
    body,
    bytes,
    contentType: request.headers.get("content-type") ?? "",
    background,
    now: Date.now(),
  });
  if (operation.status === 204) return new Response(null, { status: 204 });
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

// How long the caller would rather wait than get what was (RFC 7240 section 4.3), in milliseconds.
function patienceOf(prefer: string): number {
  const seconds = /(?:^|[,;\s])wait=(\d{1,4})(?:[,;\s]|$)/i.exec(prefer)?.[1];
  return seconds === undefined ? USUAL_PATIENCE_MS : Math.min(Number(seconds) * 1_000, MOST_PATIENCE_MS);
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

function checked(schema: Operation["body"] & object, value: unknown, status: 400 | 422): unknown {
  const result = schema.safeParse(value);
  if (result.success) return result.data;
  const errors = fieldErrors(result.error);
  throw new Problem(status, "This cannot be taken as it is", errors.map(({ message }) => message).join(" "), {
    errors,
  });
}

async function readJson(request: Request): Promise<unknown> {
  const type = request.headers.get("content-type") ?? "";
  if (!/^application\/(?:[\w.+-]+\+)?json\b/i.test(type)) {
    throw new Problem(
      415,
      "Unsupported media type",
      "Send JSON, with the header Content-Type: application/json.",
    );
  }
  const text = await readText(request);
  try {
    return JSON.parse(text, /\\u(?:0000|d[89a-f])/i.test(text) ? storable : undefined);
  } catch (error) {
    if (error instanceof Problem) throw error;
    throw new Problem(
      400,
      "Not JSON",
      `The body is not JSON: ${error instanceof Error ? error.message : "unreadable"}.`,
    );
  }
}

// PostgreSQL keeps no null characters and no half surrogate pairs: the first are refused, the second replaced.
function storable(_key: string, value: unknown): unknown {
  if (typeof value !== "string") return value;
  if (value.includes("\0"))
    throw new Problem(422, "This cannot be taken as it is", "The text holds a null character; take it out.");
  return value.toWellFormed();
}

async function readText(request: Request): Promise<string> {
  const bytes = await readBytes(request, MAX_BODY);
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    throw new Problem(400, "Not UTF-8", "The body is not valid UTF-8.");
  }
}

async function readBytes(request: Request, most: number): Promise<Uint8Array> {
  const tooLarge = new Problem(413, "Too large", `This takes at most ${Math.floor(most / 1_000_000)} MB.`);
  if (Number(request.headers.get("content-length") ?? 0) > most) throw tooLarge;
  const pieces: Uint8Array[] = [];
  let bytes = 0;
  // Node's stream is iterable; the DOM's type of it does not say so.
  for await (const chunk of (request.body ?? []) as unknown as AsyncIterable<Uint8Array>) {
    bytes += chunk.byteLength;
    if (bytes > most) throw tooLarge;
    pieces.push(chunk);
  }
  return Buffer.concat(pieces);
}

function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}

function isDatabaseGone(error: unknown): boolean {
  return error instanceof Error && /^Sequelize(?:Connection|HostNot|AccessDenied)/.test(error.name);
}
