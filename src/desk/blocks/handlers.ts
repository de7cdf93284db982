import type { blocks as contract } from "../../contract/blocks.ts";
import { wholeList, type Handlers } from "../ground/http/handler.ts";
import { listBlocks, createBlock } from "./blocks.ts";
import { type Desk } from "../desk.ts";

/** What the calls about blocks do. */
export const blocksHandlers: Handlers<typeof contract, Desk> = {
  list: async ({ desk, site }) => wholeList(await listBlocks(desk, site)),
  create: ({ desk, actor, site, body }) => createBlock(desk, actor, site, body),
};
