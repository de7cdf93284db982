import { z } from "zod";
import {
  fileChangeSchema,
  fileSchema,
  fileUsesSchema,
  MAX_FILE,
  uploadQuery,
} from "../../core/files/file.ts";
import { navigationInputSchema, navigationSchema } from "../../core/navigation/navigation.ts";
import * as page from "../../core/pages/page.ts";
import { siteChangeSchema, siteSchema } from "../../core/sites/site.ts";
import { exportQuery, importQuery, importReportSchema, MAX_IMPORT } from "../../core/pages/transfer.ts";
import { createBlock, listBlocks } from "../blocks/blocks.ts";
import { exportPages } from "./export-pages.ts";
import * as files from "../files/files.ts";
import { importPages } from "./import-pages.ts";
import { listQuery } from "../ground/lists.ts";
import { readNavigation, replaceNavigation } from "../navigation/navigation.ts";
import { previewDocument } from "./pages.ts";
import * as revisions from "./revisions.ts";
import { changeSite } from "../sites/sites.ts";
import { readSnippet } from "../creatives/snippets.ts";
import { listOf, operation, SITE, type Operation, wholeList, TEXT_BODY } from "../ground/http/operation.ts";

const PAGE = `${SITE}/pages/:id`;

/** The calls with which pages are written, beyond saving and publishing: versions, files, navigation, blocks, in and out. */
export const writingOperations: readonly Operation[] = [
  operation("PATCH", SITE, {
    summary: "Change a site's name, variables and limits",
    role: "owner",
    body: siteChangeSchema,
    answer: siteSchema,
    run: ({ desk, actor, site, body }) => changeSite(desk, actor, site, body),
  }),

  operation("GET", `${PAGE}/document`, {
    summary: "The whole document as readers get it; with draft=1 as they would get the draft",
    role: "reader",
    media: "text/html",
    shownWithin:
      "default-src 'none'; style-src http: https: 'unsafe-inline'; img-src http: https: data:; font-src http: https:; base-uri http: https:; sandbox allow-same-origin",
    query: z.object({ draft: z.enum(["0", "1"]).optional() }),
    run: ({ desk, site, params, query }) => previewDocument(desk, site, params.id!, query.draft === "1"),
  }),
  operation("GET", `${PAGE}/revisions`, {
    summary: "The versions of a page that were kept, newest first",
    role: "reader",
    answer: listOf(page.revisionSchema),
    run: async ({ desk, site, params }) => wholeList(await revisions.listRevisions(desk, site, params.id!)),
  }),
  operation("GET", `${PAGE}/revisions/:revision`, {
    summary: "One kept version with its text",
    role: "reader",
    answer: page.revisionFullSchema,
    run: ({ desk, site, params }) => revisions.readRevision(desk, site, params.id!, params.revision!),
  }),
  operation("POST", `${PAGE}/revisions/:revision/restore`, {
    summary: "Make a kept version the draft again",
    role: "editor",
    body: page.publishSchema,
    answer: page.pageSchema,
    run: ({ desk, actor, site, params, body }) =>
      revisions.restoreRevision(desk, actor, site, params.id!, params.revision!, body.version),
  }),
  operation("POST", `${PAGE}/aside`, {
    summary: "Keep a text beside the draft, as one of the page's versions",
    role: "editor",
    body: page.asideSchema,
    mostBody: TEXT_BODY,
    status: 204,
    run: ({ desk, actor, site, params, body }) =>
      revisions.stashRevision(desk, actor, site, params.id!, body),
  }),
  operation("POST", `${PAGE}/visit`, {
    summary: "Say that a tab has the page open; what others saved meanwhile, and who is at it",
    role: "reader",
    body: page.visitSchema,
    answer: page.visitAnswerSchema,
    run: ({ desk, actor, site, params, body }) =>
      revisions.visitPage(desk, actor, site, params.id!, body.tab),
  }),
  operation("POST", `${SITE}/snippets`, {
    summary: "Read a partner's HTML snippet as text of ours",
    role: "editor",
    body: page.snippetSchema,
    answer: page.snippetAnswerSchema,
    run: ({ desk, site, body }) => readSnippet(desk, site, body.html),
  }),

  operation("GET", `${SITE}/blocks`, {
    summary: "List shared blocks; each is read, saved and published under pages/{id}",
    role: "reader",
    answer: listOf(page.pageSummarySchema),
    run: async ({ desk, site }) => wholeList(await listBlocks(desk, site)),
  }),
  operation("POST", `${SITE}/blocks`, {
    summary: "Make a shared block",
    role: "editor",
    body: page.blockInputSchema,
    mostBody: TEXT_BODY,
    answer: page.pageSchema,
    status: 201,
    run: ({ desk, actor, site, body }) => createBlock(desk, actor, site, body),
  }),
  operation("GET", `${SITE}/navigation`, {
    summary: "The navigation",
    role: "reader",
    answer: navigationSchema,
    run: ({ desk, site }) => readNavigation(desk, site),
  }),
  operation("PUT", `${SITE}/navigation`, {
    summary: "Replace the navigation",
    role: "editor",
    body: navigationInputSchema,
    answer: navigationSchema,
    run: ({ desk, actor, site, body }) => replaceNavigation(desk, actor, site, body.version, body.items),
  }),

  operation("GET", `${SITE}/files`, {
    summary: "List files",
    role: "reader",
    query: listQuery,
    answer: listOf(fileSchema),
    run: ({ desk, site, query }) => files.listFiles(desk, site, query),
  }),
  operation("POST", `${SITE}/files`, {
    summary: "Upload a file: its content is the body, its name the query parameter",
    role: "editor",
    query: uploadQuery,
    takesBytes: MAX_FILE,
    answer: fileSchema,
    status: 201,
    run: ({ desk, actor, site, query, bytes }) => files.uploadFile(desk, actor, site, query.name, bytes),
  }),
  operation("PATCH", `${SITE}/files/:id`, {
    summary: "Change a file's alternative text or path",
    role: "editor",
    body: fileChangeSchema,
    answer: fileSchema,
    run: ({ desk, actor, site, params, body }) => files.changeFile(desk, actor, site, params.id!, body),
  }),
  operation("GET", `${SITE}/files/:id/uses`, {
    summary: "The pages and blocks that use a file",
    role: "reader",
    answer: fileUsesSchema,
    run: ({ desk, site, params }) => files.fileUses(desk, site, params.id!),
  }),
  operation("DELETE", `${SITE}/files/:id`, {
    summary: "Delete a file; it can be restored",
    role: "editor",
    status: 204,
    run: ({ desk, actor, site, params }) => files.deleteFile(desk, actor, site, params.id!),
  }),
  operation("POST", `${SITE}/files/:id/restore`, {
    summary: "Bring a deleted file back",
    role: "editor",
    answer: fileSchema,
    run: ({ desk, actor, site, params }) => files.restoreFile(desk, actor, site, params.id!),
  }),

  operation("POST", `${SITE}/import`, {
    summary: "Bring in an HTML or Markdown file, or a zip of them, as pages",
    role: "editor",
    query: importQuery,
    takesBytes: MAX_IMPORT,
    answer: importReportSchema,
    run: ({ desk, actor, site, query, bytes }) =>
      importPages(desk, actor, site, query.name, bytes, {
        dryRun: query.dryRun === "1",
        publish: query.publish === "1",
      }),
  }),
  operation("GET", `${SITE}/export`, {
    summary: "One page or all pages as a zip of HTML or Markdown files",
    role: "reader",
    query: exportQuery,
    media: "application/zip",
    run: ({ desk, site, query }) => exportPages(desk, site, query),
  }),
];
