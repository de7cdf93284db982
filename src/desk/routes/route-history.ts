import { routeTotals } from "../../store/clicks/click-counts.ts";
import type { Route } from "../../core/routes/route.ts";
import { routeView } from "./route-views.ts";
import { routeRow } from "./routes.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { audited } from "../ground/audit.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";
import { type RouteHistory } from "../../contract/routes/history.ts";
import { auditOfRoute } from "../../store/routes/history.ts";
import type { Actor } from "../../core/people/actor.ts";

/** Who changed a route, when, and what; newest first. */
export async function routeHistory(desk: WithStore, site: OpenSite, id: string): Promise<RouteHistory> {
  await routeRow(desk, site, id);
  const rows = await auditOfRoute(desk.store, { site: site.id, id });
  return { items: rows.map((row) => ({ ...row, at: row.at.toISOString() })) };
}

/** Counts a route's clicks from now on; those before stay where they are, and count in every span that asks for them. */
export async function countFromNow(
  desk: WithStore & WithDeliveryPort,
  actor: Actor,
  site: OpenSite,
  id: string,
): Promise<Route> {
  const row = await routeRow(desk, site, id);
  const total = (await routeTotals(desk.store, [id])).get(id);
  const clicksBefore = total?.clicks ?? 0;
  const entry = { siteId: site.id, action: "route.zero", object: id, detail: { clicksBefore } };
  await audited(desk, actor, entry, (transaction) =>
    row.update(
      { countedFrom: new Date(), clicksBefore: String(clicksBefore) },
      { silent: true, transaction },
    ),
  );
  return routeView(desk, site, row);
}

/** Takes the new zero back: all clicks count again. */
export async function countFromBeginning(
  desk: WithStore & WithDeliveryPort,
  actor: Actor,
  site: OpenSite,
  id: string,
): Promise<Route> {
  const row = await routeRow(desk, site, id);
  await audited(desk, actor, { siteId: site.id, action: "route.unzero", object: id }, (transaction) =>
    row.update({ countedFrom: null, clicksBefore: "0" }, { silent: true, transaction }),
  );
  return routeView(desk, site, row);
}
