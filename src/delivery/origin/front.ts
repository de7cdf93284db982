import { randomBytes } from "node:crypto";
import type { IncomingMessage } from "node:http";
import type { Duplex } from "node:stream";
import { LRUCache } from "lru-cache";
import { Agent, type Dispatcher } from "undici";
import {
  answerFields,
  fieldOf,
  hasPassed,
  pairsOf,
  requestFields,
  without,
  type RawFields,
} from "../../core/origin/front/fields.ts";
import {
  holdsOurs,
  rewritable,
  rewrittenFields,
  tagsForOrigin,
  type Rewritable,
} from "../../core/origin/front/rewritable.ts";
import type { FrontChanges } from "../../core/origin/front/front-rewriter.ts";
import { pathKey } from "../../core/address/path-key.ts";
import { placeOnOrigin } from "../../core/origin/place.ts";
import type { ProxyTrust } from "../../incoming/proxy-trust.ts";
import { judgedConnector, type Judge } from "../../outgoing/judge.ts";
import { reasonOf } from "../../outgoing/refusal.ts";
import type { SiteIndex } from "../sites/site-index.ts";
import type { CacheAsked, Keeping } from "./cache/answer-cache.ts";
import { createFromCache, type FromCache, type FromOrigin } from "./cache/from-cache.ts";
import type { FrontAsked, FrontEnd } from "./asked.ts";
import { maybeCoded } from "./coded.ts";
import type { FrontTally } from "./counts.ts";
import { handOver } from "./hand-over.ts";
import { rawFields } from "./raw-fields.ts";
import { changing, looking, type Passage } from "./rewriting.ts";

/** How long an origin may take to begin its answer, and to go on with it: an event stream may be silent for minutes. */
const HEADERS_MS = 30_000;
const BODY_MS = 300_000;
/** Fields of an answer that are longer are a fault of the origin's. */
const MOST_FIELDS = 64 * 1024;
/**
 * So many bytes may wait for a reader before the origin has to: stopping it for each page of usual size, and letting it go on,
 * took a fifth of the pages a second (`npm run bench -- front`).
 */
const MOST_WAITING = 256 * 1024;
/** The rest of an answer that nobody gets is read up to so many bytes, to keep its connection. */
const MOST_DRAINED = 256 * 1024;

/** A page that serves as a frame has at most so many bytes. */
const MOST_READ = 2 * 1024 * 1024;

/** Stands before origins: readers get their pages through it. */
export interface Front {
  pass(asked: FrontAsked, end: FrontEnd): void;
  /** Hands a connection on that wants to speak another protocol (RFC 9110 section 7.8). */
  upgrade(asked: Omit<FrontAsked, "response" | "generation">, socket: Duplex, head: Buffer): void;
  /** A page of a site's origin, as whoever has no cookies gets it. Rejects where it cannot be had. */
  read(site: SiteIndex, path: string): Promise<{ bytes: Uint8Array; type: string }>;
  close(): Promise<void>;
}

export interface FrontParts {
  judge: Judge;
  trust: ProxyTrust;
  tally: FrontTally;
  /** Our name in `Via`, by which a request that comes round again is known. */
  pseudonym: string;
  /** The keys of pages of a site whose readers are to be told of paid links. */
  paid(siteId: string): Promise<ReadonlySet<string>>;
  report(message: string, error: unknown): void;
}

/** What rules make of a page of the site's origin, where that is asked of it. */
type Doing = "untouched" | "shadow" | "on";

