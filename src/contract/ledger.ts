import { listQuery } from "./ground/lists.ts";
import { z } from "zod";
import {
  ledgerLinkSchema,
  ledgerFilterSchema,
  ledgerFacetsSchema,
  ledgerGroupSchema,
  ledgerReportSchema,
  linkBulkSchema,
  linkBulkAnswerSchema,
  ledgerViewSchema,
  ledgerViewInputSchema,
} from "../core/ledger/ledger.ts";
import { call, listOf } from "./ground/call.ts";

export const linksQuery = listQuery.extend(ledgerFilterSchema.shape);

export const groupsQuery = linksQuery.extend({ by: z.enum(["host", "page"], "by is host or page.") });

/** The calls about ledger. */
export const ledger = {
  list: call("GET", "/sites/:site/links", {
    summary: "The ledger: every link on every page, as stored and as delivered",
    role: "reader",
    query: linksQuery,
    answer: listOf(ledgerLinkSchema),
    ofLedger: true,
  }),
  facets: call("GET", "/sites/:site/links/facets", {
    summary: "What links can be narrowed to, with counts",
    role: "reader",
    query: ledgerFilterSchema,
    answer: ledgerFacetsSchema,
    ofLedger: true,
  }),
  groups: call("GET", "/sites/:site/links/groups", {
    summary: "The ledger by host or by page",
    role: "reader",
    query: groupsQuery,
    answer: listOf(ledgerGroupSchema),
    ofLedger: true,
  }),
  report: call("GET", "/sites/:site/links/report", {
    summary: "Readers' outside links by treatment, host, page and day",
    role: "reader",
    answer: ledgerReportSchema,
    ofLedger: true,
  }),
  export: call("GET", "/sites/:site/links/export", {
    summary: "The ledger as CSV",
    role: "reader",
    query: ledgerFilterSchema,
    file: { media: ["text/csv"] },
  }),
  rebuild: call("POST", "/sites/:site/links/rebuild", {
    summary: "Read every page's links anew, as a job",
    role: "editor",
    job: "always",
  }),
  bulk: call("POST", "/sites/:site/links/bulk", {
    summary: "Change many links in one step, or say what would change; with “Prefer: respond-async” as a job",
    role: "editor",
    body: linkBulkSchema,
    answer: linkBulkAnswerSchema,
    job: "preferred",
  }),
  undoBulk: call("POST", "/sites/:site/links/bulk/:id/undo", {
    summary: "Put many links back as they were",
    role: "editor",
    answer: z.object({ restored: z.int(), left: z.array(z.string()) }),
  }),
  views: call("GET", "/sites/:site/links/views", {
    summary: "Saved views of the ledger",
    role: "reader",
    answer: listOf(ledgerViewSchema),
  }),
  saveView: call("POST", "/sites/:site/links/views", {
    summary: "Save a view of the ledger; one of the same name is replaced",
    role: "editor",
    body: ledgerViewInputSchema,
    answer: ledgerViewSchema,
    status: 201,
  }),
  deleteView: call("DELETE", "/sites/:site/links/views/:id", {
    summary: "Delete a saved view",
    role: "editor",
  }),
};
