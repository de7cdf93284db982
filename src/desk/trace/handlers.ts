import type { trace as contract } from "../../contract/trace.ts";
import { asJob, asPreferred, type Handlers } from "../ground/http/handler.ts";
import { healthJob, traceJob } from "./trace-jobs.ts";
import type { WithStore, WithDeliveryPort, WithOutgoing } from "../ground/parts.ts";
import type { WithJobs } from "../jobs/jobs.ts";

/** What the calls about trace do. */
export const traceHandlers: Handlers<
  typeof contract,
  WithStore & WithDeliveryPort & WithOutgoing & WithJobs
> = {
  trace: (call) => asPreferred(call, traceJob, call.body),
  health: (call) => asJob(call, healthJob, call.body),
};
