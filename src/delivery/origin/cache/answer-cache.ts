import CachePolicy from "http-cache-semantics";
import { LRUCache } from "lru-cache";
import { fieldOf, type RawFields } from "../../../core/origin/front/fields.ts";

const MAX_BYTES = 64 * 1024 * 1024;
/** A longer answer is not kept: it would push out too many others. */
const MAX_ANSWER = 2 * 1024 * 1024;
/** Answers of one address that differ by what was asked (`Vary`). */
const MAX_VARIANTS = 8;

/** A request as caching looks at it. */
export interface CacheAsked {
  /** The site, the host and the target: what else is asked for is another answer. */
  key: string;
  method: string;
  fields: RawFields;
}

/** An answer of an origin that is kept, byte by byte as it came. */
export interface KeptAnswer {
  policy: CachePolicy;
  status: number;
  words: string | undefined;
  fields: RawFields;
  body: Buffer;
  /** It says itself that it is for everybody, whatever cookies they send. */
  isForAll: boolean;
  /** The names of the fields of a request by which it is chosen (`Vary`), in lower case. */
  varies: readonly string[];
  /** To requests with these words in those fields it is fresh until then (in milliseconds), as the policy said. */
  fresh?: { by: string; until: number } | undefined;
  /** What was made of it on its way, by what it was changed by. */
  made?: MadeAnswer;
}

/** A kept answer whose links are changed. */
export interface MadeAnswer {
  stamp: string;
  body: Buffer;
  links: number;
  changed: number;
  /** What it is sent with, once that was put together. */
  fields?: readonly string[];
}

/** What is kept for a request: to be sent as it is, or while it is asked anew behind the reader's back. */
export interface Found {
  kept: KeptAnswer;
  isStale: boolean;
}

/** Collects an answer that may be kept, as it passes. */
export interface Keeping {
  add(chunk: Buffer): void;
  end(): void;
}

/**
 * The answers of origins, kept by RFC 9111 as a cache that is shared by all readers: only what says how long it is fresh, nothing
 * that is private, sets cookies or answers authorised requests; what readers with cookies get only where it is said to be for
 * everybody.
 */
export class AnswerCache {
  private readonly kept = new LRUCache<string, KeptAnswer[]>({
    maxSize: MAX_BYTES,
    sizeCalculation: (variants) =>
      variants.reduce((sum, { body, made }) => sum + body.length + (made?.body.length ?? 0) + 1_000, 1),
  });

  /** What may be sent for a request without waiting for the origin. */
  find(asked: CacheAsked): Found | undefined {
    const variants = this.kept.get(asked.key);
    if (!variants || !isAsked(asked)) return undefined;
    let request: CachePolicy.HttpRequest | undefined;
    for (const kept of variants) {
      if (!kept.isForAll && hasCookie(asked)) continue;
      const by = chosenBy(asked, kept.varies);
      if (by !== undefined && kept.fresh?.by === by && Date.now() < kept.fresh.until)
        return { kept, isStale: false };
      const { response, revalidation } = kept.policy.evaluateRequest((request ??= requestOf(asked)));
      if (!response || revalidation?.synchronous) continue;
      if (by !== undefined && !revalidation)
        kept.fresh = { by, until: Date.now() + kept.policy.timeToLive() };
      return { kept, isStale: revalidation !== undefined };
    }
    return undefined;
  }

  /** What may be sent where the origin cannot be had, or says that it failed (RFC 5861 section 4). */
  findForError(asked: CacheAsked): KeptAnswer | undefined {
    if (!isAsked(asked)) return undefined;
    const request = requestOf(asked);
    return (this.kept.get(asked.key) ?? []).find(
      (kept) =>
        (kept.isForAll || !hasCookie(asked)) &&
        isOfRequest(kept.policy, request) &&
        !kept.policy.revalidatedPolicy(request, { status: 503, headers: {} }).modified,
    );
  }

