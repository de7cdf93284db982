import { snippetSchema, snippetAnswerSchema } from "../core/pages/page.ts";
import {
  creativeSchema,
  creativeInputSchema,
  creativePlaceSchema,
  placedCreativeSchema,
  creativeChangeSchema,
  changedCreativeSchema,
} from "../core/creatives/creative.ts";
import { call, listOf } from "./ground/call.ts";

/** The calls about creatives. */
export const creatives = {
  readSnippet: call("POST", "/sites/:site/snippets", {
    summary: "Read a partner's HTML snippet as text of ours",
    role: "editor",
    body: snippetSchema,
    answer: snippetAnswerSchema,
  }),
  ofProgram: call("GET", "/sites/:site/programs/:id/creatives", {
    summary: "What the program supplies, filled from its account, with the pages that use it",
    role: "reader",
    answer: listOf(creativeSchema),
    ofLedger: true,
  }),
  keep: call("POST", "/sites/:site/programs/:id/creatives", {
    summary: "Keep a snippet as a creative",
    role: "editor",
    body: creativeInputSchema,
    answer: creativeSchema,
    status: 201,
    madeAt: "/sites/:site/creatives/{id}",
  }),
  list: call("GET", "/sites/:site/creatives", {
    summary: "What all joined programs supply, ready to be put into a text",
    role: "reader",
    answer: listOf(creativeSchema),
    ofLedger: true,
  }),
  place: call("POST", "/sites/:site/creatives/:id/place", {
    summary: "Make a creative ready for one place, with a label of its own",
    role: "editor",
    body: creativePlaceSchema,
    answer: placedCreativeSchema,
  }),
  change: call("PUT", "/sites/:site/creatives/:id", {
    summary: "Change a creative, and every place that uses it",
    role: "editor",
    body: creativeChangeSchema,
    answer: changedCreativeSchema,
  }),
  delete: call("DELETE", "/sites/:site/creatives/:id", {
    summary: "Delete a creative; it can be restored",
    role: "editor",
  }),
  restore: call("POST", "/sites/:site/creatives/:id/restore", {
    summary: "Bring a creative back",
    role: "editor",
  }),
};
