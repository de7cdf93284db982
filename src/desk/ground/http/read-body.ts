import { Problem } from "../problem.ts";

/** Levels that JSON may be nested: a body of a page has some hundred, and what walks through it goes as deep. */
const MAX_DEPTH = 300;

/**
 * Reads a request's body whole, and no more of it than may come: what is longer is refused by its length where that is
 * told, else as soon as it has come that far. Throws a Problem (413).
 */
export async function readBytes(request: Request, most: number): Promise<Uint8Array> {
  const size = most >= 1_000_000 ? `${Math.floor(most / 1_000_000)} MB` : `${Math.floor(most / 1_000)} kB`;
  const tooLarge = new Problem(413, "Too large", `This takes at most ${size}.`);
  if (Number(request.headers.get("content-length") ?? 0) > most) throw tooLarge;
  const pieces: Uint8Array[] = [];
  let bytes = 0;
  // Node's stream is iterable; the DOM's type of it does not say so.
  try {
    for await (const chunk of (request.body ?? []) as unknown as AsyncIterable<Uint8Array>) {
      bytes += chunk.byteLength;
      if (bytes > most) throw tooLarge;
      pieces.push(chunk);
    }
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== "ECONNRESET") throw error;
    // Whoever sent it has gone in the middle; nobody reads this answer.
    throw new Problem(400, "Broken off", "The request ended before its body did.");
  }
  return Buffer.concat(pieces);
}

/** Reads a body as JSON: of the right media type, in UTF-8, not nested too deep, and fit for the database. */
export async function readJson(request: Request, most: number): Promise<unknown> {
  const type = request.headers.get("content-type") ?? "";
  requireJson(type);
  return jsonOf(await readBytes(request, most));
}

/** Throws a 415 unless this is the media type of JSON. */
export function requireJson(type: string): void {
  if (!/^application\/(?:[\w.+-]{1,80}\+)?json\b/i.test(type)) {
    throw new Problem(
      415,
      "Unsupported media type",
      "Send JSON, with the header Content-Type: application/json.",
    );
  }
}

/** Reads JSON: in UTF-8, not nested too deep, and fit for the database. */
export function jsonOf(bytes: Uint8Array): unknown {
  const text = utf8(bytes);
  if (depthOf(text) > MAX_DEPTH)
    throw new Problem(400, "Too deep", `The body is nested more than ${MAX_DEPTH} levels deep.`);
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

/** How many arrays and objects stand inside one another in a JSON text (RFC 8259); the signs inside strings do not count. */
export function depthOf(json: string): number {
  let depth = 0;
  let deepest = 0;
  for (let at = 0; at < json.length; at += 1) {
    const sign = json.charCodeAt(at);
    if (sign === 0x22) at = endOfString(json, at);
    else if (sign === 0x5b || sign === 0x7b) deepest = Math.max(deepest, (depth += 1));
    else if (sign === 0x5d || sign === 0x7d) depth -= 1;
  }
  return deepest;
}

function endOfString(json: string, start: number): number {
  for (let at = start + 1; at < json.length; at += 1) {
    const sign = json.charCodeAt(at);
    if (sign === 0x5c) at += 1;
    else if (sign === 0x22) return at;
  }
  return json.length;
}

// PostgreSQL keeps no null characters and no half surrogate pairs: the first are refused, the second replaced.
function storable(_key: string, value: unknown): unknown {
  if (typeof value !== "string") return value;
  if (value.includes("\0"))
    throw new Problem(422, "This cannot be taken as it is", "The text holds a null character; take it out.");
  return value.toWellFormed();
}

function utf8(bytes: Uint8Array): string {
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    throw new Problem(400, "Not UTF-8", "The body is not valid UTF-8.");
  }
}
