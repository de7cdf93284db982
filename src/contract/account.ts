import { z } from "zod";
import {
  accountChangeSchema,
  accountSchema,
  passwordChangeSchema,
  sessionSchema,
} from "../core/people/person.ts";
import {
  recoverySchema,
  secondFactorBegunSchema,
  secondFactorSchema,
  withCodeSchema,
  withPasswordSchema,
} from "../core/people/second-factor.ts";
import { tokenInputSchema, tokenSchema } from "../core/people/token.ts";
import { call, listOf } from "./ground/call.ts";

const ended = z.object({ ended: z.int() });

/** The calls about the person who is signed in; a token has no account. */
export const account = {
  read: call("GET", "/me", {
    summary: "Who is signed in",
    role: "reader",
    answer: accountSchema,
  }),
  change: call("PATCH", "/me", {
    summary: "Change one's own name or mail address; the latter with one's password",
    role: "reader",
    body: accountChangeSchema,
    answer: accountSchema,
  }),
  changePassword: call("PUT", "/me/password", {
    summary: "Change one's own password; all other sessions end",
    role: "reader",
    body: passwordChangeSchema,
    answer: ended,
  }),
  sessions: call("GET", "/me/sessions", {
    summary: "Where one is signed in",
    role: "reader",
    answer: listOf(sessionSchema),
  }),
  endSession: call("DELETE", "/me/sessions/:session", {
    summary: "End one of one's own sessions",
    role: "reader",
  }),
  endOthers: call("POST", "/me/sessions/end-others", {
    summary: "End all of one's own sessions but this one",
    role: "reader",
    answer: ended,
  }),
  secondFactor: call("GET", "/me/second-factor", {
    summary: "Whether one signs in with a second factor",
    role: "reader",
    answer: secondFactorSchema,
  }),
  beginSecondFactor: call("POST", "/me/second-factor", {
    summary: "Begin a second factor (RFC 6238), with one's password; it counts once it is confirmed",
    role: "reader",
    body: withPasswordSchema,
    answer: secondFactorBegunSchema,
    status: 201,
    madeAt: "/me/second-factor",
    showsSecret: true,
  }),
  confirmSecondFactor: call("POST", "/me/second-factor/confirm", {
    summary: "Confirm a second factor with a code; its recovery codes are in this answer and nowhere else",
    role: "reader",
    body: withCodeSchema,
    answer: recoverySchema,
    showsSecret: true,
  }),
  renewRecovery: call("POST", "/me/second-factor/recovery", {
    summary: "Get new recovery codes in place of the earlier ones, with one's password",
    role: "reader",
    body: withPasswordSchema,
    answer: recoverySchema,
    showsSecret: true,
  }),
  endSecondFactor: call("POST", "/me/second-factor/end", {
    summary: "Remove one's second factor, with one's password",
    role: "reader",
    body: withPasswordSchema,
  }),
  tokens: call("GET", "/me/tokens", {
    summary: "List one's own API tokens",
    role: "reader",
    answer: listOf(tokenSchema),
  }),
  createToken: call("POST", "/me/tokens", {
    summary: "Make an API token of one's own, which never may more than oneself; its text is shown this once",
    role: "reader",
    body: tokenInputSchema,
    answer: tokenSchema,
    status: 201,
    showsSecret: true,
  }),
  deleteToken: call("DELETE", "/me/tokens/:id", {
    summary: "End one of one's own API tokens",
    role: "reader",
  }),
};
