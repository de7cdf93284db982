import { pathKey } from "../../../core/address/path-key.ts";
import { readEdgeLine, type EdgeClick } from "../../../core/clicks/edge-log.ts";
import { clickLine, clickSource } from "../../../core/clicks/spool-line.ts";
import { judged, referrerParts } from "../requester.ts";
import type { VisitorKeys } from "../visitor-key.ts";

/** Of edges whose clock is ahead, clicks are of now. */
const AHEAD_MS = 60_000;
const NEWLINE = 0x0a;
/** Signs that become bytes together. */
const AT_ONCE = 16 * 1024;
const MAX_REFERRERS = 10_000;
/** As nginx writes one, which is as everybody does. */
const IPV4 = /^\d{1,3}(?:\.\d{1,3}){3}$/;

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
  let seen = new Map<string, { host: string; page: string }>();
  function partsOf(referrer: string): { host: string; page: string } {
    const known = seen.get(referrer);
    if (known) return known;
    if (seen.size >= MAX_REFERRERS) seen = new Map();
    const { host, path } = referrerParts(referrer);
    const parts = { host, page: pathKey(path) };
    seen.set(referrer, parts);
    return parts;
  }
  function lineOf(click: EdgeClick, now: number): string {
    const { host, page } = partsOf(click.referrer);
    const by = judged(click.method, click);
    const source = clickSource({
      class: by.class,
      device: by.device,
      visitor: visitors.key(
        IPV4.test(click.address) ? click.address : plainAddress(click.address),
        click.userAgent,
        now,
      ),
      referrer: host,
      page: host !== "" && hostsOf(click.site).includes(host) ? page : "",
    });
    return clickLine(click.at > now + AHEAD_MS ? now : click.at, click.route, source);
  }
  /** Answers the lines, how many they are, and how many could not be read. */
  return (bytes: Buffer, now: number): { lines: Buffer; clicks: number; unreadable: number } => {
    const written = openBytes(bytes.length);
    // Some lines at a time become bytes: one long text would be made of a million small ones, which are moved about until then.
    let text = "";
    let clicks = 0;
    let unreadable = 0;
    for (let at = 0, end = 0; at < bytes.length; at = end + 1) {
      end = bytes.indexOf(NEWLINE, at);
      if (end === -1) end = bytes.length;
      if (end === at) continue;
      // Line by line: what is remembered of one would keep the whole piece in memory otherwise, of which its strings are parts.
      const click = readEdgeLine(bytes.toString("latin1", at, end));
      if (!click) {
        unreadable += 1;
        continue;
      }
      text += lineOf(click, now);
      clicks += 1;
      if (text.length < AT_ONCE) continue;
      written.add(text);
      text = "";
    }
    written.add(text);
    return { lines: written.all(), clicks, unreadable };
  };
}

function openBytes(expected: number) {
  let bytes = Buffer.allocUnsafe(expected);
  let length = 0;
  return {
    add(text: string): void {
      const most = length + 3 * text.length;
      if (most > bytes.length) bytes = Buffer.concat([bytes.subarray(0, length)], 2 * most);
      length += bytes.write(text, length);
    },
    all: (): Buffer => bytes.subarray(0, length),
  };
}
