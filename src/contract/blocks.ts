import { pageSummarySchema, blockInputSchema, pageSchema } from "../core/pages/page.ts";
import { TEXT_BODY, call, listOf } from "./ground/call.ts";

/** The calls about blocks. */
export const blocks = {
  list: call("GET", "/sites/:site/blocks", {
    summary: "List shared blocks; each is read, saved and published under pages/{id}",
    role: "reader",
    answer: listOf(pageSummarySchema),
  }),
  create: call("POST", "/sites/:site/blocks", {
    summary: "Make a shared block",
    role: "editor",
    body: blockInputSchema,
    maxBody: TEXT_BODY,
    answer: pageSchema,
    status: 201,
    madeAt: "/sites/:site/pages/{id}",
  }),
};