  /** Collects an answer that is on its way to a reader; undefined where it may not be kept. */
  keeping(
    asked: CacheAsked,
    { status, words, fields }: Pick<KeptAnswer, "status" | "words" | "fields">,
  ): Keeping | undefined {
    if (asked.method !== "GET" || !isAsked(asked) || fieldOf(fields, "set-cookie") !== undefined)
      return undefined;
    const headers = objectOf(fields);
    const policy = new CachePolicy(
      requestOf(asked),
      { status, headers },
      { shared: true, cacheHeuristic: 0 },
    );
    // One that is coded and does not say that others get it otherwise might come to who cannot read it.
    const isCoded = !/^(?:identity)?$/i.test((headers["content-encoding"] ?? "").trim());
    if (isCoded && !/\baccept-encoding\b/i.test(headers.vary ?? "")) return undefined;
    const isForAll = /(?:^|[,\s])(?:public|s-maxage)(?:[=,\s]|$)/i.test(headers["cache-control"] ?? "");
    if (!policy.storable() || policy.timeToLive() <= 0 || (hasCookie(asked) && !isForAll)) return undefined;
    const chunks: Buffer[] = [];
    let bytes = 0;
    return {
      add(chunk) {
        bytes += chunk.length;
        if (bytes <= MAX_ANSWER) chunks.push(chunk);
        else chunks.length = 0;
      },
      end: () => {
        if (bytes > MAX_ANSWER) return;
        const varies = (headers.vary ?? "")
          .toLowerCase()
          .split(/[\s,]+/)
          .filter(Boolean);
        this.put(asked, { policy, status, words, fields, body: Buffer.concat(chunks), isForAll, varies });
      },
    };
  }

  /** Takes over that a kept answer is still the origin's (RFC 9111 section 4.3.4). */
  confirm(asked: CacheAsked, kept: KeptAnswer, fields: RawFields): void {
    const { policy, modified } = kept.policy.revalidatedPolicy(requestOf(asked), {
      status: 304,
      headers: objectOf(fields),
    });
    if (modified) this.drop(asked.key, kept);
    else {
      kept.policy = policy;
      kept.fresh = undefined;
    }
  }

  /** Fields by which the origin is asked whether a kept answer is still its own. */
  confirmingFields(asked: CacheAsked, kept: KeptAnswer): Record<string, string> {
    const headers = kept.policy.revalidationHeaders(requestOf(asked));
    const told: Record<string, string> = {};
    for (const name of ["if-none-match", "if-modified-since"]) {
      const value = headers[name];
      if (typeof value === "string") told[name] = value;
    }
    return told;
  }

  /** Lets go of what is kept of an address: somebody may have changed it (RFC 9111 section 4.4). */
  forget(key: string): void {
    this.kept.delete(key);
  }

  /** Counts anew what an entry takes, once something was made of it. */
  resized(key: string): void {
    const variants = this.kept.get(key);
    if (variants) this.kept.set(key, [...variants]);
  }

  private put(asked: CacheAsked, kept: KeptAnswer): void {
    const request = requestOf(asked);
    // Whatever would answer the same request is replaced.
    const others = (this.kept.get(asked.key) ?? []).filter(
      ({ policy }) => !isOfRequest(policy, request) && !policy.stale(),
    );
    this.kept.set(asked.key, [kept, ...others].slice(0, MAX_VARIANTS));
  }

  private drop(key: string, gone: KeptAnswer): void {
    this.kept.set(
      key,
      (this.kept.get(key) ?? []).filter((kept) => kept !== gone),
    );
  }
}

// A part of an answer, one under conditions that only the origin knows, or one for somebody alone is not kept and not found.
function isAsked({ method, fields }: CacheAsked): boolean {
  if (method !== "GET" && method !== "HEAD") return false;
  for (const name of ["range", "authorization", "if-match", "if-unmodified-since", "upgrade"])
    if (fieldOf(fields, name) !== undefined) return false;
  return true;
}

// Whether a kept answer, however old, is one to this request.
function isOfRequest(policy: CachePolicy, { headers, ...request }: CachePolicy.HttpRequest): boolean {
  return (
    policy.evaluateRequest({ ...request, headers: { ...headers, "cache-control": "max-stale" } }).response !==
    undefined
  );
}

// By what a kept answer is chosen; undefined for a request that says itself what it would have (RFC 9111 section 5.2.1).
function chosenBy({ method, fields }: CacheAsked, varies: readonly string[]): string | undefined {
  if (fieldOf(fields, "cache-control") !== undefined || fieldOf(fields, "pragma") !== undefined)
    return undefined;
  let by = method;
  for (const name of varies) by += `\n${fieldOf(fields, name) ?? ""}`;
  return by;
}

function hasCookie({ fields }: CacheAsked): boolean {
  return fieldOf(fields, "cookie") !== undefined;
}

function requestOf({ key, method, fields }: CacheAsked): CachePolicy.HttpRequest {
  return { url: key, method, headers: { host: "", ...objectOf(fields) } };
}

function objectOf(fields: RawFields): Record<string, string> {
  const headers: Record<string, string> = {};
  for (let at = 0; at + 1 < fields.length; at += 2) {
    const name = fields[at]!.toLowerCase();
    headers[name] = headers[name] === undefined ? fields[at + 1]! : `${headers[name]}, ${fields[at + 1]!}`;
  }
  return headers;
}
