import type { ProxyTrust } from "../../incoming/proxy-trust.ts";
import type { IncomingMessage, ServerResponse } from "node:http";
import { pathKey } from "../../core/address/path-key.ts";
import { beginsAsOne } from "../../core/address/path-start.ts";
import { publicAddress } from "../../core/address/public-address.ts";
import { writeSpoolLine } from "../../core/clicks/spool-line.ts";
import type { FollowedIndex } from "./follow-store.ts";
import { inEffect } from "../../core/routes/chain/in-effect.ts";
import { leadsBack } from "../../core/routes/chain/leads-back.ts";
import { goingTo, type Asked, type HotPath } from "../routes/hot-path.ts";
import { NOTICE_SECONDS } from "../../core/routes/choices.ts";
import type { Duplex } from "node:stream";
import type { Frames } from "../origin/frame/frames.ts";
import type { Front } from "../origin/front.ts";
import type { KnownElsewhere } from "../origin/pages-elsewhere.ts";
import { refreshing, servesPages, type AnsweredMiss, type RenderedPages } from "../pages/rendered-pages.ts";
import { readHeaders, requesterOf } from "../clicks/requester.ts";
import { sendReadiness, type Readiness } from "../../incoming/readiness.ts";
import type { Tally } from "../../incoming/tally.ts";
import { headerSafe } from "../../core/routes/chain/header-safe.ts";
import { HOST_CHECK_PATH } from "../../core/sites/host.ts";
import { SECURITY } from "./security-headers.ts";
import { fileAt, pageAt, pathOfPage, type SiteIndex } from "../sites/site-index.ts";
import { formAt } from "../sites/pictures.ts";
import type { MachineDocuments } from "../sites/machine-documents.ts";
import type { SiteFiles } from "../sites/site-files.ts";
import { sendRepresentation, type Representation } from "./sending/representation.ts";

/** What the delivery listener works with. */
export interface ListenerParts {
  index: FollowedIndex;
  hotPath: HotPath;
  pages: RenderedPages;
  files: SiteFiles;
  documents: MachineDocuments;
  assets: ReadonlyMap<string, Representation>;
  deliveryPort: number;
  trust: ProxyTrust;
  health(): Promise<Record<string, unknown>>;
  /** Whether readers may be sent here; where not, why. */
  readiness(): Readiness;
  /** It ends soon: answers are given still, and connections are not kept. */
  isLeaving(): boolean;
  /** What this installation alone can answer to a question. */
  proof(question: string): string;
  tally: Tally<AnswerKind>;
  front: Front;
  frames: Frames;
  elsewhere: KnownElsewhere;
  /** Told of each answer, where a log of them is asked for. */
  accessLog: AccessLog | undefined;
  report(message: string, error: unknown): void;
}

/** What an answer to a reader is counted as. */
export const ANSWER_KINDS = [
  "route",
  "page",
  "front",
  "file",
  "asset",
  "miss",
  "moved",
  "refused",
  "health",
] as const;
export type AnswerKind = (typeof ANSWER_KINDS)[number];

/** Writes an answer to a reader down: what was asked for and what came of it, and nothing of who asked. */
export type AccessLog = (answer: {
  host: string;
  method: string;
  path: string;
  status: number;
  ms: number;
}) => void;

interface Place {
  site: SiteIndex;
  host: string;
  /** The host that readers are led to, path by path, where this one is a former one. */
  leadsTo?: string | undefined;
}

const PAGE = ["Cache-Control", "no-cache", ...SECURITY];
// The workspace shows pages in their own look, and fonts are fetched across origins only where that is allowed.
const ASSET = ["Cache-Control", "public, max-age=3600", "Access-Control-Allow-Origin", "*"];
const DOCUMENT = ["Cache-Control", "public, max-age=300", "X-Content-Type-Options", "nosniff"];
const MAX_HOSTS = 1_000;

/** The request handler of the delivery listener. Order of answer: exact route, published page, file, pattern
 * routes, miss. */
