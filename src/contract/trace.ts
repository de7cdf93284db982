import { TRACE_VERDICTS } from "../core/trace/trace.ts";
import { z } from "zod";
import { call } from "./ground/call.ts";

export const traceQuestionSchema = z.strictObject({
  addresses: z
    .array(z.string().max(8192, "An address of more than 8,192 characters is not traced."))
    .min(1, "Which addresses? Give at least one.")
    .max(10_000, "At most 10,000 addresses are traced at once."),
  /** Whether outside hosts are asked; false stops where an address leaves the site. */
  outside: z.boolean().default(true),
});

const hopSchema = z.object({
  address: z.string(),
  status: z.int().nullable(),
  by: z.enum(["route", "page", "file", "spelling", "miss", "elsewhere", "outside"]),
  id: z.string().optional(),
  note: z.string().optional(),
  ms: z.number().optional(),
});

const traceAnswerSchema = z.object({
  results: z.array(
    z.object({
      address: z.string(),
      hops: z.array(hopSchema),
      end: z.string().nullable(),
      verdict: z.enum(TRACE_VERDICTS),
      note: z.string(),
      tracking: z.array(
        z.object({
          name: z.string(),
          value: z.string(),
          arrived: z.boolean(),
          lastSeen: z.string().optional(),
        }),
      ),
    }),
  ),
});

/** The calls about trace. */
export const trace = {
  trace: call("POST", "/sites/:site/routes/trace", {
    summary: "Follow addresses hop by hop; with “Prefer: respond-async” as a job",
    role: "reader",
    body: traceQuestionSchema,
    answer: traceAnswerSchema,
    job: "preferred",
  }),
  health: call("POST", "/sites/:site/routes/health", {
    summary: "Look at destinations now, as a job; all of them unless ids are given",
    role: "editor",
    body: z.strictObject({
      ids: z
        .array(z.string().regex(/^\d{1,18}$/))
        .max(5000)
        .optional(),
    }),
    answer: z.object({ checked: z.int(), bad: z.int() }),
    job: "always",
  }),
};
