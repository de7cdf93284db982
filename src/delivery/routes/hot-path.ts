import type { Tally } from "../../incoming/tally.ts";
import type { ProxyTrust } from "../../incoming/proxy-trust.ts";
import type { IncomingMessage, ServerResponse } from "node:http";
import type { Socket } from "node:net";
import { pathKey } from "../../core/address/path-key.ts";
import { location } from "../../core/routes/chain/location.ts";
import { clickLine, clickSource } from "../../core/clicks/spool-line.ts";
import type { LinkResolver } from "../../core/rules/resolve/link-facts.ts";
import type { VisitorKeys } from "../clicks/visitor-key.ts";
import { publicAddress } from "../../core/address/public-address.ts";
import type { RouteStatus } from "../../core/routes/choices.ts";
import type { CompiledRoute } from "./route-slots.ts";
import type { SiteIndex } from "../sites/site-index.ts";
import type { Spool } from "../clicks/spool.ts";
import { SECURITY } from "../ground/security-headers.ts";
import { referrerParts, requesterOf, type SeenHeaders } from "../clicks/requester.ts";
import { headerSafe } from "../../core/routes/chain/header-safe.ts";

// Temporary answers are asked for each time, so that each is counted; permanent ones may be kept for an hour.
const CACHE: Readonly<Record<RouteStatus, string>> = {
  200: "private, no-store",
  301: "public, max-age=3600",
  308: "public, max-age=3600",
  302: "private, no-store",
  303: "private, no-store",
  307: "private, no-store",
  410: "public, max-age=300",
};

// A turn with many requests sends what it has before it has read them all.
const MAX_WAITING = 32;

const LAST_SOURCE = Symbol("the last click's source");

interface LastSource {
  epoch: number;
  links: LinkResolver;
  method: string | undefined;
  seen: SeenHeaders;
  source: string;
}

type RememberingSocket = Socket & { [LAST_SOURCE]?: LastSource };

/** A request, and what is known of it when its route has been found. */
export interface Asked {
  request: IncomingMessage;
  response: ServerResponse;
  site: SiteIndex;
  host: string;
  seen: SeenHeaders;
  /** What stood behind the `?`, empty when nothing did. */
  query: string;
  /** An HTML document to send with the answer; redirects send none. */
  body?: Buffer;
  /** Headers that the document is sent with beside those of every one: names and values by turns. */
  more?: readonly string[] | undefined;
  /** When the request came, by `performance.now()`. */
  began: number;
}

/** What a route answers one request, its time and its captures considered. */
export interface RouteEffect {
  status: RouteStatus;
  destination: string | null;
}

/** A response that is ready and waits for its record to reach the disk. */
export interface Ready {
  kind: "route" | "miss";
  began: number;
  request: IncomingMessage;
  response: ServerResponse;
  status: number;
  headers: string[];
  /** Bytes, or bytes as a Latin-1 string: those leave in one write with the headers. */
  body?: string | Buffer;
}

/** Answers requests to routes, ahead of everything else. */
export interface HotPath {
  /** Sends what the route answers now. */
  answer(asked: Asked, route: CompiledRoute, effect: RouteEffect): void;
  /** Counts that a route stood aside, since it would have led back to what was asked for. */
  noteAside(asked: Asked, route: CompiledRoute): void;
  /** Sends a response once its record is on the spool. */
  record(line: string, ready: Ready): void;
}

/**
 * Responses wait for the end of the event-loop turn: then the clicks of all of them go to the spool in one
 * write, and only then do they leave. So no counted response was ever sent whose click is not on disk, and
 * under load one write serves many requests. What waits is kept as plain objects, for a closure a request
 * was measurably slower (`npm run bench -- redirects`).
 */
