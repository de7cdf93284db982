import { createHash, timingSafeEqual } from "node:crypto";
import { createServer, type IncomingMessage, type Server, type ServerResponse } from "node:http";
import type { Logger } from "pino";
import { sendReadiness, type Readiness } from "../incoming/readiness.ts";
import type { Tally } from "../incoming/tally.ts";
import type { Metrics } from "./metrics.ts";

/** What an answer of the workspace is counted as. */
export const WORKSPACE_KINDS = ["screen", "api", "file", "sign-in"] as const;
export type WorkspaceKind = (typeof WORKSPACE_KINDS)[number];

/** What watches a listener of the workspace. */
export interface Watched {
  /** Answers `/readyz`, and `/metrics` to whoever has the token; false for everything else. */
  answers(request: IncomingMessage, response: ServerResponse): boolean;
  /** Counts the answer when it has left, and writes its line into the access log where there is one. */
  follow(request: IncomingMessage, response: ServerResponse, requestId: string): void;
}

/** What the watching of a workspace is made of. */
export interface WatchedParts {
  metrics: Metrics;
  /** Who has it may see the metrics; undefined: nobody, here. */
  token: string | undefined;
  readiness(): Promise<Readiness>;
  isLeaving(): boolean;
  tally: Tally<WorkspaceKind>;
  /** Undefined where no access log is asked for. */
  accessLog: Pick<Logger, "info"> | undefined;
}

/** Watches the workspace's listener. */
export function createWatched(parts: WatchedParts): Watched {
  return {
    answers(request, response) {
      const path = pathOf(request);
      if (path === "/readyz") {
        void parts.readiness().then((reasons) => sendReadiness(response, reasons));
        return true;
      }
      if (path !== "/metrics" || parts.token === undefined) return false;
      if (isToken(request.headers.authorization, parts.token)) void sendMetrics(parts.metrics, response);
      else
        response
          .writeHead(401, { "Content-Type": "text/plain", "WWW-Authenticate": "Bearer" })
          .end("The metrics are for whoever has their token.\n");
      return true;
    },
    follow(request, response, requestId) {
      const began = performance.now();
      if (parts.isLeaving()) response.shouldKeepAlive = false;
      const { method, url } = request;
      // Kept now: a handler may have it answered as another one.
      const path = pathOf(request);
      response.once("close", () => {
        const ended = performance.now();
        parts.tally.add(kindOf(url ?? "/"), began, ended);
        parts.accessLog?.info(
          {
            requestId,
            method,
            path,
            status: response.statusCode,
            ms: Math.round((ended - began) * 10) / 10,
          },
          "answered",
        );
      });
    },
  };
}

/** A listener for whatever watches this process: `/metrics` and `/readyz`, to nobody but this machine. */
export function createWatchingServer({
  metrics,
  readiness,
}: Pick<WatchedParts, "metrics" | "readiness">): Server {
  return createServer((request, response) => {
    const path = pathOf(request);
    if (path === "/metrics") return void sendMetrics(metrics, response);
    if (path === "/readyz") return void readiness().then((reasons) => sendReadiness(response, reasons));
    response.writeHead(404, { "Content-Type": "text/plain" }).end("Here are /metrics and /readyz.\n");
  });
}

async function sendMetrics(metrics: Metrics, response: ServerResponse): Promise<void> {
  const text = await metrics.text().catch((error: unknown) => error as Error);
  if (typeof text !== "string") {
    response
      .writeHead(503, { "Content-Type": "text/plain" })
      .end("The metrics cannot be told at the moment.\n");
    return;
  }
  response.writeHead(200, { "Content-Type": metrics.type, "Cache-Control": "no-store" }).end(text);
}

function pathOf(request: IncomingMessage): string {
  return (request.url ?? "").replace(/\?.*/, "");
}

function kindOf(url: string): WorkspaceKind {
  if (url.startsWith("/api/")) return "api";
  if (/^\/(?:session|sign-in|welcome)(?:[/?]|$)/.test(url)) return "sign-in";
  return /\.[a-z\d]{2,5}(?:\?|$)/.test(url) ? "file" : "screen";
}

function isToken(authorization: string | undefined, token: string): boolean {
  const [given, wanted] = [authorization?.replace(/^Bearer /, "") ?? "", token].map((text) =>
    createHash("sha256").update(text).digest(),
  );
  return timingSafeEqual(given!, wanted!);
}
