import {
  ROUTE_SORTS,
  routeHealths,
  routeHosts,
  routeIds,
  routeTags,
  routeTotals,
} from "../../store/routes/lists.ts";
import { z } from "zod";
import { type Route } from "../../core/routes/route.ts";
import { listing, portionOf } from "../ground/lists.ts";
import { routeViews } from "./route-views.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";
import { type Listing } from "../../contract/ground/lists.ts";
import { routesQuery, routeFacetsSchema } from "../../contract/routes/list.ts";
import { routesById } from "../../store/routes/routes.ts";

/** The routes of a site, newest first unless sorted otherwise. */
export async function listRoutes(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  query: z.infer<typeof routesQuery>,
): Promise<Listing<Route>> {
  // Counting and finding are asked apart: together, all that match would be carried through the sort.
  const [ids, [count]] = await Promise.all([
    routeIds(desk.store, site.id, query, portionOf(query, ROUTE_SORTS)),
    routeTotals(desk.store, site.id, query),
  ]);
  const found = await routesById(
    desk.store,
    ids.map(({ id }) => id),
  );
  return listing(await routeViews(desk, site, found), Number(count!.total), query);
}

/** What the routes of a site can be narrowed to, with how many each leaves. */
export async function routeFacets(
  desk: WithStore,
  site: OpenSite,
): Promise<z.infer<typeof routeFacetsSchema>> {
  const [tags, hosts, health] = await Promise.all([
    routeTags(desk.store, { site: site.id }),
    routeHosts(desk.store, { site: site.id }),
    routeHealths(desk.store, { site: site.id }),
  ]);
  return { tags, hosts, health };
}
