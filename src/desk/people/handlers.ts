import type { people as contract } from "../../contract/people.ts";
import { wholeList, type Handlers } from "../ground/http/handler.ts";
import { mailedIf, type WithMail } from "./mail-links.ts";
import type { WithReport, WithStore } from "../ground/parts.ts";
import {
  changePerson,
  deletePerson,
  endSecondFactorOf,
  invitePerson,
  listPeople,
} from "./installation-people.ts";
import { changeInstallation, readInstallation } from "./installation.ts";
import { resetLink } from "./links.ts";
import { changeMember, inviteMember, listMembers, removeMember } from "./members.ts";
import { createToken, deleteToken, listTokens } from "./tokens.ts";

/** What the calls about people do. */
export const peopleHandlers: Handlers<typeof contract, WithStore & WithMail & WithReport> = {
  list: async ({ desk }) => wholeList(await listPeople(desk)),
  invite: ({ desk, actor, body }) => mailedIf(desk, body.byMail, () => invitePerson(desk, actor, body)),
  change: ({ desk, actor, params, body }) => changePerson(desk, actor, params.id, body),
  remove: ({ desk, actor, params }) => deletePerson(desk, actor, params.id),
  resetLink: ({ desk, actor, params }) => resetLink(desk, actor, { id: params.id }),
  endSecondFactor: ({ desk, actor, params }) => endSecondFactorOf(desk, actor, params.id),
  installation: ({ desk }) => readInstallation(desk),
  changeInstallation: ({ desk, actor, body }) => changeInstallation(desk, actor, body),
  members: async ({ desk, site }) => wholeList(await listMembers(desk, site)),
  inviteMember: ({ desk, actor, site, body }) =>
    mailedIf(desk, body.byMail, () => inviteMember(desk, actor, site, body)),
  changeMember: ({ desk, actor, site, params, body }) =>
    changeMember(desk, actor, site, params.id, body.role),
  removeMember: ({ desk, actor, site, params }) => removeMember(desk, actor, site, params.id),
  tokens: async ({ desk }) => wholeList(await listTokens(desk, null)),
  createToken: ({ desk, actor, body }) => createToken(desk, actor, null, body),
  deleteToken: ({ desk, actor, params }) => deleteToken(desk, actor, null, params.id),
};