export function createListener(
  parts: ListenerParts,
): (request: IncomingMessage, response: ServerResponse) => void {
  let places = new Map<string, Place | null>();
  let placesGeneration = 0;

  // Host headers repeat; taking them apart once keeps that off the hot path.
  function placeOf(header: string): Place | null {
    if (placesGeneration !== parts.index.generation() || places.size > MAX_HOSTS) {
      places = new Map();
      placesGeneration = parts.index.generation();
    }
    const known = places.get(header);
    if (known !== undefined) return known;
    const host = hostIn(header);
    const current = parts.index.current();
    const own = current.siteOfHost(host);
    const only = /^(?:localhost|127\.0\.0\.1|\[::1\])$/.test(host) ? current.onlySite() : undefined;
    const place = own
      ? { site: own, host, leadsTo: own.former.get(host) }
      : only
        ? { site: only, host: only.primary }
        : null;
    places.set(header, place);
    return place;
  }

  return (request, response) => {
    const began = performance.now();
    const seen = readHeaders(request.rawHeaders);
    if (parts.accessLog) logAnswer(parts.accessLog, request, response, seen.host, began);
    const { target, header } = targetOf(request.url ?? "/", seen.host);
    // Whoever is to go elsewhere from now on is told so with each answer.
    if (parts.isLeaving()) response.shouldKeepAlive = false;
    if (target === "/healthz")
      return void sendHealth(parts, response).then(() => count(parts, "health", began));
    if (target === "/readyz") {
      sendReadiness(response, parts.readiness());
      return count(parts, "health", began);
    }
    if (target.startsWith(HOST_CHECK_PATH)) {
      const question = /[?&]question=([\w-]{8,100})(?:&|$)/.exec(target)?.[1];
      const status = question === undefined ? 404 : 200;
      send(request, response, status, "text/plain; charset=utf-8", question ? parts.proof(question) : "", [
        "Cache-Control",
        "no-store",
      ]);
      return count(parts, "health", began);
    }
    const place = placeOf(header);
    const mark = target.indexOf("?");
    const path = mark === -1 ? target : target.slice(0, mark);
    const key = pathKey(path);
    const isFront = place !== null && place.leadsTo === undefined && standsBefore(place);
    const isTheirs = isFront && !isWrittenHere(place, key);
    if (request.method !== "GET" && request.method !== "HEAD") {
      if (isTheirs) return passOn(parts, { request, response, seen, began, target }, place);
      send(request, response, 405, "text/plain; charset=utf-8", "Only GET and HEAD are answered here.\n", [
        "Allow",
        "GET, HEAD",
      ]);
      return count(parts, "refused", began);
    }
    if (!place) {
      send(
        request,
        response,
        421,
        "text/plain; charset=utf-8",
        "No site with this host name is answered here.\n",
      );
      return count(parts, "refused", began);
    }
    const { site, host } = place;
    if (place.leadsTo !== undefined) {
      const to = publicAddress(place.leadsTo, target, parts.deliveryPort);
      return moveOn(parts, { response, began }, 308, to, "public, max-age=3600");
    }
    const query = mark === -1 ? "" : target.slice(mark + 1);
    const asked = { request, response, site, host, seen, query, began };
    const slot = site.routes.find(host, key);
    if (slot !== undefined && answerRoute(parts, asked, key, slot, NO_CAPTURES)) return;
    const missed =
      slot === undefined && !isFront ? parts.pages.knownMiss(host, key, parts.index.generation()) : undefined;
    if (missed) return sendMiss(parts, asked, place, key, missed);
    const asset = parts.assets.get(key);
    if (asset) {
      return void sendRepresentation(asked, asset, { headers: ASSET }).then(
        () => count(parts, "asset", began),
        (error: unknown) => notNow(parts, asked, "asset", `The asset ${key} could not be sent.`, error),
      );
    }
    const hasPages = servesPages(site, host);
    const page = hasPages ? pageAt(site, key) : undefined;
    const file = page ? undefined : fileAt(site, key);
    const spelled = page ? pathOfPage(site, page) : file?.path;
    // Not to be kept: a browser that knows the one and a site that has chosen the other would send readers in a circle.
    if (spelled !== undefined && spelled !== path)
      return moveOn(parts, asked, 308, mark === -1 ? spelled : spelled + target.slice(mark), "no-cache");
    if (file) {
      response.once("close", () => count(parts, "file", began));
      return parts.files.answer(file, { request, response }, parts.report);
    }
    if (!page && isTheirs)
      return passOn(parts, { request, response, seen, began, target }, place, { asked, key });
    if (!page) {
      if (answerMachine(parts, asked, place, key)) return;
      if (isFront) return void missedThere(parts, place, { asked, key });
      const patterns = site.patterns.find(host, key);
      for (const { entry, captures } of patterns) if (answerRoute(parts, asked, key, entry, captures)) return;
      if (key === "/" && !hasPages) return moveOn(parts, asked, 302, rootOf(parts, place), "no-cache");
      const isCertain = slot === undefined && patterns.length === 0;
      return sendMiss(parts, asked, place, key, missAt(parts, place, key, isCertain));
    }
    // Most sites' pages have a look of their own: none of theirs waits for a frame.
    const framed = isFront && site.site.origin?.frame ? parts.frames.of(site) : undefined;
    const generation = parts.index.generation();
    (framed
      ? framed.then((around) => parts.pages.page(site, page, generation, around))
      : parts.pages.page(site, page, generation)
    )
      .then(async (document) => {
        if (!document) return sendMiss(parts, asked, place, key, missAt(parts, place, key, false));
        await sendRepresentation(asked, document, { headers: PAGE });
        count(parts, "page", began);
      })
      .catch((error: unknown) =>
        notNow(parts, asked, "page", `The page ${path} could not be rendered.`, error),
      );
  };
}

