import type { IncomingMessage, ServerResponse } from "node:http";
import type { SeenHeaders } from "../clicks/requester.ts";
import type { SiteIndex } from "../sites/site-index.ts";

/** A request for a page that may stand elsewhere. */
export interface FrontAsked {
  request: IncomingMessage;
  response: ServerResponse;
  site: SiteIndex;
  host: string;
  seen: SeenHeaders;
  /** The request's target: path and query, as they were sent. */
  target: string;
  /** Counts what changes pages: of other numbers they are others. */
  generation: number;
}

/** What becomes of a request beside its answer. */
export interface FrontEnd {
  /** The origin has nothing there: it is answered as a miss. Absent for what no page is. */
  missed?: (() => void) | undefined;
  /** The origin cannot be had: why, in words that go on from its address. Nothing was sent. */
  failed(status: 502 | 504 | 508, reason: string): void;
  /** The origin's answer is on its way. */
  answered(): void;
}
