import { rootless } from "../../core/address/host.ts";
import type { ProxyTrust } from "../../incoming/proxy-trust.ts";
import type { IncomingMessage } from "node:http";
import { isbot } from "isbot";
import { clickClass, deviceOf } from "../../core/clicks/classify-request.ts";
import type { ClickClass, Device } from "../../core/clicks/record.ts";

interface AgentTraits {
  isBot: boolean;
  device: Device;
}

// User agents repeat: judging each once keeps a regular expression of some thousand branches off the hot path.
const MAX_AGENTS = 5_000;
const agents = new Map<string, AgentTraits>();

/** The headers that delivery looks at; empty where a request has none. */
export interface SeenHeaders {
  host: string;
  userAgent: string;
  referrer: string;
  /** `Sec-Purpose`, `Purpose`, `X-Purpose` or `X-Moz`, whichever came. */
  purpose: string;
  forwardedFor: string;
}

/**
 * Takes the few headers that count out of the raw list, first of each name. Node's own `headers` object is
 * made when it is first asked for, from all headers; leaving it unmade saves a microsecond a redirect
 * (measured by `npm run bench -- redirects`).
 */
export function readHeaders(raw: readonly string[]): SeenHeaders {
  const seen: SeenHeaders = { host: "", userAgent: "", referrer: "", purpose: "", forwardedFor: "" };
  for (let at = 0; at + 1 < raw.length; at += 2) {
    const field = fieldOf(raw[at]!);
    if (field === undefined) continue;
    if (seen[field] === "") seen[field] = raw[at + 1]!;
    // A list that comes in several headers is one list (RFC 9110 section 5.3).
    else if (field === "forwardedFor") seen[field] += `, ${raw[at + 1]!}`;
  }
  return seen;
}

// By length first, then by comparing: a look-up by name in an object would have to intern each fresh string.
function fieldOf(name: string): keyof SeenHeaders | undefined {
  switch (name.length) {
    case 4:
      return is(name, "Host", "host") ? "host" : undefined;
    case 5:
      return is(name, "X-Moz", "x-moz") ? "purpose" : undefined;
    case 7:
      if (is(name, "Referer", "referer")) return "referrer";
      return is(name, "Purpose", "purpose") ? "purpose" : undefined;
    case 9:
      return is(name, "X-Purpose", "x-purpose") ? "purpose" : undefined;
    case 10:
      return is(name, "User-Agent", "user-agent") ? "userAgent" : undefined;
    case 11:
      return is(name, "Sec-Purpose", "sec-purpose") ? "purpose" : undefined;
    case 15:
      return is(name, "X-Forwarded-For", "x-forwarded-for") ? "forwardedFor" : undefined;
  }
  return undefined;
}

function is(name: string, usual: string, lower: string): boolean {
  return name === usual || name === lower || name.toLowerCase() === lower;
}

/** What a request tells about who sent it. */
export interface Requester {
  address: string;
  class: ClickClass;
  device: Device;
}

/** Says who is behind a request. The address is used for the day's visitor key and kept nowhere. */
export function requesterOf(request: IncomingMessage, seen: SeenHeaders, trust: ProxyTrust): Requester {
  return {
    address: trust.address(request.socket.remoteAddress ?? "", seen.forwardedFor),
    ...judged(request.method ?? "GET", seen),
  };
}

/** Says of a request, wherever it was answered, whether a person is behind it, and with what. */
export function judged(
  method: string,
  { userAgent, purpose }: Pick<SeenHeaders, "userAgent" | "purpose">,
): Omit<Requester, "address"> {
  const traits = agentTraits(userAgent);
  return {
    class: clickClass({ method, purpose: purpose || undefined, isBot: traits.isBot }),
    device: traits.device,
  };
}

/** Host and path of a referrer address; both empty when there is none. */
export function referrerParts(referrer: string): { host: string; path: string } {
  if (referrer === "" || !URL.canParse(referrer)) return { host: "", path: "" };
  const url = new URL(referrer);
  return { host: rootless(url.hostname), path: url.pathname };
}

function agentTraits(userAgent: string): AgentTraits {
  const known = agents.get(userAgent);
  if (known) return known;
  if (agents.size >= MAX_AGENTS) agents.clear();
  // Programs that send no user agent are no browsers.
  const traits = { isBot: userAgent === "" || isbot(userAgent), device: deviceOf(userAgent) };
  agents.set(userAgent, traits);
  return traits;
}
