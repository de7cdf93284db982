import { rebuildTask } from "./follow-ledger.ts";
import { z } from "zod";
import {
  ledgerFacetsSchema,
  ledgerFilterSchema,
  ledgerGroupSchema,
  ledgerLinkSchema,
  ledgerReportSchema,
  ledgerViewInputSchema,
  ledgerViewSchema,
  linkBulkAnswerSchema,
  linkBulkSchema,
} from "../../core/ledger/ledger.ts";
import { changeLinks, undoChange } from "./bulk/change-links.ts";
import { exportLinks, groupLinks, groupsQuery, linkFacets, linksQuery, listLinks } from "./list-links.ts";
import { reportLinks } from "./report.ts";
import { deleteView, listViews, saveView } from "./views.ts";
import {
  Accepted,
  asPreferred,
  listOf,
  operation,
  type Operation,
  SITE,
  wholeList,
} from "../ground/http/operation.ts";

const LINKS = `${SITE}/links`;

/** The calls of the station Ledger. */
export const ledgerOperations: readonly Operation[] = [
  operation("GET", LINKS, {
    summary: "The ledger: every link on every page, as stored and as delivered",
    role: "reader",
    query: linksQuery,
    answer: listOf(ledgerLinkSchema),
    ofLedger: true,
    run: ({ desk, site, query }) => listLinks(desk, site, query),
  }),
  operation("GET", `${LINKS}/facets`, {
    summary: "What links can be narrowed to, with counts",
    role: "reader",
    query: ledgerFilterSchema,
    answer: ledgerFacetsSchema,
    ofLedger: true,
    run: ({ desk, site, query }) => linkFacets(desk, site, query),
  }),
  operation("GET", `${LINKS}/groups`, {
    summary: "The ledger by host or by page",
    role: "reader",
    query: groupsQuery,
    answer: listOf(ledgerGroupSchema),
    ofLedger: true,
    run: ({ desk, site, query }) => groupLinks(desk, site, query),
  }),
  operation("GET", `${LINKS}/report`, {
    summary: "Readers' outside links by treatment, host, page and day",
    role: "reader",
    answer: ledgerReportSchema,
    ofLedger: true,
    run: ({ desk, site, now }) => reportLinks(desk, site, now),
  }),
  operation("GET", `${LINKS}/export`, {
    summary: "The ledger as CSV",
    role: "reader",
    query: ledgerFilterSchema,
    media: "file",
    run: async ({ desk, site, query }) => ({
      name: `${site.key}-links.csv`,
      type: "text/csv; charset=utf-8",
      content: await exportLinks(desk, site, query),
    }),
  }),
  operation("POST", `${LINKS}/rebuild`, {
    summary: "Read every page's links anew, as a job",
    role: "editor",
    run: async ({ desk, actor, site }) =>
      new Accepted(
        desk.jobs.start(actor.name, "links.rebuild", (progress) =>
          desk.thread.run(rebuildTask, site.id, null, progress),
        ),
      ),
  }),
  operation("POST", `${LINKS}/bulk`, {
    summary: "Change many links in one step, or say what would change; with “Prefer: respond-async” as a job",
    role: "editor",
    body: linkBulkSchema,
    answer: linkBulkAnswerSchema,
    run: (call) =>
      asPreferred(call, "links.bulk", (progress) =>
        changeLinks(call.desk, call.actor, call.site, call.body, progress),
      ),
  }),
  operation("POST", `${LINKS}/bulk/:id/undo`, {
    summary: "Put many links back as they were",
    role: "editor",
    answer: z.object({ restored: z.int(), left: z.array(z.string()) }),
    run: ({ desk, actor, site, params }) => undoChange(desk, actor, site, params.id!),
  }),
  operation("GET", `${LINKS}/views`, {
    summary: "Saved views of the ledger",
    role: "reader",
    answer: listOf(ledgerViewSchema),
    run: async ({ desk, site }) => wholeList(await listViews(desk, site)),
  }),
  operation("POST", `${LINKS}/views`, {
    summary: "Save a view of the ledger; one of the same name is replaced",
    role: "editor",
    body: ledgerViewInputSchema,
    answer: ledgerViewSchema,
    status: 201,
    run: ({ desk, actor, site, body }) => saveView(desk, actor, site, body),
  }),
  operation("DELETE", `${LINKS}/views/:id`, {
    summary: "Take a saved view away",
    role: "editor",
    status: 204,
    run: ({ desk, site, params }) => deleteView(desk, site, params.id!),
  }),
];
