import {
  handedLinkSchema,
  memberChangeSchema,
  memberInputSchema,
  memberSchema,
  personChangeSchema,
  personInputSchema,
  personSchema,
} from "../core/people/member.ts";
import { installationChangeSchema, installationSchema } from "../core/people/installation.ts";
import { tokenInputSchema, tokenSchema } from "../core/people/token.ts";
import { call, listOf } from "./ground/call.ts";

/** The calls about people, their roles, and the installation's tokens. */
export const people = {
  list: call("GET", "/people", {
    summary: "List the people of the installation with all that they may do",
    role: "owner",
    answer: listOf(personSchema),
  }),
  invite: call("POST", "/people", {
    summary:
      "Invite somebody new; the link with which they choose a password is in this answer and nowhere else",
    role: "owner",
    body: personInputSchema,
    answer: personSchema.extend({ link: handedLinkSchema }),
    status: 201,
    showsSecret: true,
  }),
  change: call("PATCH", "/people/:id", {
    summary:
      "Change a person's name, mail address or roles, or whether they may come in; the last owner stays one",
    role: "owner",
    body: personChangeSchema,
    answer: personSchema,
  }),
  remove: call("DELETE", "/people/:id", {
    summary: "Delete a person with their sessions and tokens; what they did stays told by their name",
    role: "owner",
  }),
  resetLink: call("POST", "/people/:id/reset-link", {
    summary: "Make a link with which a person chooses a new password; an earlier one ends",
    role: "owner",
    answer: handedLinkSchema,
    status: 201,
    madeAt: "/people/:id",
    showsSecret: true,
  }),
  endSecondFactor: call("DELETE", "/people/:id/second-factor", {
    summary: "Remove the second factor of somebody who lost what shows their codes",
    role: "owner",
  }),
  installation: call("GET", "/installation", {
    summary: "What holds for the whole installation",
    role: "reader",
    answer: installationSchema,
  }),
  changeInstallation: call("PATCH", "/installation", {
    summary: "Change what holds for the whole installation",
    role: "owner",
    body: installationChangeSchema,
    answer: installationSchema,
  }),
  members: call("GET", "/sites/:site/people", {
    summary: "Who can sign in to a site, and what they may do there",
    role: "owner",
    answer: listOf(memberSchema),
  }),
  inviteMember: call("POST", "/sites/:site/people", {
    summary: "Invite somebody to a site; somebody new gets a link, which is in this answer and nowhere else",
    role: "owner",
    body: memberInputSchema,
    answer: memberSchema.extend({ link: handedLinkSchema.nullable() }),
    status: 201,
    showsSecret: true,
  }),
  changeMember: call("PUT", "/sites/:site/people/:id", {
    summary: "Change what somebody who may come into a site may do there",
    role: "owner",
    body: memberChangeSchema,
    answer: memberSchema,
  }),
  removeMember: call("DELETE", "/sites/:site/people/:id", {
    summary: "Take from somebody what a site lets them do",
    role: "owner",
  }),
  tokens: call("GET", "/tokens", {
    summary: "List the installation's API tokens",
    role: "owner",
    answer: listOf(tokenSchema),
  }),
  createToken: call("POST", "/tokens", {
    summary: "Make an API token of the installation; its text is shown this once",
    role: "owner",
    body: tokenInputSchema,
    answer: tokenSchema,
    status: 201,
    showsSecret: true,
  }),
  deleteToken: call("DELETE", "/tokens/:id", {
    summary: "End an API token of the installation",
    role: "owner",
  }),
};
