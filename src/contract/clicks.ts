import { z } from "zod";
import { CLICK_CLASSES } from "../core/clicks/record.ts";
import {
  clicksQuestionSchema,
  clicksAnswerSchema,
  latestClicksSchema,
  clicksExportQuestionSchema,
} from "../core/clicks/clicks.ts";
import { call } from "./ground/call.ts";

export const latestClicksQuery = z.object({
  from: z.iso.date().optional(),
  to: z.iso.date().optional(),
  route: z
    .string()
    .regex(/^\d{1,18}$/)
    .optional(),
  class: z.enum(CLICK_CLASSES, `class is one of ${CLICK_CLASSES.join(", ")}.`).optional(),
  limit: z.coerce.number().int().min(1).max(500).default(100),
});

/** The calls about clicks. */
export const clicks = {
  ask: call("GET", "/sites/:site/clicks", {
    summary: "Clicks by day, route, referrer, page, device or hour",
    role: "reader",
    query: clicksQuestionSchema,
    answer: clicksAnswerSchema,
  }),
  latest: call("GET", "/sites/:site/clicks/latest", {
    summary: `Single clicks, newest first; by class: ${CLICK_CLASSES.join(", ")}`,
    role: "reader",
    query: latestClicksQuery,
    answer: latestClicksSchema,
  }),
  export: call("GET", "/sites/:site/clicks/export", {
    summary: "Clicks as CSV: every single one, or the counts of a grouping",
    role: "reader",
    query: clicksExportQuestionSchema,
    file: { media: ["text/csv"] },
  }),
};
