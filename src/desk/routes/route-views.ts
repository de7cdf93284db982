import { publicAddress } from "../../core/address/public-address.ts";
import type { Advice, Route, RouteHealth } from "../../core/routes/route.ts";
import { routeTotals } from "../../store/clicks/click-counts.ts";
import type { RouteRow } from "../../store/ground/models.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { writtenOf } from "./route-values.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";
import { healthOfRoutes } from "../../store/trace/route-health.ts";

/** Routes as the API answers them, with their counts. */
export async function routeViews(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  rows: readonly RouteRow[],
): Promise<Route[]> {
  const totals = await routeTotals(
    desk.store,
    rows.map(({ id }) => id),
  );
  const health = await healthOf(
    desk,
    rows.map(({ id }) => id),
  );
  return rows.map((row) => {
    const total = totals.get(row.id);
    return {
      id: row.id,
      ...writtenOf(row),
      countedFrom: row.countedFrom?.toISOString() ?? null,
      health: health.get(row.id) ?? null,
      url: publicAddress(row.host ?? site.primary, row.address, desk.deliveryPort),
      clicks: Math.max(0, (total?.clicks ?? 0) - Number(row.clicksBefore ?? 0)),
      lastClick: total?.last.toISOString() ?? null,
      version: row.version,
      createdAt: row.createdAt.toISOString(),
      updatedAt: row.updatedAt.toISOString(),
    };
  });
}

async function healthOf(desk: WithStore, ids: readonly string[]): Promise<Map<string, RouteHealth>> {
  if (ids.length === 0) return new Map();
  const rows = await healthOfRoutes(desk.store, { ids });
  return new Map(
    rows.map(({ id, checkedAt, ...health }) => [id, { ...health, checkedAt: checkedAt.toISOString() }]),
  );
}

/** One route, with what the linter said when it was saved. */
export async function routeView(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  row: RouteRow,
  advice?: Advice[],
): Promise<Route> {
  const [view] = await routeViews(desk, site, [row]);
  return advice ? { ...view!, advice } : view!;
}
