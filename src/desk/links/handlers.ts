import type { links as contract } from "../../contract/links.ts";
import { resolveLinks } from "./resolve-links.ts";
import { lookAtPaste } from "./paste.ts";
import { type Handlers } from "../ground/http/handler.ts";
import type { WithStore, WithDeliveryPort, WithWorkspaceHosts } from "../ground/parts.ts";

/** What the calls about links do. */
export const linksHandlers: Handlers<typeof contract, WithStore & WithDeliveryPort & WithWorkspaceHosts> = {
  resolve: ({ desk, site, body }) => resolveLinks(desk, site, body.addresses),
  paste: ({ desk, site, body }) => lookAtPaste(desk, site, body.text),
};
