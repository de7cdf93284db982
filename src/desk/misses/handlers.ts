import type { misses as contract } from "../../contract/misses.ts";
import * as misses from "./misses.ts";
import { type Handlers } from "../ground/http/handler.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";

/** What the calls about misses do. */
export const missesHandlers: Handlers<typeof contract, WithStore & WithDeliveryPort> = {
  list: ({ desk, site, query }) => misses.listMisses(desk, site, query),
  summary: ({ desk, site }) => misses.missSummary(desk, site),
  answer: ({ desk, actor, site, body }) => misses.resolveMisses(desk, actor, site, body),
  ignore: ({ desk, actor, site, body }) => misses.ignoreMisses(desk, actor, site, body),
  resolve: ({ desk, actor, site, params, body }) => misses.resolveMiss(desk, actor, site, params.id, body),
};
