import { EdgeTable } from "../../../core/routes/edge/edge-table.ts";
import type { EdgeSite } from "../../../core/routes/edge/edge-route.ts";
import { changesAfter } from "../../../store/ground/changes.ts";
import type { Store } from "../../../store/ground/store.ts";
import {
  readAllRoutes,
  readDeliveredRoutes,
  readDeliveredSite,
  type DeliveredSite,
} from "../../../store/sites/delivery-view.ts";

/** The routes of all sites as an edge answers them, as they stand at a change of the store. */
export interface FollowedEdge {
  readonly table: EdgeTable;
  readonly change: string;
  /** Takes in what has changed since; answers whether an edge answers anything else by now. */
  catchUp(): Promise<boolean>;
}

/** Loads all sites and routes; what changes is asked for by `catchUp`. */
export async function followEdge(store: Store, deliveryPort: number): Promise<FollowedEdge> {
  let { table, change } = await load(store, deliveryPort);
  async function takeIn(): Promise<"all" | boolean> {
    const changes = await changesAfter(store, change);
    if (!changes) return "all";
    const routes = new Map<string, string>();
    let isOther = false;
    for (const { kind, objectId, siteId } of changes) {
      if (kind === "route") routes.set(objectId!, siteId);
      else if (kind !== "page" && kind !== "file") {
        const site = await readDeliveredSite(store, siteId);
        // With a site, or with its hosts, all of its routes are others.
        if (!site || table.putSite(edgeSiteOf(site))) return "all";
      }
    }
    const now = new Map((await readDeliveredRoutes(store, [...routes.keys()])).map((one) => [one.id, one]));
    for (const id of routes.keys()) table.putRoute(id, now.get(id));
    isOther = routes.size > 0;
    change = changes.at(-1)?.seq ?? change;
    return isOther;
  }
  return {
    get table() {
      return table;
    },
    get change() {
      return change;
    },
    async catchUp() {
      const isOther = await takeIn();
      if (isOther !== "all") return isOther;
      ({ table, change } = await load(store, deliveryPort));
      return true;
    },
  };
}

async function load(store: Store, deliveryPort: number): Promise<{ table: EdgeTable; change: string }> {
  const table = new EdgeTable(deliveryPort);
  const change = await readAllRoutes(store, {
    sites: (sites) => sites.forEach((site) => table.putSite(edgeSiteOf(site))),
    route: (route) => table.putRoute(route.id, route),
  });
  return { table, change };
}

function edgeSiteOf({ id, hosts }: DeliveredSite): EdgeSite {
  return {
    id,
    primary: hosts.find(({ role }) => role === "primary")!.name,
    hosts: hosts.filter(({ leadsTo }) => leadsTo === null).map(({ name }) => name),
    former: hosts.filter(({ leadsTo }) => leadsTo !== null).map(({ name }) => name),
  };
}
