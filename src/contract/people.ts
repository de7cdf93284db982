import { tokenSchema, tokenInputSchema } from "../core/people/person.ts";
import { call, listOf } from "./ground/call.ts";

/** The calls about people. */
export const people = {
  tokens: call("GET", "/tokens", {
    summary: "List API tokens",
    role: "owner",
    answer: listOf(tokenSchema),
  }),
  createToken: call("POST", "/tokens", {
    summary: "Make an API token; its text is shown this once",
    role: "owner",
    body: tokenInputSchema,
    answer: tokenSchema,
    status: 201,
  }),
  deleteToken: call("DELETE", "/tokens/:id", {
    summary: "End an API token",
    role: "owner",
  }),
};
