import { before, from } from "../text/cut.ts";
import { decodedQuery } from "../text/decoded.ts";
import { readHost } from "./repair/named-host.ts";

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
  const [whole, heading] = [before(rest, "#"), from(rest, "#")];
  if (depth >= DEEPEST || !whole.includes("?")) return rest;
  const [path, query] = [before(whole, "?"), from(whole, "?")];
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