// Readers get the site's pages through us where they stand elsewhere, on every host but those for short links alone.
function standsBefore({ site, host }: Place): boolean {
  return site.site.origin?.comes === "front" && servesPages(site, host);
}

// Of such a path the origin is never asked: what we do not have there is a miss.
function isWrittenHere({ site }: Place, key: string): boolean {
  return beginsAsOne(key, site.site.origin?.here ?? []);
}

// Asks the origin; what it has not is answered as a miss where `missed` says what was looked for.
function passOn(
  parts: ListenerParts,
  asked: Pick<Asked, "request" | "response" | "seen" | "began"> & { target: string },
  place: Place,
  missed?: { asked: Asked; key: string },
): void {
  const { request, response, seen, target, began } = asked;
  const { site, host } = place;
  const generation = parts.index.generation();
  parts.front.pass(
    { request, response, seen, target, site, host, generation },
    {
      missed:
        missed &&
        (() => {
          parts.elsewhere.noteGone(site.site.id, target);
          void missedThere(parts, place, missed);
        }),
      answered: () => count(parts, "front", began),
      failed(status, reason) {
        parts.report(`The origin of ${site.site.name} ${reason}.`, undefined);
        const body = parts.pages.away(site, generation);
        send(request, response, status, "text/html; charset=utf-8", body, [
          "Cache-Control",
          "no-store",
          "Retry-After",
          "30",
          ...SECURITY,
        ]);
        count(parts, "refused", began);
      },
    },
  );
}

async function missedThere(
  parts: ListenerParts,
  place: Place,
  { asked, key }: { asked: Asked; key: string },
): Promise<void> {
  const { site, host } = place;
  try {
    for (const { entry, captures } of site.patterns.find(host, key))
      if (answerRoute(parts, asked, key, entry, captures)) return;
    const elsewhere = await parts.elsewhere.of(site.site);
    const home = homeOf(site, host, parts);
    const miss = parts.pages.miss(site, host, key, parts.index.generation(), {
      home,
      isCertain: false,
      elsewhere,
    });
    sendMiss(parts, asked, place, key, miss);
  } catch (error) {
    notNow(parts, asked, "miss", "A miss on the way to an origin could not be answered.", error);
  }
}

