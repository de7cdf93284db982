import type { IncomingMessage, ServerResponse } from "node:http";
import { pathKey } from "../core/address/path-key.ts";
import { headerSafe, location } from "../core/routes/location.ts";
import { writeSpoolLine } from "../core/clicks/spool-line.ts";
import type { VisitorKeys } from "./visitor-key.ts";
import type { CompiledRoute, SiteIndex } from "./site-index.ts";
import type { Spool } from "./spool.ts";
import { referrerParts, requesterOf } from "./requester.ts";

// Temporary answers are asked for each time, so that each is counted; permanent ones may be kept for an hour.
const CACHE: Readonly<Record<number, string>> = {
  301: "public, max-age=3600",
  308: "public, max-age=3600",
  302: "private, no-store",
  303: "private, no-store",
  307: "private, no-store",
  410: "public, max-age=300",
};

/** A request, and what is known of it when its route has been found. */
export interface Asked {
  request: IncomingMessage;
  response: ServerResponse;
  site: SiteIndex;
  host: string;
  /** What stood behind the `?`, empty when nothing did. */
  query: string;
  /** An HTML document to send with the answer; redirects send none. */
  body?: string;
}

/** Answers requests to routes, ahead of everything else. */
export interface HotPath {
  /** Sends the route's answer; false when the route is not valid at this time. */
  answer(asked: Asked, route: CompiledRoute): boolean;
  /** Notes a record that belongs to a response which is sent when the record is on the spool. */
  record(line: string, send: () => void): void;
}

/**
 * Responses wait for the end of the event-loop turn: then the clicks of all of them go to the spool in one
 * write, and only then do they leave. So no counted response was ever sent whose click is not on disk, and
 * under load one write serves many requests (measured by `npm run bench -- redirects`).
 */
export function createHotPath(spool: Spool, visitors: VisitorKeys, trustProxy: boolean): HotPath {
  let lines = "";
  let waiting: (() => void)[] = [];

  function flush(): void {
    const sending = waiting;
    const text = lines;
    waiting = [];
    lines = "";
    spool.append(text, sending.length);
    for (const send of sending) send();
  }
  function record(line: string, send: () => void): void {
    if (waiting.length === 0) setImmediate(flush);
    lines += line;
    waiting.push(send);
  }
  return {
    record,
    answer(asked, route) {
      const { request, response, site } = asked;
      const now = Date.now();
      if (now < route.from || now >= route.until) return false;
      const send = (): void => {
        response.writeHead(route.status, headersOf(route, asked));
        response.end(request.method === "HEAD" ? undefined : asked.body);
      };
      if (!route.counted) {
        send();
        return true;
      }
      const requester = requesterOf(request, trustProxy);
      const referrer = referrerParts(requester.referrer);
      record(
        writeSpoolLine({
          kind: "click",
          at: now,
          route: route.id,
          class: requester.class,
          device: requester.device,
          visitor: visitors.key(requester.address, requester.userAgent, now),
          referrer: referrer.host,
          page: site.sight.hosts.includes(referrer.host) ? pathKey(referrer.path) : "",
        }),
        send,
      );
      return true;
    },
  };
}

function headersOf(route: CompiledRoute, { host, site, query, body }: Asked): string[] {
  const headers = [
    "Cache-Control",
    CACHE[route.status]!,
    "Content-Length",
    body === undefined ? "0" : String(Buffer.byteLength(body)),
  ];
  if (body !== undefined)
    headers.push("Content-Type", "text/html; charset=utf-8", "X-Content-Type-Options", "nosniff");
  if (route.destination !== null) {
    // A path of the site means the primary host, also when the route was asked for on a short one.
    const destination = host === site.primary ? route.destination : route.absolute!;
    headers.push("Location", headerSafe(location(destination, route.query, query)));
  }
  if (route.robots) headers.push("X-Robots-Tag", route.robots);
  return headers;
}
