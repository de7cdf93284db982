import { createHash } from "node:crypto";
import type { IncomingMessage, ServerResponse } from "node:http";
import fresh from "fresh";
import parseRange from "range-parser";
import { coded, codingFor, isWorthCoding, type Coding } from "./coding.ts";

/** What an address shows at a time (RFC 9110, section 3.2), with the coded forms of it that were asked for. */
export interface Representation {
  readonly type: string;
  readonly body: Buffer;
  /** What its entity tags begin with; other bytes have another one. */
  readonly digest: string;
  /** When it came to be, as milliseconds. */
  readonly since: number;
  readonly coded: Map<Coding, Promise<Buffer>>;
}

/** Bytes of a media type, as they came to be at a time. */
export function representationOf(
  type: string,
  body: Buffer,
  since: number,
  digest = createHash("sha256").update(body).digest("base64url").slice(0, 22),
): Representation {
  return { type, body, digest, since, coded: new Map() };
}

export interface Sending {
  /** Headers that it has in any case, also when it is not modified. */
  headers: readonly string[];
  /** Parts of it may be asked for (RFC 9110, section 14); they are of the body as it is, without a coding. */
  inParts?: boolean;
}

/**
 * Answers GET and HEAD with a representation: in the coding that the reader prefers, 304 where they have it already
 * (RFC 9110, section 13), 206 or 416 where a part of it is asked for. Throws what compressing throws.
 */
export async function sendRepresentation(
  { request, response }: { request: IncomingMessage; response: ServerResponse },
  representation: Representation,
  { headers, inParts = false }: Sending,
): Promise<void> {
  const { type, body } = representation;
  const isCoded = isWorthCoding(type, body.length);
  const wantsPart = inParts && request.method === "GET" && request.headers.range !== undefined;
  const coding = isCoded && !wantsPart ? codingFor(request) : undefined;
  const tag = `"${representation.digest}${coding ? `-${coding}` : ""}"`;
  const fields = ["ETag", tag, ...headers];
  if (isCoded) fields.push("Vary", "Accept-Encoding");
  if (inParts) fields.push("Accept-Ranges", "bytes");
  const modified = lastModified(representation.since);
  if (modified) fields.push("Last-Modified", modified);
  if (fresh(request.headers, { etag: tag, ...(modified ? { "last-modified": modified } : {}) })) {
    response.writeHead(304, fields);
    return void response.end();
  }
  const range = wantsPart ? rangeOf(request, body.length, tag, modified) : undefined;
  if (range === "none") {
    response.writeHead(416, [...fields, "Content-Range", `bytes */${body.length}`, "Content-Length", "0"]);
    return void response.end();
  }
  const whole = coding ? await formOf(representation, coding) : body;
  const content = range ? whole.subarray(range.start, range.end + 1) : whole;
  fields.push("Content-Type", type, "Content-Length", String(content.length));
  if (coding) fields.push("Content-Encoding", coding);
  if (range) fields.push("Content-Range", `bytes ${range.start}-${range.end}/${body.length}`);
  response.writeHead(range ? 206 : 200, fields);
  response.end(request.method === "HEAD" ? undefined : content);
}

// Made when it is first asked for, and kept with what it is a form of.
function formOf({ coded: forms, body }: Representation, coding: Coding): Promise<Buffer> {
  const known = forms.get(coding);
  if (known) return known;
  const made = coded(body, coding);
  forms.set(coding, made);
  made.catch(() => forms.delete(coding));
  return made;
}

// Within its own second it is not said: what follows it in that second would have the same date (section 8.8.2.2).
function lastModified(since: number): string | undefined {
  return Date.now() - since < 1_000 ? undefined : new Date(since).toUTCString();
}

/**
 * The part that is asked for; undefined for all of it, “none” where there is no such part. Of several parts the whole is
 * sent, which a server may do (section 14.2).
 */
function rangeOf(
  { headers }: IncomingMessage,
  size: number,
  tag: string,
  modified: string | undefined,
): { start: number; end: number } | "none" | undefined {
  const { range = "", "if-range": condition } = headers;
  // A part fits only to what the reader has the rest of (section 13.1.5): the same tag, or the same date to the letter.
  if (condition !== undefined && condition !== tag && condition !== modified) return undefined;
  // One that ends before it begins is none at all (section 14.1.1), where the parser calls it out of bounds.
  const isBackwards = range
    .slice(range.indexOf("=") + 1)
    .split(",")
    .map((part) => part.split("-"))
    .some(([from = "", to = ""]) => from.trim() !== "" && to.trim() !== "" && Number(to) < Number(from));
  if (isBackwards) return undefined;
  const parts = parseRange(size, range, { combine: true });
  if (parts === -1) return "none";
  if (parts === -2 || parts.type !== "bytes" || parts.length !== 1) return undefined;
  return parts[0];
}