/** Hands on connections that want to speak another protocol, where their site stands elsewhere. */
export function createUpgrades(
  parts: Pick<ListenerParts, "index" | "front">,
): (request: IncomingMessage, socket: Duplex, head: Buffer) => void {
  return (request, socket, head) => {
    const seen = readHeaders(request.rawHeaders);
    const { target, header } = targetOf(request.url ?? "/", seen.host);
    const host = hostIn(header);
    const site = parts.index.current().siteOfHost(host);
    if (!site || !standsBefore({ site, host }) || isWrittenHere({ site, host }, pathKey(target)))
      return void socket.end("HTTP/1.1 400 Bad Request\r\nContent-Length: 0\r\nConnection: close\r\n\r\n");
    parts.front.upgrade({ request, site, host, seen, target }, socket, head);
  };
}

function hostIn(header: string): string {
  return header.toLowerCase().replace(/:\d*$/, "").replace(/\.$/, "");
}

// What machines look for on every host; false for a path that is none of theirs.
function answerMachine(parts: ListenerParts, asked: Asked, place: Place, key: string): boolean {
  const { site, host } = place;
  const { request, response, began } = asked;
  const picture = formAt(site, key);
  if (picture) {
    response.once("close", () => count(parts, "file", began));
    parts.files.answer(picture.file, { request, response }, parts.report, picture.form);
    return true;
  }
  const document = parts.documents.at(site, { key, servesPages: servesPages(site, host) });
  document
    ?.then(async (made) => {
      if (!made) return sendMiss(parts, asked, place, key, missAt(parts, place, key, false));
      await sendRepresentation(asked, made, { headers: DOCUMENT });
      count(parts, "file", began);
    })
    .catch((error: unknown) => notNow(parts, asked, "file", `${key} could not be written.`, error));
  return document !== undefined;
}

// Where the root of a host leads that is kept for short links: its own address would lead back to it.
function rootOf({ deliveryPort }: ListenerParts, { site, host }: Place): string {
  const { shortRoot = "/" } = site.site.delivered;
  const isRound = leadsBack(shortRoot, host, "/", site.primary);
  return !isRound && !shortRoot.startsWith("/")
    ? shortRoot
    : publicAddress(site.primary, isRound ? "/" : shortRoot, deliveryPort);
}

function moveOn(
  parts: ListenerParts,
  { response, began }: Pick<Asked, "response" | "began">,
  status: 302 | 308,
  to: string,
  caching: string,
): void {
  response.writeHead(status, ["Location", headerSafe(to), "Cache-Control", caching, "Content-Length", "0"]);
  response.end();
  count(parts, "moved", began);
}

// What should be there and cannot be sent: told, and asked for again a little later.
function notNow(
  parts: ListenerParts,
  { request, response, began }: Asked,
  kind: AnswerKind,
  message: string,
  error: unknown,
): void {
  parts.report(message, error);
  if (response.headersSent) return void response.destroy();
  send(request, response, 503, "text/plain; charset=utf-8", "This cannot be shown at the moment.\n", [
    "Retry-After",
    "10",
  ]);
  count(parts, kind, began);
}

// No closure for each request: it was measurably slower (`npm run bench -- redirects`).
function count({ tally }: ListenerParts, kind: AnswerKind, began: number): void {
  tally.add(kind, began, performance.now());
}

function logAnswer(
  log: AccessLog,
  { method = "", url = "" }: IncomingMessage,
  response: ServerResponse,
  host: string,
  began: number,
): void {
  response.once("close", () => {
    const ms = Math.round((performance.now() - began) * 10) / 10;
    log({ host, method, path: url.replace(/\?.*/s, ""), status: response.statusCode, ms });
  });
}

const NO_CAPTURES: readonly string[] = [];

