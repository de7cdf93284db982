import { readRouteKey, routeKey } from "./address-form.ts";
import type { MatchKind } from "./match-kind.ts";
import { PatternTable } from "./pattern-table.ts";

/** A table with one route's addresses alone, to ask what it would answer before it is saved; empty for exact ones. */
export function draftTable(
  addresses: readonly string[],
  match: MatchKind,
  caseInsensitive: boolean,
): PatternTable<true> {
  const table = new PatternTable<true>();
  if (match === "exact") return table;
  for (const address of addresses) {
    const { key } = readRouteKey(routeKey(address, caseInsensitive, match));
    table.add({ match, host: null, key, caseInsensitive }, true, 0);
  }
  return table;
}
