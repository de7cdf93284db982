import type { ledger as contract } from "../../contract/ledger.ts";
import { listLinks, linkFacets, groupLinks, exportLinks } from "./list-links.ts";
import { reportLinks } from "./report.ts";
import { asJob, asPreferred, wholeList, type Handlers } from "../ground/http/handler.ts";
import { changeLinksJob, rebuildJob } from "./ledger-jobs.ts";
import { undoChange } from "./bulk/change-links.ts";
import { listViews, saveView, deleteView } from "./views.ts";
import type { WithStore, WithDeliveryPort, WithWorkspaceHosts, WithReport } from "../ground/parts.ts";
import type { WithJobs } from "../jobs/jobs.ts";
import type { WithThread } from "../jobs/desk-thread.ts";

/** What the calls about ledger do. */
export const ledgerHandlers: Handlers<
  typeof contract,
  WithStore & WithDeliveryPort & WithWorkspaceHosts & WithReport & WithJobs & WithThread
> = {
  list: ({ desk, site, query }) => listLinks(desk, site, query),
  facets: ({ desk, site, query }) => linkFacets(desk, site, query),
  groups: ({ desk, site, query }) => groupLinks(desk, site, query),
  report: ({ desk, site, now }) => reportLinks(desk, site, now),
  export: async ({ desk, site, query }) => ({
    name: `${site.key}-links.csv`,
    type: "text/csv; charset=utf-8",
    content: await exportLinks(desk, site, query),
  }),
  rebuild: (call) => asJob(call, rebuildJob, null),
  bulk: (call) => asPreferred(call, changeLinksJob, call.body),
  undoBulk: ({ desk, actor, site, params }) => undoChange(desk, actor, site, params.id),
  views: async ({ desk, site }) => wholeList(await listViews(desk, site)),
  saveView: ({ desk, actor, site, body }) => saveView(desk, actor, site, body),
  deleteView: ({ desk, actor, site, params }) => deleteView(desk, actor, site, params.id),
};
