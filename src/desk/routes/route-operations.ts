import { z } from "zod";
import { CLICK_CLASSES } from "../../core/clicks/record.ts";
import {
  clicksAnswerSchema,
  clicksExportQuestionSchema,
  clicksQuestionSchema,
  latestClicksSchema,
} from "../../core/clicks/clicks.ts";
import {
  missAnswerSchema,
  missesAnsweredSchema,
  missesAnswerSchema,
  missesIgnoredSchema,
  missResolvedSchema,
  missSchema,
  missSummarySchema,
} from "../../core/misses/miss.ts";
import {
  routeChangeSchema,
  routeCheckSchema,
  routeInputSchema,
  routeQuestionSchema,
  routeSchema,
} from "../../core/routes/route.ts";
import { askClicks, exportClicks, latestClicks, latestClicksQuery } from "../clicks/clicks.ts";
import { jobSchema } from "../jobs/jobs.ts";
import { notFound, Problem } from "../ground/problem.ts";
import { bulkAnswerSchema, bulkSchema, changeMany, undoMany } from "./bulk.ts";
import { exportQuery, exportRoutes } from "./export-routes.ts";
import { importAnswerSchema, importQuery, importRoutesTask, MAX_IMPORTED } from "./import-routes.ts";
import { lintAnswerSchema, lintTable } from "./lint-table.ts";
import { listRoutes, routeFacets, routeFacetsSchema, routesQuery } from "./list-routes.ts";
import * as misses from "../misses/misses.ts";
import { checkRoute } from "./route-advice.ts";
import { checkHealth } from "../trace/route-health.ts";
import { countFromBeginning, countFromNow, routeHistory, routeHistorySchema } from "./route-history.ts";
import * as routes from "./routes.ts";
import { shortenAnswerSchema, shortenMany, shortenSchema } from "./shorten-many.ts";
import { traceAddresses, traceAnswerSchema, traceQuestionSchema } from "../trace/trace-routes.ts";
import { triedSchema, tryRoute, tryRouteSchema } from "./try-route.ts";
import { Accepted, asPreferred, listOf, operation, type Operation, SITE } from "../ground/http/operation.ts";

const ROUTES = `${SITE}/routes`;
const ROUTE = `${ROUTES}/:id`;

/** Routes one by one. */
const single: readonly Operation[] = [
  operation("GET", ROUTES, {
    summary: "List routes",
    role: "reader",
    query: routesQuery,
    answer: listOf(routeSchema),
    run: ({ desk, site, query }) => listRoutes(desk, site, query),
  }),
  operation("POST", ROUTES, {
    summary: "Make a short link, a redirect or a gone route",
    role: "editor",
    body: routeInputSchema,
    answer: routeSchema,
    status: 201,
    run: ({ desk, actor, site, body }) => routes.createRoute(desk, actor, site, body),
  }),
  operation("POST", `${ROUTES}/check`, {
    summary: "What would be said of a route before it is saved, with slug suggestions",
    role: "reader",
    body: routeQuestionSchema,
    answer: routeCheckSchema,
    run: ({ desk, site, body }) => checkRoute(desk, site, body),
  }),
  operation("POST", `${ROUTES}/try`, {
    summary: "Where addresses would end if a route were saved as it is",
    role: "reader",
    body: tryRouteSchema,
    answer: triedSchema,
    run: ({ desk, site, body }) => tryRoute(desk, site, body),
  }),
  operation("POST", `${ROUTES}/title`, {
    summary: "The title that an outside page gives itself",
    role: "editor",
    body: z.strictObject({ address: z.string().max(8192) }),
    answer: z.object({ title: z.string().nullable() }),
    run: async ({ desk, body }) => {
      const visit = await desk.outgoing.visit(body.address, { title: true });
      return { title: visit.ok && visit.status < 400 ? visit.title : null };
    },
  }),
  operation("GET", ROUTE, {
    summary: "One route",
    role: "reader",
    answer: routeSchema,
    run: ({ desk, site, params }) => routes.readRoute(desk, site, params.id!),
  }),
  operation("PATCH", ROUTE, {
    summary: "Change a route",
    role: "editor",
    body: routeChangeSchema,
    answer: routeSchema,
    run: ({ desk, actor, site, params, body }) => routes.changeRoute(desk, actor, site, params.id!, body),
  }),
  operation("DELETE", ROUTE, {
    summary: "Delete a route; it can be restored",
    role: "editor",
    status: 204,
    run: ({ desk, actor, site, params }) => routes.deleteRoute(desk, actor, site, params.id!),
  }),
  operation("POST", `${ROUTE}/restore`, {
    summary: "Bring a deleted route back",
    role: "editor",
    answer: routeSchema,
    run: ({ desk, actor, site, params }) => routes.restoreRoute(desk, actor, site, params.id!),
  }),
  operation("GET", `${ROUTE}/history`, {
    summary: "Who changed a route, when and what",
    role: "reader",
    answer: routeHistorySchema,
    run: ({ desk, site, params }) => routeHistory(desk, site, params.id!),
  }),
  operation("POST", `${ROUTE}/zero`, {
    summary: "Count a route's clicks from now on; nothing is deleted",
    role: "editor",
    answer: routeSchema,
    run: ({ desk, actor, site, params }) => countFromNow(desk, actor, site, params.id!),
  }),
  operation("DELETE", `${ROUTE}/zero`, {
    summary: "Count a route's clicks from the beginning again",
    role: "editor",
    answer: routeSchema,
    run: ({ desk, actor, site, params }) => countFromBeginning(desk, actor, site, params.id!),
  }),
];

