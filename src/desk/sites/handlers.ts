import type { sites as contract } from "../../contract/sites.ts";
import { wholeList, type Handlers } from "../ground/http/handler.ts";
import { listSites, createSite, siteView, changeSite } from "./sites.ts";
import type { WithStore, WithDeliveryPort, WithWorkspaceHosts } from "../ground/parts.ts";

/** What the calls about sites do. */
export const sitesHandlers: Handlers<typeof contract, WithStore & WithDeliveryPort & WithWorkspaceHosts> = {
  list: async ({ desk }) => wholeList(await listSites(desk)),
  create: ({ desk, actor, body }) => createSite(desk, actor, body),
  read: async ({ desk, site }) => siteView(desk, site),
  change: ({ desk, actor, site, body }) => changeSite(desk, actor, site, body),
};
