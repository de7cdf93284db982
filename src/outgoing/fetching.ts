import { brotliDecompress, gunzip, inflate } from "node:zlib";
import { promisify } from "node:util";
import { Agent, request, type Dispatcher } from "undici";
import { judgedConnector, type Judge } from "./judge.ts";
import { Refusal, reasonOf } from "./refusal.ts";

/** A document from outside as it was sent, decoded; not followed any further. */
export type Fetched =
  | { ok: true; status: number; headers: Readonly<Record<string, string>>; bytes: Uint8Array }
  | { ok: false; reason: string };

/** Reads documents of one origin after another over connections that are kept. */
export interface Fetching {
  /** One GET, with these fields beside our own; at most so many bytes, before and after decoding. Never throws. */
  fetch(address: string, options: FetchOptions): Promise<Fetched>;
  /** Lets all connections go. */
  close(): Promise<void>;
}

export interface FetchOptions {
  mostBytes: number;
  headers?: Readonly<Record<string, string>>;
  signal?: AbortSignal;
}

const CODINGS: Readonly<
  Record<string, (bytes: Uint8Array, options: { maxOutputLength: number }) => Promise<Buffer>>
> = {
  gzip: promisify(gunzip),
  "x-gzip": promisify(gunzip),
  deflate: promisify(inflate),
  br: promisify(brotliDecompress),
};

/** Makes a client whose every connection goes to the address that was judged for it, however long it is kept. */
export function createFetching(judge: Judge, agent: string, timeoutMs: number): Fetching {
  const dispatcher: Dispatcher = new Agent({
    connect: judgedConnector(judge, { timeout: timeoutMs }),
    connections: 2,
    pipelining: 1,
    headersTimeout: timeoutMs,
    bodyTimeout: timeoutMs,
    maxHeaderSize: 32 * 1024,
  });
  return {
    async fetch(address, { mostBytes, headers = {}, signal }) {
      const timeout = AbortSignal.timeout(timeoutMs);
      const stop = signal ? AbortSignal.any([signal, timeout]) : timeout;
      try {
        if (!/^https?:/i.test(address) || !URL.canParse(address)) throw new Refusal("is no web address");
        const answer = await request(address, {
          dispatcher,
          signal: stop,
          headers: {
            "user-agent": agent,
            "accept-encoding": "gzip, br",
            accept: "text/html,application/xml;q=0.9,*/*;q=0.5",
            ...headers,
          },
        });
        const sent = flat(answer.headers);
        const bytes = await wholeOf(answer.body, mostBytes);
        return {
          ok: true,
          status: answer.statusCode,
          headers: sent,
          bytes: await decoded(bytes, sent["content-encoding"] ?? "", mostBytes),
        };
      } catch (error) {
        return { ok: false, reason: reasonOf(error, timeout.aborted, timeoutMs) };
      }
    },
    close: () => dispatcher.close(),
  };
}

// A field that comes more than once is a list (RFC 9110 section 5.3).
function flat(headers: Record<string, string | string[] | undefined>): Record<string, string> {
  return Object.fromEntries(
    Object.entries(headers).map(([name, value]) => [
      name,
      Array.isArray(value) ? value.join(", ") : (value ?? ""),
    ]),
  );
}

async function wholeOf(body: AsyncIterable<Buffer>, mostBytes: number): Promise<Buffer> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of body) {
    chunks.push(chunk);
    if ((size += chunk.length) > mostBytes) throw new Refusal("answers with more than is taken");
  }
  return Buffer.concat(chunks);
}

async function decoded(bytes: Buffer, codings: string, mostBytes: number): Promise<Uint8Array> {
  let now: Uint8Array = bytes;
  // They were applied in the order in which they are named (RFC 9110 section 8.4).
  for (const coding of codings
    .toLowerCase()
    .split(",")
    .map((one) => one.trim())
    .reverse()) {
    if (coding === "" || coding === "identity" || now.length === 0) continue;
    const decode = CODINGS[coding];
    if (!decode) throw new Refusal(`answers in a coding that was not asked for (${coding.slice(0, 40)})`);
    now = await decode(now, { maxOutputLength: mostBytes }).catch((error: NodeJS.ErrnoException) => {
      throw new Refusal(
        error.code === "ERR_BUFFER_TOO_LARGE"
          ? "answers with more than is taken"
          : "answers with a damaged coding",
      );
    });
  }
  return now;
}
