import type { QueryMode } from "../choices.ts";
import { headerSafe } from "./header-safe.ts";

/**
 * The `Location` of a redirect for one request (RFC 9110 section 10.2.2). The visitor's query is dropped,
 * forwarded behind the destination's, or merged: forwarded, save for names the destination sets itself.
 * Everything is percent-encoded, so no visitor can put a control character or a line break into the header.
 */
export function location(destination: string, mode: QueryMode, query: string): string {
  if (mode === "drop" || query === "") return destination;
  const hash = destination.indexOf("#");
  const base = hash === -1 ? destination : destination.slice(0, hash);
  const fragment = hash === -1 ? "" : destination.slice(hash);
  const own = base.includes("?") ? new URLSearchParams(base.slice(base.indexOf("?"))) : undefined;
  const forwarded =
    mode === "merge" && own
      ? query
          .split("&")
          .filter((pair) => !own.has(nameOf(pair)))
          .join("&")
      : query;
  if (forwarded === "") return destination;
  return `${base}${base.includes("?") ? "&" : "?"}${headerSafe(forwarded)}${fragment}`;
}

function nameOf(pair: string): string {
  return [...new URLSearchParams(pair).keys()][0] ?? "";
}
