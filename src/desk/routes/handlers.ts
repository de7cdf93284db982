import type { routes as contract } from "../../contract/routes.ts";
import { listRoutes, routeFacets } from "./list-routes.ts";
import * as routes from "./routes.ts";
import { checkRoute } from "./route-advice.ts";
import { tryRoute } from "./try-route.ts";
import { routeHistory, countFromNow, countFromBeginning } from "./route-history.ts";
import { undoMany } from "./many/undo-many.ts";
import { changeRoutesJob } from "./many/bulk-job.ts";
import { shortenMany } from "./many/shorten-many.ts";
import { listEdges } from "./edges.ts";
import { asPreferred, wholeList, type Handlers } from "../ground/http/handler.ts";
import { importRoutesJob } from "./transfer/import-routes.ts";
import { exportRoutes } from "./transfer/export-routes.ts";
import { lintTable } from "./lint-table.ts";
import type { WithStore, WithDeliveryPort, WithWorkspaceHosts, WithOutgoing } from "../ground/parts.ts";
import type { WithJobs } from "../jobs/jobs.ts";
import type { WithThread } from "../jobs/desk-thread.ts";

/** What the calls about routes do. */
export const routesHandlers: Handlers<
  typeof contract,
  WithStore & WithDeliveryPort & WithWorkspaceHosts & WithOutgoing & WithJobs & WithThread
> = {
  list: ({ desk, site, query }) => listRoutes(desk, site, query),
  create: ({ desk, actor, site, body }) => routes.createRoute(desk, actor, site, body),
  check: ({ desk, site, body }) => checkRoute(desk, site, body),
  try: ({ desk, site, body }) => tryRoute(desk, site, body),
  title: async ({ desk, body }) => {
    const visit = await desk.outgoing.visit(body.address, { title: true });
    return { title: visit.ok && visit.status < 400 ? visit.title : null };
  },
  read: ({ desk, site, params }) => routes.readRoute(desk, site, params.id),
  change: ({ desk, actor, site, params, body }) => routes.changeRoute(desk, actor, site, params.id, body),
  delete: ({ desk, actor, site, params }) => routes.deleteRoute(desk, actor, site, params.id),
  restore: ({ desk, actor, site, params }) => routes.restoreRoute(desk, actor, site, params.id),
  history: ({ desk, site, params }) => routeHistory(desk, site, params.id),
  resetCount: ({ desk, actor, site, params }) => countFromNow(desk, actor, site, params.id),
  countAll: ({ desk, actor, site, params }) => countFromBeginning(desk, actor, site, params.id),
  facets: ({ desk, site }) => routeFacets(desk, site),
  edges: async ({ desk, site }) => wholeList(await listEdges(desk, site)),
  bulk: (call) => asPreferred(call, changeRoutesJob, call.body),
  undoBulk: ({ desk, actor, site, params }) => undoMany(desk, actor, site, params.id),
  shorten: ({ desk, actor, site, body }) => shortenMany(desk, actor, site, body),
  import: async (call) => {
    const { query, bytes, contentType } = call;
    return asPreferred(call, importRoutesJob, { json: isJson(contentType, query.name), query }, bytes);
  },
  export: ({ desk, site, query }) => exportRoutes(desk, site, query),
  lint: ({ desk, site }) => lintTable(desk, site),
};

function isJson(contentType: string, name = ""): boolean {
  const tellsNothing = contentType === "" || /^application\/octet-stream/i.test(contentType);
  return tellsNothing ? /\.json$/i.test(name) : /^application\/(?:[\w.+-]+\+)?json\b/i.test(contentType);
}
