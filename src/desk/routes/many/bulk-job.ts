import type { Bulk, BulkAnswer } from "../../../contract/routes/bulk.ts";
import type { Actor } from "../../../core/people/actor.ts";
import type { WithDeliveryPort, WithStore } from "../../ground/parts.ts";
import type { WithThread } from "../../jobs/desk-thread.ts";
import type { JobKind } from "../../jobs/job-kind.ts";
import type { Task } from "../../jobs/task.ts";
import { changeMany } from "./bulk.ts";

/** Changes many routes in the desk's thread, however many. */
export const changeRoutesTask: Task<WithStore & WithDeliveryPort, { actor: Actor; bulk: Bulk }, BulkAnswer> =
  {
    name: "routes.bulk",
    run: (desk, site, { actor, bulk }, progress) => changeMany(desk, actor, site, bulk, progress),
  };

/** Changes many routes while whoever asked for it looks elsewhere. */
export const changeRoutesJob: JobKind<WithThread, Bulk, BulkAnswer> = {
  name: "routes.bulk",
  run: (desk, { actor, site, input }, progress) =>
    desk.thread.run(changeRoutesTask, site.id, { actor, bulk: input }, progress),
  oneOf: (siteId, { dryRun }) => `routes ${dryRun ? "tried" : "changed"} ${siteId}`,
};