// False when the route is not in effect now, or would lead back to what was asked for: then whatever comes after it answers.
function answerRoute(
  parts: ListenerParts,
  asked: Asked,
  key: string,
  slot: number,
  captures: readonly string[],
): boolean {
  const { site, host } = asked;
  const route = parts.index.current().routeIn(slot);
  const effect = inEffect(route, Date.now(), captures);
  if (!effect) return false;
  if (effect.destination !== null && leadsBack(effect.destination, host, key, site.primary)) {
    parts.hotPath.noteAside(asked, route);
    return false;
  }
  if (effect.destination === null) {
    const body = parts.pages.gone(
      site,
      host,
      asked.request.url ?? "/",
      parts.index.generation(),
      homeOf(site, host, parts),
    );
    parts.hotPath.answer({ ...asked, body }, route, effect);
  } else if (effect.status === 200) {
    const to = goingTo(route, effect.destination, asked, parts.deliveryPort);
    const notice = { text: route.notice?.text ?? "", seconds: route.notice?.seconds ?? NOTICE_SECONDS };
    const stays = isStaying(asked.query);
    const body = parts.pages.notice(site, to, notice, stays, homeOf(site, host, parts));
    const more = stays ? undefined : refreshing(notice.seconds, to);
    parts.hotPath.answer({ ...asked, body, more }, route, effect);
  } else parts.hotPath.answer(asked, route, effect);
  return true;
}

// A notice may be read for as long as one likes: its own link asks for it without the refresh (WCAG 2.2.1).
function isStaying(query: string): boolean {
  return /(?:^|&)stay=1(?:&|$)/.test(query);
}

function sendMiss(
  parts: ListenerParts,
  { request, response, seen, began }: Asked,
  { site, host }: Place,
  key: string,
  { status, headers, body }: AnsweredMiss,
): void {
  const requester = requesterOf(request, seen, parts.trust);
  const line = writeSpoolLine({
    kind: "miss",
    at: Date.now(),
    site: site.site.id,
    host,
    key,
    class: requester.class,
    referrer: seen.referrer,
  });
  parts.hotPath.record(line, { kind: "miss", began, request, response, status, headers, body });
}

// A miss is certain when nothing stands at its address that a clock could switch on: then it is one until
// something changes, and is found again without asking routes, pages and patterns.
function missAt(parts: ListenerParts, { site, host }: Place, key: string, isCertain: boolean): AnsweredMiss {
  const home = homeOf(site, host, parts);
  return parts.pages.miss(site, host, key, parts.index.generation(), { home, isCertain });
}

// On a host that is kept for short links, the front page is the primary host's.
function homeOf(site: SiteIndex, host: string, parts: ListenerParts): string {
  return servesPages(site, host) ? "/" : publicAddress(site.primary, "/", parts.deliveryPort);
}

// RFC 9112 section 3.2: a request to a proxy names scheme and host in its target; its Host header then does not count.
function targetOf(target: string, header: string): { target: string; header: string } {
  if (target.startsWith("/")) return { target, header };
  const absolute = /^https?:\/\/([^/?#]*)([^#]*)/i.exec(target);
  if (!absolute) return { target: "/", header };
  return { target: absolute[2]!.startsWith("/") ? absolute[2]! : `/${absolute[2]!}`, header: absolute[1]! };
}

async function sendHealth(parts: ListenerParts, response: ServerResponse): Promise<void> {
  const headers = { "Content-Type": "application/json", "Cache-Control": "no-store" };
  try {
    const health = JSON.stringify(await parts.health());
    response.writeHead(200, headers).end(health);
  } catch (error) {
    parts.report("Health could not be told.", error);
    response.writeHead(503, headers).end(JSON.stringify({ status: "degraded" }));
  }
}

function send(
  request: IncomingMessage,
  response: ServerResponse,
  status: number,
  type: string,
  body: string | Buffer,
  headers: string[] = [],
): void {
  response.writeHead(status, headersFor(type, body, headers));
  response.end(request.method === "HEAD" ? undefined : body);
}

function headersFor(type: string, body: string | Buffer, more: string[]): string[] {
  return ["Content-Type", type, "Content-Length", String(Buffer.byteLength(body)), ...more];
}
