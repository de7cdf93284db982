import { z } from "zod";
import { call } from "./ground/call.ts";

/** Where a piece of long work stands. */
export const jobSchema = z.object({
  id: z.string(),
  name: z.string(),
  state: z.enum(["running", "done", "failed", "stopped"]),
  done: z.int(),
  /** 0 while it is not known. */
  total: z.int(),
  /** What it came to; null until it is done. */
  result: z.unknown().nullable(),
  problem: z.unknown().nullable(),
});

export type Job = z.infer<typeof jobSchema>;

/** The calls about jobs. */
export const jobs = {
  read: call("GET", "/jobs/:job", {
    summary: "Where a piece of long work stands",
    role: "reader",
    answer: jobSchema,
  }),
  stop: call("DELETE", "/jobs/:job", {
    summary: "Stop a piece of long work; what it had not finished is as before",
    role: "reader",
  }),
};
