import { z } from "zod";
import {
  earningsQuerySchema,
  earningsSchema,
  unmatchedQuerySchema,
  unmatchedSchema,
  reportImportQuerySchema,
  reportLookQuerySchema,
  reportLookSchema,
  reportResultSchema,
} from "../core/earnings/earning.ts";
import { call, listOf } from "./ground/call.ts";

/** The largest report that is taken, in bytes. */
export const MAX_REPORT = 400_000_000;

/** The calls about earnings. */
export const earnings = {
  read: call("GET", "/sites/:site/earnings", {
    summary: "What was earned, beside the clicks that led there",
    role: "reader",
    query: earningsQuerySchema,
    answer: earningsSchema,
  }),
  export: call("GET", "/sites/:site/earnings/export", {
    summary: "The same as CSV",
    role: "reader",
    query: earningsQuerySchema,
    file: { media: ["text/csv"] },
  }),
  unmatched: call("GET", "/sites/:site/earnings/unmatched", {
    summary: "Rows of reports that no program was found for, by what the reports call it",
    role: "reader",
    query: unmatchedQuerySchema,
    answer: listOf(unmatchedSchema),
  }),
  report: call("GET", "/sites/:site/earnings/report", {
    summary: "A network's report as the network answers it",
    role: "editor",
    query: reportImportQuerySchema.pick({ network: true }),
    file: { media: ["text/csv"] },
  }),
  pull: call("POST", "/sites/:site/earnings/pull", {
    summary: "Ask a network for its report, as a job; it is kept for a day, to be looked at and imported",
    role: "editor",
    body: reportImportQuerySchema.pick({ network: true }),
    answer: z.object({ network: z.string(), bytes: z.int() }),
    job: "always",
  }),
  look: call("POST", "/sites/:site/earnings/look", {
    summary: "Look at a report's columns before it is imported (text/csv)",
    role: "reader",
    query: reportLookQuerySchema,
    bytes: { media: ["text/csv", "*/*"], max: MAX_REPORT },
    answer: reportLookSchema,
  }),
  import: call("POST", "/sites/:site/earnings/import", {
    summary: "Import a network's report (text/csv); with “Prefer: respond-async” as a job",
    role: "editor",
    query: reportImportQuerySchema,
    bytes: { media: ["text/csv", "*/*"], max: MAX_REPORT },
    answer: reportResultSchema,
    job: "preferred",
  }),
};
