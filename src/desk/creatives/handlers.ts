import type { creatives as contract } from "../../contract/creatives.ts";
import { readSnippet } from "./snippets.ts";
import { wholeList, type Handlers } from "../ground/http/handler.ts";
import { listCreatives, keepCreative, placeCreative, setCreativeDeleted } from "./creatives.ts";
import { changeCreative } from "./change-creative.ts";
import type { WithStore, WithDeliveryPort, WithWorkspaceHosts, WithReport } from "../ground/parts.ts";
import type { WithThread } from "../jobs/desk-thread.ts";
import type { WithTexts } from "../pages/texts/read-text.ts";

/** What the calls about creatives do. */
export const creativesHandlers: Handlers<
  typeof contract,
  WithStore & WithDeliveryPort & WithWorkspaceHosts & WithReport & WithThread & WithTexts
> = {
  readSnippet: ({ desk, site, body }) => readSnippet(desk, site, body.html),
  ofProgram: async ({ desk, site, params }) => wholeList(await listCreatives(desk, site, params.id)),
  keep: ({ desk, actor, site, params, body }) => keepCreative(desk, actor, site, params.id, body),
  list: async ({ desk, site }) => wholeList(await listCreatives(desk, site)),
  place: ({ desk, actor, site, params, body }) => placeCreative(desk, actor, site, params.id, body),
  change: ({ desk, actor, site, params, body }) => changeCreative(desk, actor, site, params.id, body),
  delete: ({ desk, actor, site, params }) => setCreativeDeleted(desk, actor, site, params.id, true),
  restore: ({ desk, actor, site, params }) => setCreativeDeleted(desk, actor, site, params.id, false),
};
