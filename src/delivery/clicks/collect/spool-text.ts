import { pathKey } from "../../../core/address/path-key.ts";
import { readEdgeLine, type EdgeClick } from "../../../core/clicks/edge-log.ts";
import { clickLine, clickSource } from "../../../core/clicks/spool-line.ts";
import { judged, referrerParts } from "../requester.ts";
import type { VisitorKeys } from "../visitor-key.ts";

/** Of edges whose clock is ahead, clicks are of now. */
const AHEAD_MS = 60_000;
const MAX_REFERRERS = 10_000;

export interface SpoolTextParts {
  visitors: Pick<VisitorKeys, "key">;
  /** The hosts of a site: of a click from one of its own pages, the page is told. */
  hostsOf(site: string): readonly string[];
  /** An address as it is written everywhere. */
  plainAddress(address: string): string;
}

/** Makes the spool's lines of an edge's: who asked is a visitor's key from there on. */
export function createSpoolText({ visitors, hostsOf, plainAddress }: SpoolTextParts) {
  // Referrers repeat: taking an address apart is the dearest part of a line.
  let seen = new Map<string, { host: string; path: string }>();
  function partsOf(referrer: string): { host: string; path: string } {
    const known = seen.get(referrer);
    if (known) return known;
    if (seen.size >= MAX_REFERRERS) seen = new Map();
    const parts = referrerParts(referrer);
    seen.set(referrer, parts);
    return parts;
  }
  function lineOf(click: EdgeClick, now: number): string {
    const { host, path } = partsOf(click.referrer);
    const source = clickSource({
      ...judged(click.method, click),
      visitor: visitors.key(plainAddress(click.address), click.userAgent, now),
      referrer: host,
      page: host !== "" && hostsOf(click.site).includes(host) ? pathKey(path) : "",
    });
    return clickLine(click.at > now + AHEAD_MS ? now : click.at, click.route, source);
  }
  /** Answers the lines, how many they are, and how many could not be read. */
  return (bytes: Buffer, now: number): { text: string; clicks: number; unreadable: number } => {
    let text = "";
    let clicks = 0;
    let unreadable = 0;
    for (const line of bytes.toString("latin1").split("\n")) {
      if (line === "") continue;
      const click = readEdgeLine(line);
      if (!click) {
        unreadable += 1;
        continue;
      }
      text += lineOf(click, now);
      clicks += 1;
    }
    return { text, clicks, unreadable };
  };
}
