import type { history as contract } from "../../contract/history.ts";
import type { Handlers } from "../ground/http/handler.ts";
import type { WithDeliveryPort, WithReport, WithStore, WithWorkspaceHosts } from "../ground/parts.ts";
import type { WithThread } from "../jobs/desk-thread.ts";
import { listBin, restoreFromBin } from "./bin.ts";
import { putBackEntry } from "./put-back.ts";
import { exportHistory, listHistory } from "./history.ts";

/** What the calls about a site's history and its bin do. */
export const historyHandlers: Handlers<
  typeof contract,
  WithStore & WithDeliveryPort & WithReport & WithWorkspaceHosts & WithThread
> = {
  list: ({ desk, site, query }) => listHistory(desk, site, query),
  export: ({ desk, site, query }) => exportHistory(desk, site, query),
  putBack: ({ desk, actor, site, params }) => putBackEntry(desk, actor, site, params.entry),
  bin: ({ desk, site, query }) => listBin(desk, site, query),
  restore: ({ desk, actor, site, params, body }) =>
    restoreFromBin(desk, actor, site, params.item, body.address),
};
