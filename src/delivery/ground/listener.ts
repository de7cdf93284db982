import type { ProxyTrust } from "../../incoming/proxy-trust.ts";
import type { IncomingMessage, ServerResponse } from "node:http";
import { pathKey } from "../../core/address/path-key.ts";
import { publicAddress } from "../../core/address/public-address.ts";
import { writeSpoolLine } from "../../core/clicks/spool-line.ts";
import type { FollowedIndex } from "./follow-store.ts";
import { inEffect } from "../../core/routes/chain/in-effect.ts";
import { leadsBack } from "../../core/routes/chain/leads-back.ts";
import { goingTo, type Asked, type HotPath } from "../routes/hot-path.ts";
import { servesPages, type AnsweredMiss, type RenderedPages } from "../pages/rendered-pages.ts";
import { readHeaders, requesterOf, type SeenHeaders } from "../clicks/requester.ts";
import { SECURITY } from "./security-headers.ts";
import type { SiteIndex } from "../sites/site-index.ts";
import type { SiteFiles } from "../sites/site-files.ts";
import type { ThemeAsset } from "../pages/theme/assets.ts";

/** What the delivery listener works with. */
export interface ListenerParts {
  index: FollowedIndex;
  hotPath: HotPath;
  pages: RenderedPages;
  files: SiteFiles;
  assets: ReadonlyMap<string, ThemeAsset>;
  deliveryPort: number;
  trust: ProxyTrust;
  health(): Promise<Record<string, unknown>>;
  report(message: string, error: unknown): void;
}

interface Place {
  site: SiteIndex;
  host: string;
}

const HTML = "text/html; charset=utf-8";
// The workspace shows pages in their own look, and fonts are fetched across origins only where that is allowed.
const ASSET = ["Cache-Control", "public, max-age=3600", "Access-Control-Allow-Origin", "*"];
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
    const host = header.toLowerCase().replace(/:\d*$/, "").replace(/\.$/, "");
    const current = parts.index.current();
    const own = current.siteOfHost(host);
    const only = /^(?:localhost|127\.0\.0\.1|\[::1\])$/.test(host) ? current.onlySite() : undefined;
    const place = own ? { site: own, host } : only ? { site: only, host: only.primary } : null;
    places.set(header, place);
    return place;
  }

  return (request, response) => {
    const seen = readHeaders(request.rawHeaders);
    const { target, header } = targetOf(request.url ?? "/", seen.host);
    if (target === "/healthz") return void sendHealth(parts, response);
    if (request.method !== "GET" && request.method !== "HEAD") {
      return send(
        request,
        response,
        405,
        "text/plain; charset=utf-8",
        "Only GET and HEAD are answered here.\n",
        ["Allow", "GET, HEAD"],
      );
    }
    const place = placeOf(header);
    if (!place) {
      return send(
        request,
        response,
        421,
        "text/plain; charset=utf-8",
        "No site with this host name is answered here.\n",
      );
    }
    const { site, host } = place;
    const mark = target.indexOf("?");
    const path = mark === -1 ? target : target.slice(0, mark);
    const key = pathKey(path);
    const query = mark === -1 ? "" : target.slice(mark + 1);
    const asked = { request, response, site, host, seen, query };
    const slot = site.routes.find(host, key);
    if (slot !== undefined && answerRoute(parts, asked, key, slot, NO_CAPTURES)) return;
    const missed =
      slot === undefined ? parts.pages.knownMiss(host, key, parts.index.generation()) : undefined;
    if (missed) return sendMiss(parts, request, response, place, seen, key, missed);
    const asset = parts.assets.get(key);
    if (asset) return send(request, response, 200, asset.type, asset.body, ASSET);
    const page = servesPages(site, host) ? site.pages.get(key) : undefined;
    const file = page ? undefined : site.files.get(key);
    if (file) return parts.files.answer(file, { request, response }, parts.report);
    if (!page) {
      const patterns = site.patterns.find(host, key);
      for (const { entry, captures } of patterns) if (answerRoute(parts, asked, key, entry, captures)) return;
      const isCertain = slot === undefined && patterns.length === 0;
      return sendMiss(parts, request, response, place, seen, key, missAt(parts, place, key, isCertain));
    }
    parts.pages.page(site, page, parts.index.generation()).then(
      (body) => {
        if (body) send(request, response, 200, HTML, body, ["Cache-Control", "no-cache", ...SECURITY]);
        else sendMiss(parts, request, response, place, seen, key, missAt(parts, place, key, false));
      },
      (error: unknown) => {
        parts.report(`The page ${path} could not be rendered.`, error);
        send(
          request,
          response,
          503,
          "text/plain; charset=utf-8",
          "This page cannot be shown at the moment.\n",
          ["Retry-After", "10"],
        );
      },
    );
  };
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
    const notice = { text: route.notice?.text ?? "", seconds: route.notice?.seconds ?? 5 };
    const body = parts.pages.notice(site, to, notice, isStaying(asked.query), homeOf(site, host, parts));
    parts.hotPath.answer({ ...asked, body }, route, effect);
  } else parts.hotPath.answer(asked, route, effect);
  return true;
}

// A notice may be read for as long as one likes: its own link asks for it without the refresh (WCAG 2.2.1).
function isStaying(query: string): boolean {
  return /(?:^|&)stay=1(?:&|$)/.test(query);
}

function sendMiss(
  parts: ListenerParts,
  request: IncomingMessage,
  response: ServerResponse,
  { site, host }: Place,
  seen: SeenHeaders,
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
  parts.hotPath.record(line, { request, response, status, headers, body });
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