/** Makes what stands before origins, with connections that are kept. */
export function createFront({ judge, trust, tally, pseudonym, paid, report }: FrontParts): Front {
  // What pages are changed by is known to this process alone: no other's tag is taken for its own.
  const instance = randomBytes(3).toString("hex");
  const dispatcher = new Agent({
    connect: judgedConnector(judge, { timeout: 5_000 }),
    connections: 256,
    pipelining: 1,
    keepAliveTimeout: 20_000,
    headersTimeout: HEADERS_MS,
    bodyTimeout: BODY_MS,
    maxHeaderSize: MOST_FIELDS,
  });

  const fromCache = createFromCache({ dispatcher, tally, pseudonym, report });

  function fieldsFor({ request, host, seen }: Pick<FrontAsked, "request" | "host" | "seen">): string[] {
    const remote = request.socket.remoteAddress ?? "";
    return requestFields(request.rawHeaders, {
      address: trust.address(remote, seen.forwardedFor),
      peer: trust.address(remote, ""),
      isBelieved: trust.believes(remote),
      host: seen.host || host,
      isSecure: trust.isSecure(remote, fieldOf(request.rawHeaders, "x-forwarded-proto") ?? ""),
      pseudonym,
    });
  }

  return {
    pass(asked, end) {
      const { request, site, target, generation } = asked;
      const { origin } = site.site;
      if (!origin) return end.failed(502, "is not named");
      if (hasPassed(request.rawHeaders, pseudonym))
        return end.failed(508, "leads to us again: its address is that of this installation");
      const doing = doingOn(origin, asked);
      const address = originIn(origin.address);
      const asks = doing === "untouched" ? withoutAsking(target) : target;
      const cached = fromCache.asked(asked, asks);
      if (request.method !== "GET" && request.method !== "HEAD") fromCache.forget(cached);
      const begin = (disclosure?: string): void => {
        const stamp = `${instance}${generation.toString(36)}${disclosure === undefined ? "" : "d"}`;
        const from: FromOrigin = {
          doing,
          stamp,
          origin: address,
          target: asks,
          fields: () => without(fieldsFor(asked), HELD),
          changes: () => changesOf(asked, address, disclosure),
        };
        if (fromCache.answer(asked, cached, from, end)) return;
        tally.add(site.site.id, { passed: 1 });
        const plain = fieldsFor(asked);
        new Passing(asked, end, {
          from,
          cached,
          fromCache,
          isTold: disclosure !== undefined,
          dispatcher,
          tally,
          pseudonym,
          fields: doing === "on" ? conditional(plain, stamp) : plain,
        }).begin();
      };
      const { text, place } = site.site.disclosure;
      if (!place || doing !== "on") return begin();
      paid(site.site.id).then(
        (keys) => begin(keys.has(pathKey(target.replace(/\?.*/s, ""))) ? text : undefined),
        (error: unknown) => {
          report("Which pages elsewhere carry paid links could not be read.", error);
          begin();
        },
      );
    },
    upgrade(asked, socket, head) {
      const { origin } = asked.site.site;
      if (!origin) return void socket.destroy();
      const address = new URL(origin.address);
      const fields = [
        ...fieldsFor(asked),
        "Connection",
        "Upgrade",
        "Upgrade",
        asked.request.headers.upgrade ?? "",
      ];
      void handOver({ judge, address, fields, asked, socket, head, timeoutMs: HEADERS_MS });
    },
    async read(site, path) {
      const { origin } = site.site;
      if (!origin) throw new Error("the site has no origin");
      const { statusCode, headers, body } = await dispatcher.request({
        origin: originIn(origin.address),
        path,
        method: "GET",
        headers: { Host: site.primary, Accept: "text/html", Via: `1.1 ${pseudonym}` },
      });
      const chunks: Buffer[] = [];
      let bytes = 0;
      for await (const chunk of body as AsyncIterable<Buffer>) {
        if ((bytes += chunk.length) > MOST_READ) throw new Error("it is longer than 2 MB");
        chunks.push(chunk);
      }
      if (statusCode !== 200) throw new Error(`${path} answers ${statusCode}`);
      return { bytes: Buffer.concat(chunks), type: String(headers["content-type"] ?? "") };
    },
    close: () => dispatcher.destroy(),
  };
}

// Each site's is taken apart once: every request asks for it.
const origins = new LRUCache<string, string>({ max: 1_000 });

function originIn(address: string): string {
  const known = origins.get(address);
  if (known !== undefined) return known;
  const { origin } = new URL(address);
  origins.set(address, origin);
  return origin;
}

// Somebody of the team may ask for a page as it is without us: `?maprope=untouched`.
const UNTOUCHED = /([?&])maprope=untouched(?:&|$)/;

function doingOn(
  { passes, only }: { passes: Doing; only: readonly string[] },
  { target }: FrontAsked,
): Doing {
  if (UNTOUCHED.test(target)) return "untouched";
  if (passes !== "on" || only.length === 0 || only.some((start) => target.startsWith(start))) return passes;
  // By path, the rest is only looked at.
  return "shadow";
}

function withoutAsking(target: string): string {
  return UNTOUCHED.test(target) ? target.replace(UNTOUCHED, "$1").replace(/[?&]$/, "") : target;
}

// A reader who holds a page that we changed is asked for by the origin's own tag, or not by any.
function conditional(fields: string[], stamp: string): string[] {
  const held = fieldOf(fields, "if-none-match");
  if (held === undefined || !holdsOurs(held)) return fields;
  const tags = tagsForOrigin(held, stamp);
  const kept = without(fields, HELD);
  return tags === undefined ? kept : [...kept, "If-None-Match", tags];
}

const HELD: ReadonlySet<string> = new Set(["if-none-match", "if-modified-since"]);

interface PassingParts {
  from: FromOrigin;
  cached: CacheAsked;
  fromCache: FromCache;
  /** Its readers are told of paid links. */
  isTold: boolean;
  dispatcher: Dispatcher;
  tally: FrontTally;
  pseudonym: string;
  /** The fields of the request, with what the reader holds already. */
  fields: string[];
}

