import { readRouteKey } from "../../core/routes/match/address-form.ts";
import { PatternTable } from "../../core/routes/match/pattern-table.ts";
import { newestChange } from "../../store/ground/changes.ts";
import type { Store } from "../../store/ground/store.ts";
import { routeThere, type RouteThere } from "./route-there.ts";
import { patternRoutes } from "../../store/routes/places.ts";

interface Kept {
  seq: string;
  table: PatternTable<RouteThere>;
}

const kept = new WeakMap<Store, Map<string, Kept>>();

/**
 * The switched-on prefix, wildcard and pattern routes of a site, compiled. They are kept until something
 * changes anywhere: compiling them for every key somebody types would take longer than the typing.
 */
export async function patternsOf(store: Store, siteId: string): Promise<PatternTable<RouteThere>> {
  const seq = await newestChange(store);
  let sites = kept.get(store);
  if (!sites) kept.set(store, (sites = new Map()));
  const known = sites.get(siteId);
  if (known?.seq === seq) return known.table;
  const rows = await patternRoutes(store, { site: siteId });
  const table = new PatternTable<RouteThere>();
  for (const row of rows) {
    const { match, key } = readRouteKey(row.key);
    if (match === "exact") continue;
    const host = row.host === "*" ? null : row.host;
    table.add({ match, host, key, caseInsensitive: row.caseInsensitive }, routeThere(row), Number(row.id));
  }
  sites.set(siteId, { seq, table });
  return table;
}
