import { titleIn } from "../core/text/title.ts";
import { request as httpRequest, type IncomingMessage } from "node:http";
import { request as httpsRequest } from "node:https";
import type { LookupFunction } from "node:net";
import { createFetching, type Fetched, type FetchOptions } from "./fetching.ts";
import { createJudge, type Judge, type JudgeOptions } from "./judge.ts";
import { reasonOf, Refusal } from "./refusal.ts";

/** What one outside address answered, not followed any further. */
export type Visit =
  | { ok: true; status: number; location: string | null; title: string | null; ms: number }
  | { ok: false; reason: string; ms: number };

/** Asks outside addresses on our behalf. */
export interface Outgoing {
  /** One GET; reads the page's title when `title` is set. Never throws. */
  visit(address: string, options?: { title?: boolean; signal?: AbortSignal }): Promise<Visit>;
  /** One GET of a whole document, at most so many bytes. Never throws. */
  read(address: string, mostBytes: number): Promise<ReadDocument>;
  /** One GET of a document, with what it was answered with, over connections that are kept. Never throws. */
  fetch(address: string, options: FetchOptions): Promise<Fetched>;
}

/** A document from outside, or why there is none. */
export type ReadDocument = { ok: true; type: string; bytes: Uint8Array } | { ok: false; reason: string };

export interface OutgoingOptions extends JudgeOptions {
  /** Where pages of sites may be read; as everything else unless given. */
  origins?: Judge;
  /** Milliseconds for one whole visit. */
  timeoutMs?: number;
}

const TIMEOUT_MS = 6_000;
const MAX_TITLE_BYTES = 256 * 1024;
const AGENT = "MapRope/1 (link check)";
/** By which a robots file names us when it reads a site's pages (RFC 9309 section 2.2.1). */
export const READING_AGENT = "MapRope";

/** Makes the outgoing client. It goes only where it is allowed to, and the address that was judged is the one that is asked. */
export function createOutgoing(options: OutgoingOptions = {}): Outgoing {
  const judge = createJudge(options);
  const timeoutMs = options.timeoutMs ?? TIMEOUT_MS;

  function judged(url: URL): Promise<string> {
    return judge(
      url.hostname.replace(/^\[|\]$/g, ""),
      Number(url.port || (url.protocol === "https:" ? 443 : 80)),
    );
  }
  const fetching = createFetching(
    options.origins ?? judge,
    `${READING_AGENT}/1 (reads pages for their editors)`,
    timeoutMs * 3,
  );
  return {
    fetch: (address, fetchOptions) => fetching.fetch(address, fetchOptions),
    async read(address, mostBytes) {
      const timeout = AbortSignal.timeout(timeoutMs);
      try {
        if (!/^https?:/i.test(address) || !URL.canParse(address)) throw new Refusal("is no web address");
        const url = new URL(address);
        const answer = await get(url, await judged(url), timeout);
        if (answer.statusCode !== 200) {
          answer.destroy();
          throw new Refusal(`answers ${answer.statusCode}`);
        }
        if (isEncoded(answer)) {
          answer.destroy();
          throw new Refusal("answers packed, which was not asked for");
        }
        const bytes = await wholeOf(answer, mostBytes);
        return { ok: true, type: answer.headers["content-type"] ?? "", bytes };
      } catch (error) {
        return { ok: false, reason: reasonOf(error, timeout.aborted, timeoutMs) };
      }
    },
    async visit(address, { title = false, signal } = {}) {
      const began = performance.now();
      const took = (): number => Math.round(performance.now() - began);
      const timeout = AbortSignal.timeout(timeoutMs);
      const stop = signal ? AbortSignal.any([signal, timeout]) : timeout;
      try {
        if (!/^https?:/i.test(address) || !URL.canParse(address)) throw new Refusal("is no web address");
        const url = new URL(address);
        const to = await judged(url);
        const answer = await get(url, to, stop);
        const location = answer.headers.location ?? null;
        const found = title && location === null ? await titleOf(answer) : null;
        answer.destroy();
        return { ok: true, status: answer.statusCode ?? 0, location, title: found, ms: took() };
      } catch (error) {
        return { ok: false, reason: reasonOf(error, timeout.aborted, timeoutMs), ms: took() };
      }
    },
  };
}

function get(url: URL, address: string, signal: AbortSignal): Promise<IncomingMessage> {
  // The name was resolved and judged already: resolving it again could give another answer.
  const family = address.includes(":") ? 6 : 4;
  const lookup: LookupFunction = (_host, wanted, callback) =>
    wanted.all ? callback(null, [{ address, family }]) : callback(null, address, family);
  const ask = url.protocol === "https:" ? httpsRequest : httpRequest;
  return new Promise((resolve, reject) => {
    const asked = ask(
      url,
      {
        method: "GET",
        lookup,
        signal,
        agent: false,
        headers: { "User-Agent": AGENT, Accept: "text/html,*/*;q=0.5", "Accept-Encoding": "identity" },
      },
      resolve,
    );
    asked.on("error", reject);
    asked.end();
  });
}

async function wholeOf(answer: IncomingMessage, mostBytes: number): Promise<Uint8Array> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of answer as AsyncIterable<Buffer>) {
    chunks.push(chunk);
    if ((size += chunk.length) > mostBytes) throw new Refusal("answers with more than is taken");
  }
  if (!answer.complete) throw new Refusal("stopped half-way");
  return Buffer.concat(chunks);
}

async function titleOf(answer: IncomingMessage): Promise<string | null> {
  if (!/^text\/html|xhtml/i.test(answer.headers["content-type"] ?? "")) return null;
  if (isEncoded(answer)) return null;
  const chunks: Buffer[] = [];
  let size = 0;
  let tail = "";
  for await (const chunk of answer as AsyncIterable<Buffer>) {
    chunks.push(chunk);
    // The end of the title may lie across two pieces.
    const seen = tail + chunk.toString("latin1").toLowerCase();
    tail = seen.slice(-"</title".length);
    if ((size += chunk.length) > MAX_TITLE_BYTES || seen.includes("</title") || seen.includes("<body")) break;
  }
  return titleIn(decoded(Buffer.concat(chunks), answer.headers["content-type"] ?? ""));
}

// What is sent packed was not asked for: unpacking could make any amount of it.
function isEncoded(answer: IncomingMessage): boolean {
  return !/^(?:|identity)$/i.test((answer.headers["content-encoding"] ?? "").trim());
}

function decoded(bytes: Uint8Array, type: string): string {
  const charset = /charset\s{0,9}=\s{0,9}"?([\w-]{1,40})/i.exec(type)?.[1] ?? "utf-8";
  try {
    return new TextDecoder(charset).decode(bytes);
  } catch {
    // A charset that nobody knows: letters of ASCII are the same in nearly all.
    return new TextDecoder("utf-8").decode(bytes);
  }
}
