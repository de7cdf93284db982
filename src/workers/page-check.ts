import { bodyToHtml } from "../core/pages/body/to-html.ts";
import { checkPage, type CheckAgainst } from "../core/pages/check/page-check.ts";
import type { Finding } from "../core/pages/check/finding.ts";

/** What the worker is asked: a body, or the source that is being written, and what it is checked against. */
export interface CheckQuestion {
  id: number;
  body?: unknown;
  html?: string;
  against: CheckAgainst;
}

export interface CheckAnswer {
  id: number;
  findings: Finding[];
  milliseconds: number;
}

addEventListener("message", ({ data }: MessageEvent<CheckQuestion>) => {
  const began = performance.now();
  const findings = checkPage(data.html ?? bodyToHtml(data.body), data.against);
  postMessage({ id: data.id, findings, milliseconds: performance.now() - began } satisfies CheckAnswer);
});
