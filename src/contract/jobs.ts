import { z } from "zod";
import { call, listOf } from "./ground/call.ts";

/** Where a piece of long work stands. */
export const jobSchema = z.object({
  id: z.string(),
  name: z.string(),
  /** `running` is also what waits for its turn. */
  state: z.enum(["running", "done", "failed", "stopped"]),
  done: z.int(),
  /** 0 while it is not known. */
  total: z.int(),
  /** What it came to; null until it is done. */
  result: z.unknown().nullable(),
  problem: z.unknown().nullable(),
  /** Why it is not going on at the moment; empty when it is. */
  note: z.string(),
  createdAt: z.string(),
});

const jobSummarySchema = jobSchema.omit({ result: true, problem: true });

export type Job = z.infer<typeof jobSchema>;
export type JobSummary = z.infer<typeof jobSummarySchema>;

/** The calls about jobs. */
export const jobs = {
  list: call("GET", "/sites/:site/jobs", {
    summary: "One's own long work at a site of the last day, the newest first",
    role: "reader",
    answer: listOf(jobSummarySchema),
  }),
  read: call("GET", "/jobs/:job", {
    summary: "Where a piece of long work stands",
    role: "reader",
    answer: jobSchema,
  }),
  stop: call("DELETE", "/jobs/:job", {
    summary: "Stop a piece of long work; what it had not finished is as before",
    role: "reader",
  }),
  retry: call("POST", "/jobs/:job/retry", {
    summary: "Begin a piece of long work anew that failed or was stopped",
    role: "reader",
    answer: jobSchema,
  }),
};
