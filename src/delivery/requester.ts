import type { IncomingMessage } from "node:http";
import { isbot } from "isbot";
import { clickClass, deviceOf } from "../core/clicks/classify-request.ts";
import type { ClickClass, Device } from "../core/clicks/record.ts";

interface AgentTraits {
  isBot: boolean;
  device: Device;
}

// User agents repeat: judging each once keeps a regular expression of some thousand branches off the hot path.
const MOST_AGENTS = 5_000;
const agents = new Map<string, AgentTraits>();

/** What a request tells about who sent it. */
export interface Requester {
  address: string;
  userAgent: string;
  class: ClickClass;
  device: Device;
  referrer: string;
}

/** Reads who is behind a request. The address is used for the day's visitor key and kept nowhere. */
export function requesterOf(request: IncomingMessage, trustProxy: boolean): Requester {
  const headers = request.headers;
  const userAgent = headers["user-agent"] ?? "";
  const traits = agentTraits(userAgent);
  const purpose = headers["sec-purpose"] ?? headers.purpose ?? headers["x-purpose"] ?? headers["x-moz"];
  const forwarded = trustProxy ? headers["x-forwarded-for"] : undefined;
  return {
    address:
      (typeof forwarded === "string" ? forwarded.split(",")[0]?.trim() : undefined) ??
      request.socket.remoteAddress ??
      "",
    userAgent,
    class: clickClass({
      method: request.method ?? "GET",
      purpose: purpose as string | undefined,
      isBot: traits.isBot,
    }),
    device: traits.device,
    referrer: headers.referer ?? "",
  };
}

/** Host and path of a referrer address; both empty when there is none. */
export function referrerParts(referrer: string): { host: string; path: string } {
  if (referrer === "" || !URL.canParse(referrer)) return { host: "", path: "" };
  const url = new URL(referrer);
  return { host: url.hostname, path: url.pathname };
}

function agentTraits(userAgent: string): AgentTraits {
  const known = agents.get(userAgent);
  if (known) return known;
  if (agents.size >= MOST_AGENTS) agents.clear();
  // Programs that send no user agent are no browsers.
  const traits = { isBot: userAgent === "" || isbot(userAgent), device: deviceOf(userAgent) };
  agents.set(userAgent, traits);
  return traits;
}
