import { randomBytes } from "node:crypto";
import type { Duplex } from "node:stream";
import { LRUCache } from "lru-cache";
import { Agent } from "undici";
import { fieldOf, hasPassed, requestFields, without } from "../../core/origin/front/fields.ts";
import { holdsOurs, tagsForOrigin } from "../../core/origin/front/rewritable.ts";
import type { FrontChanges } from "../../core/origin/front/front-rewriter.ts";
import { pathKey } from "../../core/address/path-key.ts";
import { beginsAsOne } from "../../core/address/path-start.ts";
import { placeOnOrigin } from "../../core/origin/place.ts";
import type { ProxyTrust } from "../../incoming/proxy-trust.ts";
import { judgedConnector, type Judge } from "../../outgoing/judge.ts";
import type { SiteIndex } from "../sites/site-index.ts";
import type { CacheAsked } from "./cache/answer-cache.ts";
import { createFromCache, type FromOrigin } from "./cache/from-cache.ts";
import type { FrontAsked, FrontEnd } from "./asked.ts";
import { PagesBefore } from "./changing/pages-before.ts";
import type { FrontTally } from "./counts.ts";
import { handOver } from "./hand-over.ts";
import { Passing } from "./passing.ts";

/** How long an origin may take to begin its answer, and to go on with it: an event stream may be silent for minutes. */
const HEADERS_MS = 30_000;
const BODY_MS = 300_000;
/** Fields of an answer that are longer are a fault of the origin's. */
const MOST_FIELDS = 64 * 1024;
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

  const pagesBefore = new PagesBefore();
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

  function begin(asked: FrontAsked, cached: CacheAsked, from: Wanted, end: FrontEnd): void {
    if (fromCache.answer(asked, cached, from, end)) return;
    tally.add(asked.site.site.id, { passed: 1 });
    const plain = fieldsFor(asked);
    new Passing(asked, end, {
      from,
      cached,
      fromCache,
      pagesBefore,
      isTold: from.isTold,
      dispatcher,
      tally,
      pseudonym,
      headersMs: HEADERS_MS,
      fields: from.doing === "on" ? conditional(plain, from.stamp) : plain,
    }).begin();
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
      const asks = withoutAsking(target);
      const cached = fromCache.asked(asked, asks);
      if (request.method !== "GET" && request.method !== "HEAD") fromCache.forget(cached);
      const stamp = `${instance}${generation.toString(36)}`;
      const from = new Wanted(asked, { doing, stamp, origin: address, target: asks }, fieldsFor);
      const { text, place } = site.site.disclosure;
      if (!place || doing !== "on") return begin(asked, cached, from, end);
      paid(site.site.id).then(
        (keys) => {
          if (keys.has(pathKey(target.replace(/\?.*/s, "")))) from.tell(text);
          begin(asked, cached, from, end);
        },
        (error: unknown) => {
          report("Which pages elsewhere carry paid links could not be read.", error);
          begin(asked, cached, from, end);
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

// Somebody of the team may ask for a page as it is without us, or as it is when it is changed, whatever is set.
const ASKED = /([?&])maprope=(untouched|changed)(?:&|$)/;

function doingOn(
  { passes, only }: { passes: Doing; only: readonly string[] },
  { target }: FrontAsked,
): Doing {
  const wanted = ASKED.exec(target)?.[2];
  if (wanted !== undefined) return wanted === "changed" ? "on" : "untouched";
  if (passes !== "on" || only.length === 0 || beginsAsOne(target, only)) return passes;
  // By path, the rest is only looked at.
  return "shadow";
}

function withoutAsking(target: string): string {
  return ASKED.test(target) ? target.replace(ASKED, "$1").replace(/[?&]$/, "") : target;
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

/** What is made of an answer on its way: made for each request, and worked out only where it is wanted. */
class Wanted implements FromOrigin {
  readonly doing: Doing;
  readonly origin: string;
  readonly target: string;
  stamp: string;
  private readonly asked: FrontAsked;
  private readonly fieldsFor: (asked: FrontAsked) => string[];
  private disclosure: string | undefined;

  constructor(
    asked: FrontAsked,
    { doing, stamp, origin, target }: Pick<FromOrigin, "doing" | "stamp" | "origin" | "target">,
    fieldsFor: (asked: FrontAsked) => string[],
  ) {
    this.asked = asked;
    this.doing = doing;
    this.stamp = stamp;
    this.origin = origin;
    this.target = target;
    this.fieldsFor = fieldsFor;
  }

  /** Its readers are told of paid links: it is another page then. */
  tell(disclosure: string): void {
    this.disclosure = disclosure;
    this.stamp += "d";
  }

  get isTold(): boolean {
    return this.disclosure !== undefined;
  }

  fields(): string[] {
    return without(this.fieldsFor(this.asked), HELD);
  }

  changes(): FrontChanges {
    const { site, target } = this.asked;
    // As the ledger has it: beneath the path under which the site stands.
    const address = site.site.origin?.address ?? this.origin;
    const category = placeOnOrigin(`${this.origin}${target}`, address, [])?.part ?? "";
    return {
      rules: site.site.rules,
      site: site.links,
      page: target.replace(/\?.*/s, ""),
      category,
      disclosure: this.disclosure,
    };
  }
}
