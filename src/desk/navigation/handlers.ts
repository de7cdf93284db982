import type { navigation as contract } from "../../contract/navigation.ts";
import { readNavigation, replaceNavigation } from "./navigation.ts";
import { type Handlers } from "../ground/http/handler.ts";
import type { WithStore, WithDeliveryPort, WithReport } from "../ground/parts.ts";

/** What the calls about navigation do. */
export const navigationHandlers: Handlers<typeof contract, WithStore & WithDeliveryPort & WithReport> = {
  read: ({ desk, site }) => readNavigation(desk, site),
  replace: ({ desk, actor, site, body }) => replaceNavigation(desk, actor, site, body.version, body.items),
};
