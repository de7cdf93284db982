import type { IncomingMessage } from "node:http";
import type { Dispatcher } from "undici";
import { answerFields, fieldOf, pairsOf, type RawFields } from "../../core/origin/front/fields.ts";
import { rewritable, rewrittenFields, type Rewritable } from "../../core/origin/front/rewritable.ts";
import { reasonOf } from "../../outgoing/refusal.ts";
import type { CacheAsked, Keeping } from "./cache/answer-cache.ts";
import type { FromCache, FromOrigin } from "./cache/from-cache.ts";
import type { FrontAsked, FrontEnd } from "./asked.ts";
import { ChangedPage } from "./changing/changed-page.ts";
import { maybeCoded } from "./changing/coded.ts";
import type { PagesBefore } from "./changing/pages-before.ts";
import { changing, changingCoded, looking, type Passage } from "./changing/rewriting.ts";
import type { FrontTally } from "./counts.ts";
import { rawFields } from "./raw-fields.ts";

/**
 * So many bytes may wait for a reader before the origin has to: stopping it for each page of usual size, and letting it go on,
 * took a fifth of the pages a second (`npm run bench -- front`).
 */
const MOST_WAITING = 256 * 1024;
/** The rest of an answer that nobody gets is read up to so many bytes, to keep its connection. */
const MOST_DRAINED = 256 * 1024;

/** What a request passes with. */
interface PassingParts {
  from: FromOrigin;
  cached: CacheAsked;
  fromCache: FromCache;
  pagesBefore: PagesBefore;
  /** Its readers are told of paid links. */
  isTold: boolean;
  dispatcher: Dispatcher;
  tally: FrontTally;
  pseudonym: string;
  /** How long the origin had to begin its answer. */
  headersMs: number;
  /** The fields of the request, with what the reader holds already. */
  fields: string[];
}

/** One request on its way to the origin, and the answer on its way back. */
export class Passing implements Dispatcher.DispatchHandler {
  private readonly asked: FrontAsked;
  private readonly end: FrontEnd;
  private readonly parts: PassingParts;
  private controller: Dispatcher.DispatchController | undefined;
  private passage: Passage | undefined;
  private watched: Pick<Passage, "write" | "end" | "destroy"> | undefined;
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
    this.end.failed(isLate ? 504 : 502, reasonOf(error, false, this.parts.headersMs));
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
    const { pseudonym, tally, from, isTold, pagesBefore } = this.parts;
    const { site, target } = this.asked;
    const { id } = site.site;
    this.start(status, words, rewrittenFields(fields, pseudonym, from.stamp));
    const page =
      how.coding === undefined
        ? pagesBefore.passing(
            `${id} ${from.stamp} ${target}`,
            () => from.changes(),
            (bytes) => void this.put(bytes),
          )
        : new ChangedPage(from.changes());
    const end = {
      put: (bytes: Buffer) => this.put(bytes),
      ended: () => {
        const { links, changed } = page;
        tally.add(id, {
          links,
          changedLinks: changed,
          changedPages: changed > 0 || isTold ? 1 : 0,
        });
        this.finish([]);
      },
      drained: () => this.controller?.resume(),
      failed: (error: Error) => {
        if (this.state === "over") return;
        this.controller?.abort(error);
        this.fail(error);
      },
    };
    this.passage = how.coding === undefined ? changing(page, end) : changingCoded(page, how.coding, end);
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
    let changed = 0;
    this.watched = looking(this.parts.from.changes(), how.coding, {
      changed: (link) => {
        changed += 1;
        tally.sample(site.site.id, target, link);
      },
      ended: (links) =>
        tally.add(site.site.id, { links, changedLinks: changed, changedPages: changed > 0 ? 1 : 0 }),
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
