import type { swaps as contract } from "../../../contract/swaps.ts";
import type { WithDeliveryPort, WithStore } from "../../ground/parts.ts";
import { asPreferred, wholeList, type Handlers } from "../../ground/http/handler.ts";
import type { WithThread } from "../../jobs/desk-thread.ts";
import type { WithJobs } from "../../jobs/jobs.ts";
import { currentSwaps, putBackSwaps, replaceSwaps, swapVersions } from "./swaps.ts";
import { trySwapsJob } from "./try-swaps.ts";

/** What the calls about swaps do. */
export const swapsHandlers: Handlers<typeof contract, WithStore & WithDeliveryPort & WithJobs & WithThread> =
  {
    read: ({ desk, site }) => currentSwaps(desk, site),
    replace: ({ desk, actor, site, body }) => replaceSwaps(desk, actor, site, body),
    try: (call) => asPreferred(call, trySwapsJob, call.body),
    versions: async ({ desk, site }) => wholeList(await swapVersions(desk, site)),
    restoreVersion: ({ desk, actor, site, params, body }) =>
      putBackSwaps(desk, actor, site, params.version, body.version),
  };