/** Routes by the thousand. */
const many: readonly Operation[] = [
  operation("GET", `${ROUTES}/facets`, {
    summary: "What routes can be narrowed to, with counts",
    role: "reader",
    answer: routeFacetsSchema,
    run: ({ desk, site }) => routeFacets(desk, site),
  }),
  operation("POST", `${ROUTES}/bulk`, {
    summary: "Change many routes in one step, or say what would change",
    role: "editor",
    body: bulkSchema,
    answer: bulkAnswerSchema,
    run: ({ desk, actor, site, body }) => changeMany(desk, actor, site, body),
  }),
  operation("POST", `${ROUTES}/bulk/:id/undo`, {
    summary: "Put many routes back as they were",
    role: "editor",
    answer: z.object({ restored: z.int(), left: z.array(z.string()) }),
    run: ({ desk, actor, site, params }) => undoMany(desk, actor, site, params.id!),
  }),
  operation("POST", `${ROUTES}/shorten`, {
    summary: "Make a short link for each address of a list",
    role: "editor",
    body: shortenSchema,
    answer: shortenAnswerSchema,
    run: ({ desk, actor, site, body }) => shortenMany(desk, actor, site, body),
  }),
  operation("POST", `${ROUTES}/import`, {
    summary: "Import routes from CSV or JSON; with “Prefer: respond-async” as a job",
    role: "editor",
    query: importQuery,
    takesBytes: MAX_IMPORTED,
    answer: importAnswerSchema,
    run: async (call) => {
      const { desk, actor, site, query, bytes, contentType } = call;
      const json = isJson(contentType, query.name);
      if (json === undefined) {
        throw new Problem(415, "Unsupported media type", "Routes come as text/csv or application/json.");
      }
      const file = { bytes, json };
      return asPreferred(call, "routes.import", (progress) =>
        desk.thread.run(importRoutesTask, site.id, { actor, file, query }, progress),
      );
    },
  }),
  operation("GET", `${ROUTES}/export`, {
    summary: "Routes as CSV, JSON, or a configuration of nginx or Apache",
    role: "reader",
    query: exportQuery,
    media: "file",
    run: ({ desk, site, query }) => exportRoutes(desk, site, query),
  }),
  operation("GET", `${ROUTES}/lint`, {
    summary: "What is to be said of all routes together",
    role: "reader",
    answer: lintAnswerSchema,
    run: ({ desk, site }) => lintTable(desk, site),
  }),
  operation("POST", `${ROUTES}/trace`, {
    summary: "Follow addresses hop by hop; with “Prefer: respond-async” as a job",
    role: "reader",
    body: traceQuestionSchema,
    answer: traceAnswerSchema,
    run: (call) =>
      asPreferred(call, "routes.trace", (progress) =>
        traceAddresses(call.desk, call.site, call.body, progress),
      ),
  }),
  operation("POST", `${ROUTES}/health`, {
    summary: "Look at destinations now, as a job; all of them unless ids are given",
    role: "editor",
    body: z.strictObject({
      ids: z
        .array(z.string().regex(/^\d{1,18}$/))
        .max(5000)
        .optional(),
    }),
    answer: jobSchema,
    run: async ({ desk, actor, site, body }) =>
      new Accepted(
        desk.jobs.start(actor.name, "routes.health", (progress) =>
          checkHealth(desk, site, body.ids, progress),
        ),
      ),
  }),
  operation("GET", "/jobs/:job", {
    summary: "Where a piece of long work stands",
    role: "reader",
    answer: jobSchema,
    run: async ({ desk, actor, params }) => found(desk.jobs.find(actor.name, params.job!)),
  }),
  operation("DELETE", "/jobs/:job", {
    summary: "Stop a piece of long work; what it had not finished is as before",
    role: "reader",
    status: 204,
    run: async ({ desk, actor, params }) => {
      if (!desk.jobs.stop(actor.name, params.job!)) throw notFound("This job");
    },
  }),
];

