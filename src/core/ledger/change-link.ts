import { compareKey } from "../address/compare.ts";
import { repairAddress } from "../address/repair/repair.ts";
import type { LinkAction } from "./ledger.ts";
import { before, from } from "../text/cut.ts";
import { readHost } from "../address/repair/named-host.ts";
import { decodedQuery } from "../text/decoded.ts";
import { formatOverride, parseOverride, type Override } from "../rules/override.ts";

/** A link as a change of many looks at it. */
export interface ChangeableLink {
  /** As it is stored. */
  href: string;
  /** With its variables filled in. */
  address: string;
  override: string | null;
  /** Where its short link is, for `shorten`: made already, or to be made. */
  shortUrl?: string;
}

/** What becomes of a link: its new stored parts; nothing (undefined); or the reason why not. */
export type LinkChangeResult = { href: string; override: string | null } | string | undefined;

/** Applies one action to one link. */
export function changeLink(link: ChangeableLink, action: LinkAction): LinkChangeResult {
  const { href, override } = link;
  switch (action.do) {
    case "override": {
      const next = withSwitches(override, action.set);
      return next === normal(override) ? undefined : { href, override: next };
    }
    case "clear-overrides":
      return override === null ? undefined : { href, override: null };
    case "destination":
      return sameDestination(link, action.find) ? withAddress(link, action.replace) : undefined;
    case "host":
      return withAddress(link, withHost(link.address, action.find, action.replace));
    case "parameter":
      return withAddress(link, withParameter(link.address, action));
    case "program":
    case "creative":
    case "directory":
      // What becomes of these is not told by the link alone.
      return undefined;
    case "shorten":
      return link.shortUrl === undefined ? undefined : { href: link.shortUrl, override };
  }
}

/** What becomes of the destination of a route, by the same action; undefined when nothing does. */
export function changedDestination(destination: string, action: LinkAction): string | undefined {
  const link = { href: destination, address: destination, override: null };
  if (action.do !== "destination" && action.do !== "host" && action.do !== "parameter") return undefined;
  const changed = changeLink(link, action);
  return typeof changed === "object" ? changed.href : undefined;
}

function withSwitches(
  text: string | null,
  set: Extract<LinkAction, { do: "override" }>["set"],
): string | null {
  const override: Record<string, string | undefined> = { ...parseOverride(text ?? "").override };
  for (const [name, value] of Object.entries(set)) {
    if (value === "clear") delete override[name];
    else if (value !== undefined) override[name] = value;
  }
  return formatOverride(override as Override) ?? null;
}

function normal(text: string | null): string | null {
  return formatOverride(parseOverride(text ?? "").override) ?? null;
}

function sameDestination({ href, address }: ChangeableLink, find: string): boolean {
  return href === find || compareKey(address) === compareKey(find);
}

/** The link with another address, which is repaired and checked as if it were pasted; what it was is left when it is the same. */
export function withAddress(
  { href, address, override }: Pick<ChangeableLink, "href" | "address" | "override">,
  to: string,
): LinkChangeResult {
  if (to === address || to === href) return undefined;
  const repaired = repairAddress(to);
  if (!repaired.ok) return repaired.reason.message;
  return repaired.address === href ? undefined : { href: repaired.address, override };
}

const DEEPEST = 3;

/**
 * The address on another host: by the parts of the parsed address, its scheme, port, path and query as they were unless
 * the new host comes with a scheme or port of its own. A destination that a tracked link carries in its query is changed
 * alike. The same when neither leads there.
 */
export function withHost(address: string, find: string, replace: string, depth = 0): string {
  const [from, to] = [readHost(find), readHost(replace)];
  const parts = /^((?:https?:)?)\/\/([^/?#]*)/i.exec(address);
  if (!from || !to || !parts) return address;
  const [whole, scheme = "", authority = ""] = parts;
  const there = readHost(authority);
  const isIt = there?.host === from.host && (from.port === undefined || from.port === there.port);
  const port = to.port ?? (from.port === undefined && to.scheme === undefined ? there?.port : undefined);
  const front = isIt
    ? `${to.scheme ? `${to.scheme}:` : scheme}//${to.host}${port === undefined ? "" : `:${port}`}`
    : whole;
  return front + withCarriedHost(address.slice(whole.length), find, replace, depth);
}

// A query value that is a web address itself, as tracked links carry where they end.
function withCarriedHost(rest: string, find: string, replace: string, depth: number): string {
  if (depth >= DEEPEST || !rest.includes("?")) return rest;
  const [path, query, heading] = [before(rest, "?#"), before(from(rest, "?"), "#"), from(rest, "#")];
  const pairs = query
    .slice(1)
    .split("&")
    .map((pair) => {
      const equals = pair.indexOf("=");
      const value = equals === -1 ? "" : decodedQuery(pair.slice(equals + 1));
      if (!/^https?:\/\//i.test(value)) return pair;
      const changed = withHost(value, find, replace, depth + 1);
      return changed === value ? pair : `${pair.slice(0, equals + 1)}${encodeURIComponent(changed)}`;
    });
  return `${path}?${pairs.join("&")}${heading}`;
}

/** The address with a query parameter set, added or taken away; the others keep their order and bytes. */
export function withParameter(
  address: string,
  { name, value, add }: { name: string; value: string | null; add: boolean },
): string {
  if (!/^(?:https?:)?\/\/|^\//i.test(address)) return address;
  const [beforeHash = "", ...hash] = address.split("#");
  const at = beforeHash.indexOf("?");
  const base = at === -1 ? beforeHash : beforeHash.slice(0, at);
  const pairs =
    at === -1
      ? []
      : beforeHash
          .slice(at + 1)
          .split("&")
          .filter(Boolean);
  const isIt = (pair: string): boolean => decodedQuery(pair.split("=")[0]!) === name;
  const has = pairs.some(isIt);
  if (!has && (value === null || !add)) return address;
  const written = value === null ? [] : [`${encodeURIComponent(name)}=${encodeURIComponent(value)}`];
  const first = pairs.findIndex(isIt);
  const next = has
    ? pairs.flatMap((pair, index) => (index === first ? written : isIt(pair) ? [] : [pair]))
    : [...pairs, ...written];
  const query = next.length > 0 ? `?${next.join("&")}` : "";
  return [base + query, ...hash].join("#");
}
