import { deliveredFragment } from "./delivered-fragment.ts";
import type { pages as contract } from "../../contract/pages.ts";
import * as pages from "./pages.ts";
import { previewDocument } from "./pages.ts";
import { createPageTask, savePageTask } from "./page-tasks.ts";
import { UNWATCHED } from "../../threads/progress.ts";
import { publishPages } from "./publish-pages.ts";
import { unpublishPage } from "./unpublish-page.ts";
import { asPreferred, wholeList, type Handlers } from "../ground/http/handler.ts";
import * as revisions from "./revisions.ts";
import { importPagesJob } from "./transfer/import-pages.ts";
import { exportPages } from "./transfer/export-pages.ts";
import type { WithStore, WithDeliveryPort, WithReport } from "../ground/parts.ts";
import type { WithJobs } from "../jobs/jobs.ts";
import type { WithThread } from "../jobs/desk-thread.ts";
import type { WithTexts } from "./texts/read-text.ts";
import { categoriesOf } from "../../store/pages/lists.ts";
import type { WithPreview } from "./preview.ts";

/** What the calls about pages do. */
export const pagesHandlers: Handlers<
  typeof contract,
  WithStore & WithDeliveryPort & WithReport & WithThread & WithTexts & WithPreview & WithJobs
> = {
  list: ({ desk, site, query }) => pages.listPages(desk, site, query),
  categories: async ({ desk, site }) => wholeList(await categoriesOf(desk.store, { site: site.id })),
  create: ({ desk, actor, site, body, isLong }) =>
    isLong
      ? desk.thread.run(createPageTask, site.id, { actor, page: body }, UNWATCHED)
      : pages.createPage(desk, actor, site, body),
  read: ({ desk, site, params }) => pages.readPage(desk, site, params.id),
  save: ({ desk, actor, site, params, body, isLong }) =>
    isLong
      ? desk.thread.run(savePageTask, site.id, { actor, id: params.id, change: body }, UNWATCHED)
      : pages.savePage(desk, actor, site, params.id, body),
  delete: ({ desk, actor, site, params }) => pages.deletePage(desk, actor, site, params.id),
  restore: ({ desk, actor, site, params }) => pages.restorePage(desk, actor, site, params.id),
  publish: ({ desk, actor, site, params, body }) =>
    pages.publishPage(desk, actor, site, params.id, body.version),
  publishMany: ({ desk, actor, site, body }) => publishPages(desk, actor, site, body.pages),
  unpublish: ({ desk, actor, site, params, body }) =>
    unpublishPage(desk, actor, site, params.id, body.version),
  delivered: ({ desk, site, params, query }) => deliveredFragment(desk, site, params.id, query.draft === "1"),
  document: ({ desk, site, params, query }) => previewDocument(desk, site, params.id, query.draft === "1"),
  revisions: async ({ desk, site, params }) =>
    wholeList(await revisions.listRevisions(desk, site, params.id)),
  revision: ({ desk, site, params }) => revisions.readRevision(desk, site, params.id, params.revision),
  restoreRevision: ({ desk, actor, site, params, body }) =>
    revisions.restoreRevision(desk, actor, site, params.id, params.revision, body.version),
  stash: ({ desk, actor, site, params, body }) => revisions.stashRevision(desk, actor, site, params.id, body),
  visit: ({ desk, actor, site, params, body }) => revisions.visitPage(desk, actor, site, params.id, body.tab),
  import: (call) => {
    const { name, dryRun, publish } = call.query;
    return asPreferred(
      call,
      importPagesJob,
      { name, dryRun: dryRun === "1", publish: publish === "1" },
      call.bytes,
    );
  },
  export: ({ desk, site, query }) => exportPages(desk, site, query),
};
