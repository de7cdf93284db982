import type { LinkBulk, LinkBulkAnswer } from "../../core/ledger/ledger.ts";
import type { WithDeliveryPort, WithReport, WithStore, WithWorkspaceHosts } from "../ground/parts.ts";
import type { WithThread } from "../jobs/desk-thread.ts";
import type { JobKind } from "../jobs/job-kind.ts";
import { changeLinks } from "./bulk/change-links.ts";
import { rebuildTask } from "./follow-ledger.ts";

/** Reads every page of a site anew. */
export const rebuildJob: JobKind<WithThread, null, void> = {
  name: "links.rebuild",
  run: (desk, { site }, progress) => desk.thread.run(rebuildTask, site.id, null, progress),
  oneOf: (siteId) => `rebuild ${siteId}`,
};

/** Changes many links in one step. */
export const changeLinksJob: JobKind<
  WithStore & WithDeliveryPort & WithWorkspaceHosts & WithReport & WithThread,
  LinkBulk,
  LinkBulkAnswer
> = {
  name: "links.bulk",
  run: (desk, { actor, site, input }, progress) => changeLinks(desk, actor, site, input, progress),
  oneOf: (siteId, { dryRun }) => `links ${dryRun ? "tried" : "changed"} ${siteId}`,
};
