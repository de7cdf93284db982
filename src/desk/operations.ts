import { z } from "zod";
import {
  pageChangeSchema,
  pageInputSchema,
  pageSchema,
  pageSummarySchema,
  publishSchema,
} from "../core/pages/page.ts";
import { pasteAnswerSchema, pasteQuestionSchema } from "../core/links/paste.ts";
import { tokenInputSchema, tokenSchema } from "../core/people/person.ts";
import { siteInputSchema, siteSchema } from "../core/sites/site.ts";
import { resolvedLinksSchema, resolveLinks } from "./links/resolve-links.ts";
import { listQuery } from "./ground/lists.ts";
import { UNWATCHED } from "./jobs/jobs.ts";
import { createPageTask, savePageTask } from "./pages/page-tasks.ts";
import * as pages from "./pages/pages.ts";
import { lookAtPaste } from "./links/paste.ts";
import { createToken, deleteToken, listTokens } from "./people/people.ts";
import { createSite, listSites, siteView } from "./sites/sites.ts";
import { unpublishPage } from "./pages/unpublish-page.ts";
import { ledgerOperations } from "./ledger/ledger-operations.ts";
import { listOf, operation, SITE, type Operation, wholeList, TEXT_BODY } from "./ground/http/operation.ts";
import { programOperations } from "./programs/program-operations.ts";
import { routeOperations } from "./routes/route-operations.ts";
import { ruleOperations } from "./rules/rule-operations.ts";
import { writingOperations } from "./pages/writing-operations.ts";

/** Every call of the API, in the order of the documentation. */
export const operations: readonly Operation[] = [
  operation("GET", "/sites", {
    summary: "List the sites",
    role: "reader",
    answer: listOf(siteSchema),
    run: async ({ desk }) => wholeList(await listSites(desk)),
  }),
  operation("POST", "/sites", {
    summary: "Make a site",
    role: "owner",
    body: siteInputSchema,
    answer: siteSchema,
    status: 201,
    run: ({ desk, actor, body }) => createSite(desk, actor, body),
  }),
  operation("GET", SITE, {
    summary: "One site",
    role: "reader",
    answer: siteSchema,
    run: async ({ desk, site }) => siteView(desk, site),
  }),

  operation("GET", `${SITE}/pages`, {
    summary: "List pages",
    role: "reader",
    query: listQuery,
    answer: listOf(pageSummarySchema),
    run: ({ desk, site, query }) => pages.listPages(desk, site, query),
  }),
  operation("POST", `${SITE}/pages`, {
    summary: "Make a page, published at once if asked",
    role: "editor",
    body: pageInputSchema,
    mostBody: TEXT_BODY,
    answer: pageSchema,
    status: 201,
    run: ({ desk, actor, site, body, isLong }) =>
      isLong
        ? desk.thread.run(createPageTask, site.id, { actor, page: body }, UNWATCHED)
        : pages.createPage(desk, actor, site, body),
  }),
  operation("GET", `${SITE}/pages/:id`, {
    summary: "One page with its draft",
    role: "reader",
    answer: pageSchema,
    run: ({ desk, site, params }) => pages.readPage(desk, site, params.id!),
  }),
  operation("PUT", `${SITE}/pages/:id`, {
    summary: "Save a draft over the version it was made on",
    role: "editor",
    body: pageChangeSchema,
    mostBody: TEXT_BODY,
    answer: pageSchema,
    run: ({ desk, actor, site, params, body, isLong }) =>
      isLong
        ? desk.thread.run(savePageTask, site.id, { actor, id: params.id!, change: body }, UNWATCHED)
        : pages.savePage(desk, actor, site, params.id!, body),
  }),
  operation("DELETE", `${SITE}/pages/:id`, {
    summary: "Delete a page; it can be restored",
    role: "editor",
    status: 204,
    run: ({ desk, actor, site, params }) => pages.deletePage(desk, actor, site, params.id!),
  }),
  operation("POST", `${SITE}/pages/:id/restore`, {
    summary: "Bring a deleted page back",
    role: "editor",
    answer: pageSchema,
    run: ({ desk, actor, site, params }) => pages.restorePage(desk, actor, site, params.id!),
  }),
  operation("POST", `${SITE}/pages/:id/publish`, {
    summary: "Publish the draft",
    role: "editor",
    body: publishSchema,
    answer: pageSchema,
    run: ({ desk, actor, site, params, body }) =>
      pages.publishPage(desk, actor, site, params.id!, body.version),
  }),
  operation("POST", `${SITE}/pages/:id/unpublish`, {
    summary: "Take a page back from readers; its draft stays",
    role: "editor",
    body: publishSchema,
    answer: pageSchema,
    run: ({ desk, actor, site, params, body }) => unpublishPage(desk, actor, site, params.id!, body.version),
  }),
  operation("GET", `${SITE}/pages/:id/delivered`, {
    summary: "The body fragment with rules applied; with draft=1 that of the draft",
    role: "reader",
    media: "text/html",
    query: z.object({ draft: z.enum(["0", "1"]).optional() }),
    run: ({ desk, site, params, query }) => pages.deliveredHtml(desk, site, params.id!, query.draft === "1"),
  }),

  ...writingOperations,

  ...routeOperations,

  ...ledgerOperations,

  ...ruleOperations,

  ...programOperations,

  operation("POST", `${SITE}/looks`, {
    summary: "Where each of these addresses leads, seen from the site",
    role: "reader",
    body: z.strictObject({ addresses: z.array(z.string().max(4096)).max(5000) }),
    answer: resolvedLinksSchema,
    run: ({ desk, site, body }) => resolveLinks(desk, site, body.addresses),
  }),
  operation("POST", `${SITE}/paste`, {
    summary: "What is known of something that was pasted",
    role: "reader",
    body: pasteQuestionSchema,
    answer: pasteAnswerSchema,
    run: ({ desk, site, body }) => lookAtPaste(desk, site, body.text),
  }),

  operation("GET", "/tokens", {
    summary: "List API tokens",
    role: "owner",
    answer: listOf(tokenSchema),
    run: async ({ desk }) => wholeList(await listTokens(desk)),
  }),
  operation("POST", "/tokens", {
    summary: "Make an API token; its text is shown this once",
    role: "owner",
    body: tokenInputSchema,
    answer: tokenSchema,
    status: 201,
    run: ({ desk, actor, body }) => createToken(desk, actor, body),
  }),
  operation("DELETE", "/tokens/:id", {
    summary: "End an API token",
    role: "owner",
    status: 204,
    run: ({ desk, actor, params }) => deleteToken(desk, actor, params.id!),
  }),
];