export function createHotPath(
  spool: Spool,
  visitors: VisitorKeys,
  trust: ProxyTrust,
  deliveryPort: number,
  tally: Tally<"route" | "miss">,
): HotPath {
  let lines = "";
  let waiting: Ready[] = [];

  function flush(): void {
    if (waiting.length === 0) return;
    const sending = waiting;
    const text = lines;
    waiting = [];
    lines = "";
    spool.append(text, sending.length);
    const ended = performance.now();
    for (let index = 0; index < sending.length; index += 1) {
      const ready = sending[index]!;
      send(ready);
      tally.add(ready.kind, ready.began, ended);
    }
  }
  function record(line: string, ready: Ready): void {
    if (waiting.length === 0) setImmediate(flush);
    lines += line;
    waiting.push(ready);
    if (waiting.length === MAX_WAITING) flush();
  }
  // A reader's requests on one connection are alike: what the last one told is kept with it, and strings are
  // compared instead of hashed.
  function sourceOf({ request, site, seen }: Asked, at: number): string {
    const socket: RememberingSocket = request.socket;
    const epoch = visitors.epoch(at);
    const last = socket[LAST_SOURCE];
    if (
      last !== undefined &&
      last.epoch === epoch &&
      last.links === site.links &&
      last.method === request.method &&
      last.seen.userAgent === seen.userAgent &&
      last.seen.referrer === seen.referrer &&
      last.seen.purpose === seen.purpose &&
      last.seen.forwardedFor === seen.forwardedFor
    )
      return last.source;
    const requester = requesterOf(request, seen, trust);
    const referrer = referrerParts(seen.referrer);
    const source = clickSource({
      class: requester.class,
      device: requester.device,
      visitor: visitors.key(requester.address, seen.userAgent, at),
      referrer: referrer.host,
      page: site.links.hosts.includes(referrer.host) ? pathKey(referrer.path) : "",
    });
    socket[LAST_SOURCE] = { epoch, links: site.links, method: request.method, seen, source };
    return source;
  }
  return {
    record,
    noteAside(asked, route) {
      const now = Date.now();
      spool.append(clickLine(now, route.id, sourceOf(asked, now).replace(/^\t[a-z]+/, "\taside")), 1);
    },
    answer(asked, route, effect) {
      const { request, response, body, began } = asked;
      const headers = headersOf(route, effect, asked, deliveryPort);
      const ready: Ready = { kind: "route", began, request, response, status: effect.status, headers, body };
      if (!route.counted) {
        send(ready);
        return tally.add("route", began, performance.now());
      }
      const now = Date.now();
      record(clickLine(now, route.id, sourceOf(asked, now)), ready);
    },
  };
}

function send({ request, response, status, headers, body }: Ready): void {
  response.writeHead(status, headers);
  if (request.method === "HEAD" || body === undefined) response.end();
  else if (typeof body === "string") response.end(body, "latin1");
  else response.end(body);
}

function headersOf(route: CompiledRoute, effect: RouteEffect, asked: Asked, deliveryPort: number): string[] {
  const headers = ["Cache-Control", CACHE[effect.status]];
  if (asked.body !== undefined) headers.push(...bodyHeaders(asked.body), ...(asked.more ?? []));
  else
    headers.push("Location", goingTo(route, effect.destination!, asked, deliveryPort), "Content-Length", "0");
  if (route.robots ?? (effect.status === 200 ? "noindex" : undefined))
    headers.push("X-Robots-Tag", route.robots ?? "noindex");
  return headers;
}

/** Where a reader who asked for this is sent: fit for a header, the query treated as the route says. */
export function goingTo(
  route: Pick<CompiledRoute, "query">,
  destination: string,
  { host, site, query }: Pick<Asked, "host" | "site" | "query">,
  deliveryPort: number,
): string {
  // A path of the site means the primary host, also when the route was asked for on a short one.
  const base =
    host === site.primary || !destination.startsWith("/")
      ? destination
      : publicAddress(site.primary, destination, deliveryPort);
  return query === "" || route.query === "drop" ? base : headerSafe(location(base, route.query, query));
}

function bodyHeaders(body: Buffer): string[] {
  return ["Content-Type", "text/html; charset=utf-8", "Content-Length", String(body.length), ...SECURITY];
}
