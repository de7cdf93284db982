import type { sites as contract } from "../../contract/sites.ts";
import { wholeList, type Handlers } from "../ground/http/handler.ts";
import type { WithJobs } from "../jobs/jobs.ts";
import type { WithThread } from "../jobs/desk-thread.ts";
import { addHost, changeHost, deleteHost, listHosts } from "./hosts.ts";
import { listSites, createSite, siteView, changeSite } from "./sites.ts";
import { checkHost, type WithProof } from "./check-host.ts";
import { exportSite } from "./whole/export-site.ts";
import { deleteSite, setResting } from "./whole/resting.ts";
import type { WithOutgoing, WithStore, WithDeliveryPort, WithWorkspaceHosts } from "../ground/parts.ts";

/** What the calls about sites do. */
export const sitesHandlers: Handlers<
  typeof contract,
  WithStore & WithDeliveryPort & WithWorkspaceHosts & WithJobs & WithThread & WithOutgoing & WithProof
> = {
  list: async ({ desk, actor }) => wholeList(await listSites(desk, actor)),
  create: ({ desk, actor, body }) => createSite(desk, actor, body),
  read: async ({ desk, site }) => siteView(desk, site),
  change: ({ desk, actor, site, body }) => changeSite(desk, actor, site, body),
  export: ({ desk, actor, site, now }) => exportSite(desk, actor, site, now),
  rest: ({ desk, actor, site }) => setResting(desk, actor, site, true),
  wake: ({ desk, actor, site }) => setResting(desk, actor, site, false),
  remove: ({ desk, actor, site, body }) => deleteSite(desk, actor, site, body),
  hosts: async ({ desk, site }) => wholeList(await listHosts(desk, site)),
  addHost: ({ desk, actor, site, body }) => addHost(desk, actor, site, body),
  changeHost: ({ desk, actor, site, params, body }) => changeHost(desk, actor, site, params.host, body),
  checkHost: ({ desk, site, params }) => checkHost(desk, site, params.host),
  removeHost: ({ desk, actor, site, params }) => deleteHost(desk, actor, site, params.host),
};