// What a page of the origin is changed by.
function changesOf(
  { site, target }: FrontAsked,
  origin: string,
  disclosure: string | undefined,
): FrontChanges {
  const category = placeOnOrigin(`${origin}${target}`, `${origin}/`, [])?.part ?? "";
  return {
    rules: site.site.rules,
    site: site.links,
    page: target.replace(/\?.*/s, ""),
    category,
    disclosure,
  };
}

/** One request on its way to the origin, and the answer on its way back. */
class Passing implements Dispatcher.DispatchHandler {
  private readonly asked: FrontAsked;
  private readonly end: FrontEnd;
  private readonly parts: PassingParts;
  private controller: Dispatcher.DispatchController | undefined;
  private passage: Passage | undefined;
  private watched: Pick<Passage, "write" | "end" | "destroy"> | undefined;
  private changed = 0;
  private drained = 0;
  private keeping: Keeping | undefined;
  private state: "asking" | "passing" | "draining" | "over" = "asking";
  private tries = 0;
  /** An answer whose coding is looked at before it is begun. */
  private held: { fields: RawFields; how: Rewritable; status: number; words: string | undefined } | undefined;

  constructor(asked: FrontAsked, end: FrontEnd, parts: PassingParts) {
    this.asked = asked;
    this.end = end;
    this.parts = parts;
  }

  begin(): void {
    const { request, response } = this.asked;
    const { dispatcher, fields, from } = this.parts;
    const { origin, target } = from;
    this.tries += 1;
    if (this.tries === 1)
      response.once("close", () => {
        if (this.state === "over" || response.writableFinished) return;
        this.controller?.abort(new Error("the reader has gone"));
        this.passage?.destroy();
        this.watched?.destroy();
      });
    const hasBody =
      request.headers["transfer-encoding"] !== undefined ||
      Number(request.headers["content-length"] ?? 0) > 0;
    try {
      dispatcher.dispatch(
        {
          origin,
          path: target,
          method: (request.method ?? "GET") as Dispatcher.HttpMethod,
          headers: fields,
          body: hasBody ? request : null,
        },
        this,
      );
    } catch (error) {
      this.fail(error as Error);
    }
  }

  onRequestStart(controller: Dispatcher.DispatchController): void {
    this.controller = controller;
    if (this.asked.response.destroyed) controller.abort(new Error("the reader has gone"));
  }

  onResponseStart(
    controller: Dispatcher.DispatchController,
    status: number,
    _headers: unknown,
    words?: string,
  ): void {
    const fields = rawFields(controller.rawHeaders);
    if (status < 200) return this.inform(status, fields);
    const { request } = this.asked;
    const { tally, cached, fromCache, from } = this.parts;
    const { doing } = from;
    if (status >= 500 && fromCache.answerForError(this.asked, cached, from, this.end)) {
      this.state = "draining";
      return;
    }
    if (status === 404 && doing === "on" && this.end.missed && wantsPage(request)) {
      this.state = "draining";
      tally.add(this.asked.site.site.id, { misses: 1 });
      return this.end.missed();
    }
    this.keeping = fromCache.keeping(cached, { status, words, fields });
    const how = doing === "untouched" ? undefined : rewritable(request.method ?? "", status, fields);
    if (how) tally.add(this.asked.site.site.id, { pages: 1 });
    if (!how || doing === "shadow") {
      this.start(status, words, answerFields(fields, this.parts.pseudonym));
      if (how) this.watch(how);
    } else if (how.coding === undefined) this.startChanging({ fields, how, status, words });
    // Whether it is coded as it says is seen by its first bytes.
    else this.held = { fields, how, status, words };
  }

  onResponseData(controller: Dispatcher.DispatchController, chunk: Buffer): void {
    if (this.state === "draining") {
      this.drained += chunk.length;
      if (this.drained > MOST_DRAINED) controller.abort(new Error("nobody gets it"));
      return;
    }
    this.keeping?.add(chunk);
    if (this.held) this.release(chunk);
    this.watched?.write(chunk);
    const goesOn = this.passage ? this.passage.write(chunk) : this.put(chunk);
    if (!goesOn) controller.pause();
  }

  onResponseEnd(controller: Dispatcher.DispatchController): void {
    if (this.state === "draining") return void (this.state = "over");
    this.keeping?.end();
    if (this.held) this.release(Buffer.alloc(0));
    this.watched?.end();
    if (this.passage) this.passage.end();
    else this.finish(rawFields(controller.rawTrailers));
  }

