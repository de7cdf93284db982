import type { people as contract } from "../../contract/people.ts";
import { wholeList, type Handlers } from "../ground/http/handler.ts";
import { listTokens, createToken, deleteToken } from "./people.ts";
import type { WithStore } from "../ground/parts.ts";

/** What the calls about people do. */
export const peopleHandlers: Handlers<typeof contract, WithStore> = {
  tokens: async ({ desk }) => wholeList(await listTokens(desk)),
  createToken: ({ desk, actor, body }) => createToken(desk, actor, body),
  deleteToken: ({ desk, actor, params }) => deleteToken(desk, actor, params.id),
};
