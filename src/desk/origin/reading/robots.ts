import robotsParser from "robots-parser";
import { READING_AGENT } from "../../../outgoing/outgoing.ts";
import type { WithOutgoing } from "../../ground/parts.ts";

/** What a site tells those who read it by machine (RFC 9309). */
export interface Robots {
  says: "none" | "allows" | "forbids-some" | "forbids-all" | "unreadable";
  allows(address: string): boolean;
  delaySeconds: number | null;
  sitemaps: string[];
  /** Why it could not be read. */
  fault: string | null;
}

/** As much of it as is read (RFC 9309 section 2.5). */
const MOST_BYTES = 500 * 1024;

/**
 * Reads the robots file of an origin. One that there is none of allows all; one that cannot be had for a fault of the
 * server's forbids all, as RFC 9309 section 2.3.1.4 says.
 */
export async function robotsOf(desk: WithOutgoing, origin: string, signal?: AbortSignal): Promise<Robots> {
  const address = new URL("/robots.txt", origin).href;
  const answer = await follow(desk, address, signal);
  if (!answer.ok) return unreadable(answer.reason);
  if (answer.status >= 500) return unreadable(`answers ${answer.status}`);
  if (answer.status !== 200)
    return { says: "none", allows: () => true, delaySeconds: null, sitemaps: [], fault: null };
  const text = new TextDecoder().decode(answer.bytes);
  const robots = robotsParser(address, text);
  const allows = (asked: string): boolean => robots.isAllowed(asked, READING_AGENT) ?? true;
  const forbids = text.split("\n").some((line) => /^ {0,9}disallow {0,9}: {0,9}[^\s#]/i.test(line));
  return {
    says: !allows(new URL("/", origin).href) ? "forbids-all" : forbids ? "forbids-some" : "allows",
    allows,
    delaySeconds: robots.getCrawlDelay(READING_AGENT) ?? null,
    sitemaps: robots.getSitemaps(),
    fault: null,
  };
}

function unreadable(fault: string): Robots {
  return { says: "unreadable", allows: () => false, delaySeconds: null, sitemaps: [], fault };
}

// Five redirects are followed (RFC 9309 section 2.3.1.2).
async function follow(desk: WithOutgoing, from: string, signal: AbortSignal | undefined) {
  let address = from;
  for (let hop = 0; ; hop += 1) {
    const answer = await desk.outgoing.fetch(address, { mostBytes: MOST_BYTES, ...(signal && { signal }) });
    const to = answer.ok && answer.status >= 300 && answer.status < 400 ? answer.headers.location : undefined;
    if (to === undefined || hop === 5 || !URL.canParse(to, address)) return answer;
    address = new URL(to, address).href;
  }
}
