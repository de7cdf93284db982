import type { account as contract } from "../../contract/account.ts";
import { wholeList, type Handlers } from "../ground/http/handler.ts";
import type { WithSeal, WithStore } from "../ground/parts.ts";
import type { WithTexts } from "../pages/texts/read-text.ts";
import * as account from "./account.ts";
import * as second from "./second-factor.ts";
import { createToken, deleteToken, listTokens, personId } from "./tokens.ts";

/** What the calls about the person who is signed in do. */
export const accountHandlers: Handlers<typeof contract, WithStore & WithTexts & WithSeal> = {
  read: ({ desk, actor }) => account.readAccount(desk, actor),
  change: ({ desk, actor, body }) => account.changeAccount(desk, actor, body),
  changePassword: ({ desk, actor, body }) => account.changePassword(desk, actor, body),
  sessions: async ({ desk, actor }) => wholeList(await account.listSessions(desk, actor)),
  endSession: ({ desk, actor, params }) => account.endSession(desk, actor, params.session),
  endOthers: ({ desk, actor }) => account.endOthers(desk, actor),
  secondFactor: ({ desk, actor }) => second.readSecondFactor(desk, actor),
  beginSecondFactor: ({ desk, actor, body }) => second.beginSecondFactor(desk, actor, body.password),
  confirmSecondFactor: ({ desk, actor, body }) => second.confirmSecondFactor(desk, actor, body.code),
  renewRecovery: ({ desk, actor, body }) => second.renewRecovery(desk, actor, body.password),
  endSecondFactor: ({ desk, actor, body }) => second.endSecondFactor(desk, actor, body.password),
  tokens: async ({ desk, actor }) => wholeList(await listTokens(desk, personId(actor))),
  createToken: ({ desk, actor, body }) => createToken(desk, actor, personId(actor), body),
  deleteToken: ({ desk, actor, params }) => deleteToken(desk, actor, personId(actor), params.id),
};
