import { z } from "zod";
import { pathKey } from "../../../core/address/path-key.ts";
import { publicAddress } from "../../../core/address/public-address.ts";
import { toApache } from "../../../core/routes/formats/apache.ts";
import { toNginx } from "../../../core/routes/formats/nginx.ts";
import { routesToCsv, routeToInput } from "../../../core/routes/formats/route-table.ts";
import { decodedPath, serverRules } from "../../../core/routes/formats/server-rules.ts";
import type { Route } from "../../../core/routes/route.ts";
import { routeViews } from "../route-views.ts";
import { patternsOf } from "../site-patterns.ts";
import type { OpenSite } from "../../sites/open-site.ts";
import type { WithStore, WithDeliveryPort } from "../../ground/parts.ts";
import { exportQuery } from "../../../contract/routes/transfer.ts";
import { routeFilter } from "../../../core/routes/filter.ts";
import { routeIdsAfter } from "../../../store/routes/lists.ts";
import { publishedPaths } from "../../../store/pages/places.ts";
import { routesById } from "../../../store/routes/routes.ts";

/** A file as it is handed out. */
export interface ExportedFile {
  name: string;
  type: string;
  content: string;
}

const AT_ONCE = 5_000;

/** The routes of a site, or those that a filter leaves, in one file. */
export async function exportRoutes(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  { format, listen, ...filter }: z.infer<typeof exportQuery>,
): Promise<ExportedFile> {
  const routes = await allRoutes(desk, site, filter);
  const name = `${site.key}-routes`;
  if (format === "csv")
    return { name: `${name}.csv`, type: "text/csv; charset=utf-8", content: routesToCsv(routes) };
  if (format === "json") {
    const content = `${JSON.stringify({ routes: routes.map(routeToInput) }, null, 1)}\n`;
    return { name: `${name}.json`, type: "application/json", content };
  }
  const rules = serverRules(routes, site.hostNames, site.primary, (path) =>
    publicAddress(site.primary, path, desk.deliveryPort),
  );
  const options = { site: site.name, listen, passes: await passesOf(desk, site) };
  return {
    name: `${name}.${format === "nginx" ? "nginx" : "apache"}.conf`,
    type: "text/plain; charset=utf-8",
    content: format === "nginx" ? toNginx(rules, options) : toApache(rules, options),
  };
}

async function allRoutes(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  filter: z.infer<typeof routeFilter>,
): Promise<Route[]> {
  const routes: Route[] = [];
  for (let after = "0"; ;) {
    const ids = await routeIdsAfter(desk.store, site.id, filter, { after, limit: AT_ONCE });
    if (ids.length === 0) return routes;
    const rows = await routesById(
      desk.store,
      ids.map(({ id }) => id),
    );
    routes.push(...(await routeViews(desk, site, rows)));
    after = ids.at(-1)!.id;
  }
}

// Pages and files that a pattern would answer: they go before it.
async function passesOf(desk: WithStore, site: OpenSite): Promise<string[]> {
  const patterns = await patternsOf(desk.store, site.id);
  if (patterns.size === 0) return [];
  const rows = await publishedPaths(desk.store, { site: site.id });
  return rows.flatMap(({ key }) =>
    patterns.find(site.primary, pathKey(key)).length > 0 ? (decodedPath(pathKey(key)) ?? []) : [],
  );
}
