import { listQuery } from "./ground/lists.ts";
import { z } from "zod";
import { MISS_GROUPS } from "../core/misses/miss.ts";
import {
  missSchema,
  missSummarySchema,
  missesAnswerSchema,
  missesAnsweredSchema,
  missesIgnoredSchema,
  missAnswerSchema,
  missResolvedSchema,
} from "../core/misses/miss.ts";
import { call, listOf } from "./ground/call.ts";

export const missesQuery = listQuery.extend({
  group: z.enum(MISS_GROUPS, "group is people, robots or scanners.").optional(),
  ignored: z.enum(["0", "1"]).optional(),
});

/** The calls about misses. */
export const misses = {
  list: call("GET", "/sites/:site/misses", {
    summary: "List misses that nobody has dealt with",
    role: "reader",
    query: missesQuery,
    answer: listOf(missSchema),
  }),
  summary: call("GET", "/sites/:site/misses/summary", {
    summary: "Misses by who asked, patterns that would answer many, and what a redirect of all would hide",
    role: "reader",
    answer: missSummarySchema,
  }),
  answer: call("POST", "/sites/:site/misses/answer", {
    summary: "Answer several misses with redirects",
    role: "editor",
    body: missesAnswerSchema,
    answer: missesAnsweredSchema,
  }),
  ignore: call("POST", "/sites/:site/misses/ignore", {
    summary: "Ignore misses, or list them again",
    role: "editor",
    body: missesIgnoredSchema,
  }),
  resolve: call("POST", "/sites/:site/misses/:id/resolve", {
    summary: "Answer a miss with a redirect",
    role: "editor",
    body: missAnswerSchema,
    answer: missResolvedSchema,
    status: 201,
    madeAt: "/sites/:site/routes/{route.id}",
  }),
};
