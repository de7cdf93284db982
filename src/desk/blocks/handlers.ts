import type { blocks as contract } from "../../contract/blocks.ts";
import { wholeList, type Handlers } from "../ground/http/handler.ts";
import { listBlocks, createBlock } from "./blocks.ts";
import type { WithStore, WithDeliveryPort, WithReport } from "../ground/parts.ts";
import type { WithTexts } from "../pages/texts/read-text.ts";

/** What the calls about blocks do. */
export const blocksHandlers: Handlers<
  typeof contract,
  WithStore & WithDeliveryPort & WithReport & WithTexts
> = {
  list: async ({ desk, site }) => wholeList(await listBlocks(desk, site)),
  create: ({ desk, actor, site, body }) => createBlock(desk, actor, site, body),
};
