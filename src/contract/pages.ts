import { z } from "zod";
import { listQuery } from "./ground/lists.ts";
import {
  categorySchema,
  pageSummarySchema,
  pageInputSchema,
  pageSchema,
  pageChangeSchema,
  publishSchema,
  publishManySchema,
  publishedManySchema,
  revisionSchema,
  revisionFullSchema,
  asideSchema,
  visitSchema,
  visitAnswerSchema,
} from "../core/pages/page.ts";
import { LOOKED_AT, TEXT_BODY, call, listOf } from "./ground/call.ts";
import { importQuery, MAX_IMPORT, importReportSchema, exportQuery } from "../core/pages/transfer.ts";

/** The calls about pages. */
export const pages = {
  list: call("GET", "/sites/:site/pages", {
    summary: "List pages",
    role: "reader",
    query: listQuery,
    answer: listOf(pageSummarySchema),
  }),
  categories: call("GET", "/sites/:site/categories", {
    summary: "The categories that pages name, with how many pages each",
    role: "reader",
    answer: listOf(categorySchema),
  }),
  create: call("POST", "/sites/:site/pages", {
    summary: "Make a page, published at once if asked",
    role: "editor",
    body: pageInputSchema,
    maxBody: TEXT_BODY,
    answer: pageSchema,
    status: 201,
  }),
  read: call("GET", "/sites/:site/pages/:id", {
    summary: "One page with its draft",
    role: "reader",
    answer: pageSchema,
  }),
  save: call("PUT", "/sites/:site/pages/:id", {
    summary: "Save a draft over the version it was made on",
    role: "editor",
    body: pageChangeSchema,
    maxBody: TEXT_BODY,
    answer: pageSchema,
  }),
  delete: call("DELETE", "/sites/:site/pages/:id", {
    summary: "Delete a page; it can be restored",
    role: "editor",
  }),
  restore: call("POST", "/sites/:site/pages/:id/restore", {
    summary: "Bring a deleted page back",
    role: "editor",
    answer: pageSchema,
  }),
  publish: call("POST", "/sites/:site/pages/:id/publish", {
    summary: "Publish the draft",
    role: "editor",
    body: publishSchema,
    answer: pageSchema,
  }),
  publishMany: call("POST", "/sites/:site/pages/publish", {
    summary: "Publish the drafts of many pages; those that cannot be are named, and the others are published",
    role: "editor",
    body: publishManySchema,
    answer: publishedManySchema,
  }),
  unpublish: call("POST", "/sites/:site/pages/:id/unpublish", {
    summary: "Take a page back from readers; its draft stays",
    role: "editor",
    body: publishSchema,
    answer: pageSchema,
  }),
  delivered: call("GET", "/sites/:site/pages/:id/delivered", {
    summary: "The body fragment with rules applied; with draft=1 that of the draft",
    role: "reader",
    query: z.object({ draft: z.enum(["0", "1"]).optional() }),
    html: {},
  }),
  document: call("GET", "/sites/:site/pages/:id/document", {
    summary: "The whole document as readers get it; with draft=1 as they would get the draft",
    role: "reader",
    query: z.object({ draft: z.enum(["0", "1"]).optional() }),
    html: { shownWithin: LOOKED_AT },
  }),
  revisions: call("GET", "/sites/:site/pages/:id/revisions", {
    summary: "The versions of a page that were kept, newest first",
    role: "reader",
    answer: listOf(revisionSchema),
  }),
  revision: call("GET", "/sites/:site/pages/:id/revisions/:revision", {
    summary: "One kept version with its text",
    role: "reader",
    answer: revisionFullSchema,
  }),
  restoreRevision: call("POST", "/sites/:site/pages/:id/revisions/:revision/restore", {
    summary: "Make a kept version the draft again",
    role: "editor",
    body: publishSchema,
    answer: pageSchema,
  }),
  stash: call("POST", "/sites/:site/pages/:id/aside", {
    summary: "Keep a text beside the draft, as one of the page's versions",
    role: "editor",
    body: asideSchema,
    maxBody: TEXT_BODY,
  }),
  visit: call("POST", "/sites/:site/pages/:id/visit", {
    summary: "Say that a tab has the page open; what others saved meanwhile, and who is at it",
    role: "reader",
    body: visitSchema,
    answer: visitAnswerSchema,
  }),
  import: call("POST", "/sites/:site/import", {
    summary:
      "Bring in an HTML or Markdown file, or a zip of them, as pages; with “Prefer: respond-async” as a job",
    role: "editor",
    query: importQuery,
    bytes: { media: ["text/html", "text/markdown", "application/zip", "*/*"], max: MAX_IMPORT },
    answer: importReportSchema,
    job: "preferred",
  }),
  export: call("GET", "/sites/:site/export", {
    summary: "One page or all pages as a zip of HTML or Markdown files",
    role: "reader",
    query: exportQuery,
    file: { media: ["application/zip"] },
  }),
};
