import type { ServerResponse } from "node:http";

/** Whether a listener may get traffic: empty, or the reasons why not. */
export type Readiness = readonly string[];

/** Answers `/readyz`: 200 where traffic may come, 503 with the reasons where it should go elsewhere. */
export function sendReadiness(response: ServerResponse, reasons: Readiness): void {
  const isReady = reasons.length === 0;
  response.writeHead(isReady ? 200 : 503, {
    "Content-Type": "application/json",
    "Cache-Control": "no-store",
  });
  response.end(JSON.stringify(isReady ? { status: "ready" } : { status: "not ready", reasons }));
}
