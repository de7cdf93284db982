import { publicAddress } from "../core/address/public-address.ts";
import type { Advice, Route } from "../core/objects/route.ts";
import { routeTotals } from "../store/click-counts.ts";
import type { RouteRow } from "../store/models.ts";
import type { Desk } from "./desk.ts";
import type { OpenSite } from "./sites.ts";

/** Routes as the API answers them, with their counts. */
export async function routeViews(desk: Desk, site: OpenSite, rows: readonly RouteRow[]): Promise<Route[]> {
  const totals = await routeTotals(
    desk.store,
    rows.map(({ id }) => id),
  );
  return rows.map((row) => {
    const total = totals.get(row.id);
    return {
      id: row.id,
      kind: row.kind,
      host: row.host,
      match: "exact",
      address: row.address,
      aliases: row.aliases,
      destination: row.destination,
      status: row.status,
      query: row.query,
      title: row.title,
      tags: row.tags,
      robots: { noindex: row.noindex, nofollow: row.nofollow },
      counted: row.counted,
      enabled: row.enabled,
      replacesPage: row.replacesPage,
      validFrom: row.validFrom?.toISOString() ?? null,
      validUntil: row.validUntil?.toISOString() ?? null,
      url: publicAddress(row.host ?? site.primary, row.address, desk.deliveryPort),
      clicks: total?.clicks ?? 0,
      lastClick: total?.last.toISOString() ?? null,
      version: row.version,
      createdAt: row.createdAt.toISOString(),
      updatedAt: row.updatedAt.toISOString(),
    };
  });
}

/** One route, with what the linter said when it was saved. */
export async function routeView(
  desk: Desk,
  site: OpenSite,
  row: RouteRow,
  advice?: Advice[],
): Promise<Route> {
  const [view] = await routeViews(desk, site, [row]);
  return advice ? { ...view!, advice } : view!;
}
