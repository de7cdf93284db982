import { z } from "zod";
import { routesQuery, routeFacetsSchema } from "./routes/list.ts";
import {
  routeSchema,
  routeInputSchema,
  routeQuestionSchema,
  routeCheckSchema,
  routeChangeSchema,
} from "../core/routes/route.ts";
import { edgeSchema } from "../core/routes/edge/edge.ts";
import { tryRouteSchema, triedSchema } from "./routes/try.ts";
import { routeHistorySchema } from "./routes/history.ts";
import { bulkSchema, bulkAnswerSchema } from "./routes/bulk.ts";
import { shortenSchema, shortenAnswerSchema } from "./routes/shorten.ts";
import { importQuery, MAX_IMPORTED, importAnswerSchema, exportQuery } from "./routes/transfer.ts";
import { lintAnswerSchema } from "./routes/lint.ts";
import { call, listOf } from "./ground/call.ts";

/** The calls about routes. */
export const routes = {
  list: call("GET", "/sites/:site/routes", {
    summary: "List routes",
    role: "reader",
    query: routesQuery,
    answer: listOf(routeSchema),
  }),
  create: call("POST", "/sites/:site/routes", {
    summary: "Make a short link, a redirect or a gone route",
    role: "editor",
    body: routeInputSchema,
    answer: routeSchema,
    status: 201,
    takesHost: true,
  }),
  check: call("POST", "/sites/:site/routes/check", {
    summary: "What would be said of a route before it is saved, with slug suggestions",
    role: "reader",
    body: routeQuestionSchema,
    answer: routeCheckSchema,
    takesHost: true,
  }),
  try: call("POST", "/sites/:site/routes/try", {
    summary: "Where addresses would end if a route were saved as it is",
    role: "reader",
    body: tryRouteSchema,
    answer: triedSchema,
    takesHost: true,
  }),
  title: call("POST", "/sites/:site/routes/title", {
    summary: "The title that an outside page gives itself",
    role: "editor",
    body: z.strictObject({ address: z.string().max(8192) }),
    answer: z.object({ title: z.string().nullable() }),
  }),
  read: call("GET", "/sites/:site/routes/:id", {
    summary: "One route",
    role: "reader",
    answer: routeSchema,
  }),
  change: call("PATCH", "/sites/:site/routes/:id", {
    summary: "Change a route",
    role: "editor",
    body: routeChangeSchema,
    answer: routeSchema,
    takesHost: true,
  }),
  delete: call("DELETE", "/sites/:site/routes/:id", {
    summary: "Delete a route; it can be restored",
    role: "editor",
  }),
  restore: call("POST", "/sites/:site/routes/:id/restore", {
    summary: "Bring a deleted route back",
    role: "editor",
    answer: routeSchema,
  }),
  history: call("GET", "/sites/:site/routes/:id/history", {
    summary: "Who changed a route, when and what",
    role: "reader",
    answer: routeHistorySchema,
  }),
  resetCount: call("POST", "/sites/:site/routes/:id/zero", {
    summary: "Count a route's clicks from now on; nothing is deleted",
    role: "editor",
    answer: routeSchema,
  }),
  countAll: call("DELETE", "/sites/:site/routes/:id/zero", {
    summary: "Count a route's clicks from the beginning again",
    role: "editor",
    answer: routeSchema,
  }),
  facets: call("GET", "/sites/:site/routes/facets", {
    summary: "What routes can be narrowed to, with counts",
    role: "reader",
    answer: routeFacetsSchema,
  }),
  bulk: call("POST", "/sites/:site/routes/bulk", {
    summary:
      "Change many routes in one step, or say what would change; with “Prefer: respond-async” as a job",
    role: "editor",
    body: bulkSchema,
    answer: bulkAnswerSchema,
    job: "preferred",
  }),
  undoBulk: call("POST", "/sites/:site/routes/bulk/:id/undo", {
    summary: "Put many routes back as they were",
    role: "editor",
    answer: z.object({ restored: z.int(), left: z.array(z.string()) }),
  }),
  shorten: call("POST", "/sites/:site/routes/shorten", {
    summary: "Make a short link for each address of a list",
    role: "editor",
    body: shortenSchema,
    answer: shortenAnswerSchema,
  }),
  import: call("POST", "/sites/:site/routes/import", {
    summary: "Import routes from CSV or JSON; with “Prefer: respond-async” as a job",
    role: "editor",
    query: importQuery,
    bytes: {
      media: [
        "text/csv",
        "application/json",
        "text/plain",
        "text/tab-separated-values",
        "application/vnd.ms-excel",
        "application/octet-stream",
      ],
      max: MAX_IMPORTED,
    },
    answer: importAnswerSchema,
    job: "preferred",
  }),
  edges: call("GET", "/sites/:site/edges", {
    summary:
      "The web servers that answer for us: how old what they answer is, and what of this site they leave to us",
    role: "reader",
    answer: listOf(edgeSchema),
  }),
  export: call("GET", "/sites/:site/routes/export", {
    summary: "Routes as CSV, JSON, or a configuration of nginx or Apache",
    role: "reader",
    query: exportQuery,
    file: { media: ["text/csv", "application/json", "text/plain"] },
  }),
  lint: call("GET", "/sites/:site/routes/lint", {
    summary: "What is to be said of all routes together",
    role: "reader",
    answer: lintAnswerSchema,
  }),
};