const missing: readonly Operation[] = [
  operation("GET", `${SITE}/misses`, {
    summary: "List misses that nobody has dealt with",
    role: "reader",
    query: misses.missesQuery,
    answer: listOf(missSchema),
    run: ({ desk, site, query }) => misses.listMisses(desk, site, query),
  }),
  operation("GET", `${SITE}/misses/summary`, {
    summary: "Misses by who asked, patterns that would answer many, and what a redirect of all would hide",
    role: "reader",
    answer: missSummarySchema,
    run: ({ desk, site }) => misses.missSummary(desk, site),
  }),
  operation("POST", `${SITE}/misses/answer`, {
    summary: "Answer several misses with redirects",
    role: "editor",
    body: missesAnswerSchema,
    answer: missesAnsweredSchema,
    run: ({ desk, actor, site, body }) => misses.resolveMisses(desk, actor, site, body),
  }),
  operation("POST", `${SITE}/misses/ignore`, {
    summary: "Take misses out of the list, or back into it",
    role: "editor",
    body: missesIgnoredSchema,
    status: 204,
    run: ({ desk, actor, site, body }) => misses.ignoreMisses(desk, actor, site, body),
  }),
  operation("POST", `${SITE}/misses/:id/resolve`, {
    summary: "Answer a miss with a redirect",
    role: "editor",
    body: missAnswerSchema,
    answer: missResolvedSchema,
    status: 201,
    run: ({ desk, actor, site, params, body }) => misses.resolveMiss(desk, actor, site, params.id!, body),
  }),
];

const clicks: readonly Operation[] = [
  operation("GET", `${SITE}/clicks`, {
    summary: "Clicks by day, route, referrer, page, device or hour",
    role: "reader",
    query: clicksQuestionSchema,
    answer: clicksAnswerSchema,
    run: ({ desk, site, query, now }) => askClicks(desk, site, query, now),
  }),
  operation("GET", `${SITE}/clicks/latest`, {
    summary: `Single clicks, newest first; by class: ${CLICK_CLASSES.join(", ")}`,
    role: "reader",
    query: latestClicksQuery,
    answer: latestClicksSchema,
    run: ({ desk, site, query, now }) => latestClicks(desk, site, query, now),
  }),
  operation("GET", `${SITE}/clicks/export`, {
    summary: "Clicks as CSV: every single one, or the counts of a grouping",
    role: "reader",
    query: clicksExportQuestionSchema,
    media: "file",
    run: async ({ desk, site, query, now }) => ({
      name: `${site.key}-clicks.csv`,
      type: "text/csv; charset=utf-8",
      content: await exportClicks(desk, site, query, now),
    }),
  }),
];

/** The calls of the stations Routes and Clicks. */
export const routeOperations: readonly Operation[] = [...single, ...many, ...missing, ...clicks];

function found<T>(job: T | undefined): T {
  if (!job) throw notFound("This job");
  return job;
}

function isJson(contentType: string, name = ""): boolean | undefined {
  if (/^application\/(?:[\w.+-]+\+)?json\b/i.test(contentType)) return true;
  if (/^text\/(?:csv|plain|tab-separated-values)\b|^application\/vnd\.ms-excel/i.test(contentType))
    return false;
  return /^application\/octet-stream/i.test(contentType) || contentType === ""
    ? /\.json$/i.test(name)
    : undefined;
}
