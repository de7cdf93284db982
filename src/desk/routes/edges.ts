import type { Edge } from "../../core/routes/edge/edge.ts";
import { EDGE_LEFT } from "../../core/routes/edge/edge-route.ts";
import { newestRouteChange } from "../../store/ground/changes.ts";
import { edgeRows } from "../../store/routes/edges.ts";
import type { WithStore } from "../ground/parts.ts";
import type { OpenSite } from "../sites/open-site.ts";

/** The edges of this installation, and what each answers of a site. */
export async function listEdges(desk: WithStore, site: OpenSite): Promise<Edge[]> {
  const [rows, newest] = await Promise.all([edgeRows(desk.store), newestRouteChange(desk.store)]);
  return rows.map((row) => {
    const { routes, left } = row.counts[site.id] ?? { routes: 0, left: {} };
    return {
      name: row.name,
      writtenAt: row.writtenAt?.toISOString() ?? null,
      isBehind: row.change !== null && BigInt(row.change) < BigInt(newest),
      seenAt: row.seenAt?.toISOString() ?? null,
      fault: row.fault,
      routes,
      left: EDGE_LEFT.flatMap((why) => (left[why] ? [{ why, routes: left[why] }] : [])),
      collectedAt: row.collectedAt?.toISOString() ?? null,
      collected: Number(row.collected),
      unreadable: Number(row.unreadable),
      waitingBytes: Number(row.waitingBytes),
      collectFault: row.collectFault,
      clockMs: row.clockMs,
    };
  });
}
