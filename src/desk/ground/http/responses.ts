import { requestId } from "../request-id.ts";
import {
  hasVersion,
  isWholeList,
  statusOf,
  type Call,
  type FileAnswer,
} from "../../../contract/ground/call.ts";
import type { wholeListQuery } from "../../../contract/ground/lists.ts";
import type { z } from "zod";
import { partOf } from "../lists.ts";
import type { Problem } from "../problem.ts";
import { entityTag, isUnchanged } from "./conditional.ts";
import { Accepted } from "./handler.ts";

/** A problem as a response (RFC 9457). */
export function problemResponse(problem: Problem): Response {
  const request = requestId();
  return Response.json(request === undefined ? problem : { ...problem.toJSON(), requestId: request }, {
    status: problem.status,
    headers: { "Cache-Control": "no-store", ...problem.headers, "Content-Type": "application/problem+json" },
  });
}

/** What belongs to an answer beside what its handler returned. */
export interface About {
  query: unknown;
  /** The parameters of its path. */
  params: Readonly<Record<string, string>>;
  /** Whether what was changed last is in it; undefined where that is not told. */
  current: boolean | undefined;
  ifNoneMatch: string | null;
}

/** What a handler returned, as its call answers it. */
export function responseOf(call: Call, answered: unknown, about: About): Response {
  if (answered instanceof Accepted)
    return Response.json(answered.job, {
      status: 202,
      headers: { Location: `/api/v1/jobs/${answered.job.id}` },
    });
  const status = statusOf(call);
  if (status === 204) return new Response(null, { status });
  if (call.html) return htmlResponse(String(answered), call.html.shownWithin);
  if (call.file) return fileResponse(answered as FileAnswer, call.file.media[0]!);
  return jsonResponse(call, status, answered as Record<string, unknown>, about);
}

function jsonResponse(call: Call, status: number, answered: Record<string, unknown>, about: About): Response {
  const { current } = about;
  const part = isWholeList(call)
    ? partOf(answered.items as unknown[], about.query as z.output<typeof wholeListQuery>)
    : {};
  const text = JSON.stringify({ ...answered, ...part, ...(current === undefined ? {} : { current }) });
  const headers: Record<string, string> = { "Content-Type": "application/json" };
  if (status === 201) headers.Location = placeOf(call, answered, about.params);
  if (hasVersion(call)) {
    headers.ETag = entityTag(Number(answered.version), text);
    if (call.method === "GET" && isUnchanged(about.ifNoneMatch, headers.ETag))
      return new Response(null, { status: 304, headers: { ETag: headers.ETag } });
  }
  return new Response(text, { status, headers });
}

// Where what was made is: below the call itself by its id, unless the call says otherwise.
function placeOf(call: Call, answered: unknown, params: Readonly<Record<string, string>>): string {
  const path = (call.madeAt ?? `${call.path}/{id}`).replace(
    /:(\w+)|\{([\w.]+)\}/g,
    (_, parameter: string | undefined, field: string) =>
      encodeURIComponent(parameter ? params[parameter]! : fieldOf(answered, field)),
  );
  return `/api/v1${path}`;
}

function fieldOf(value: unknown, field: string): string {
  const found = field
    .split(".")
    .reduce<unknown>((one, name) => (one as Record<string, unknown>)[name], value);
  return String(found);
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
  return new Response(content as BodyInit, {
    headers: {
      "Content-Type": type ?? usual,
      "X-Content-Type-Options": "nosniff",
      "Content-Disposition": `attachment; filename="${name.replace(/[^\w.-]/g, "-")}"`,
    },
  });
}