  onResponseError(_controller: Dispatcher.DispatchController, error: Error): void {
    if (this.state === "draining") return void (this.state = "over");
    if (this.state === "over" || this.asked.response.destroyed) return;
    // A connection that was kept may have been closed just now; what changes nothing is asked once more.
    const isSafe = this.asked.request.method === "GET" || this.asked.request.method === "HEAD";
    if (this.state === "asking" && !this.held && this.tries === 1 && isSafe && wasClosed(error))
      return this.begin();
    this.fail(error);
  }

  private fail(error: Error): void {
    const { response, site } = this.asked;
    this.parts.tally.add(site.site.id, { failures: 1 });
    const isBegun = this.state !== "asking";
    this.state = "over";
    this.passage?.destroy();
    // What was begun cannot be taken back: it ends where it is, and whoever reads it can tell that it is not all.
    if (isBegun) return void response.destroy();
    const code = (error as NodeJS.ErrnoException).code ?? "";
    const { fromCache, cached, from } = this.parts;
    if (fromCache.answerForError(this.asked, cached, from, this.end)) return;
    const isLate = /TIMEOUT/.test(code) || error.name === "TimeoutError";
    this.end.failed(isLate ? 504 : 502, reasonOf(error, false, HEADERS_MS));
  }

  private inform(status: number, fields: RawFields): void {
    const { response } = this.asked;
    const link = fieldOf(fields, "link");
    if (status === 103 && link !== undefined) response.writeEarlyHints({ link: splitLinks(link) });
    else if (status === 102) response.writeProcessing();
  }

  private start(status: number, words: string | undefined, fields: string[]): void {
    this.state = "passing";
    const { response } = this.asked;
    if (words === undefined) response.writeHead(status, fields);
    else response.writeHead(status, words, fields);
    this.end.answered();
  }

  private startChanging({ fields, how, status, words }: NonNullable<typeof this.held>): void {
    const { pseudonym, tally, from, isTold } = this.parts;
    const { id } = this.asked.site.site;
    this.start(status, words, rewrittenFields(fields, pseudonym, from.stamp));
    const passage = changing(from.changes(), how.coding, {
      put: (bytes) => this.put(bytes),
      ended: () => {
        tally.add(id, {
          links: passage.links,
          changedLinks: this.changed,
          changedPages: this.changed > 0 || isTold ? 1 : 0,
        });
        this.finish([]);
      },
      drained: () => this.controller?.resume(),
      failed: (error) => {
        if (this.state === "over") return;
        this.controller?.abort(error);
        this.fail(error);
      },
      changed: () => void (this.changed += 1),
    });
    this.passage = passage;
  }

  private release(chunk: Buffer): void {
    const held = this.held!;
    this.held = undefined;
    if (maybeCoded(held.how.coding!, chunk) && chunk.length > 0) return this.startChanging(held);
    this.start(held.status, held.words, answerFields(held.fields, this.parts.pseudonym));
  }

  private watch(how: Rewritable): void {
    const { site, target } = this.asked;
    const { tally } = this.parts;
    this.watched = looking(this.parts.from.changes(), how.coding, {
      changed: (link) => {
        this.changed += 1;
        tally.sample(site.site.id, target, link);
      },
      ended: (links) =>
        tally.add(site.site.id, {
          links,
          changedLinks: this.changed,
          changedPages: this.changed > 0 ? 1 : 0,
        }),
    });
  }

  private put(bytes: Buffer): boolean {
    const { response } = this.asked;
    if (response.write(bytes) || response.writableLength < MOST_WAITING) return true;
    response.once("drain", () => {
      // Whichever of both was waiting.
      if (this.passage) this.passage.write(Buffer.alloc(0));
      this.controller?.resume();
    });
    return false;
  }

  private finish(trailers: RawFields): void {
    this.state = "over";
    const { response } = this.asked;
    const pairs = pairsOf(trailers);
    if (pairs.length > 0) response.addTrailers(pairs);
    response.end();
  }
}

function splitLinks(link: string): string[] {
  return link.split(/,(?=\s*<)/).map((one) => one.trim());
}

function wasClosed(error: Error): boolean {
  return /^(?:UND_ERR_SOCKET|ECONNRESET|EPIPE)$/.test((error as NodeJS.ErrnoException).code ?? "");
}

// Pictures, styles and scripts that are missing are no pages that a reader missed.
function wantsPage({ method, rawHeaders }: IncomingMessage): boolean {
  if (method !== "GET" && method !== "HEAD") return false;
  const into = fieldOf(rawHeaders, "sec-fetch-dest");
  if (into !== undefined) return /^(?:document|iframe|frame|empty)$/.test(into);
  const accept = fieldOf(rawHeaders, "accept");
  return accept === undefined || /text\/html|\*\/\*/.test(accept);
}
