import type { trace as contract } from "../../contract/trace.ts";
import { asPreferred, Accepted, type Handlers } from "../ground/http/handler.ts";
import { traceAddresses } from "./trace-routes.ts";
import { checkHealth } from "./route-health.ts";
import type { WithStore, WithDeliveryPort, WithOutgoing } from "../ground/parts.ts";
import type { WithJobs } from "../jobs/jobs.ts";

/** What the calls about trace do. */
export const traceHandlers: Handlers<
  typeof contract,
  WithStore & WithDeliveryPort & WithOutgoing & WithJobs
> = {
  trace: (call) =>
    asPreferred(call, "routes.trace", (progress) =>
      traceAddresses(call.desk, call.site, call.body, progress),
    ),
  health: async ({ desk, actor, site, body }) =>
    new Accepted(
      desk.jobs.start(actor.name, "routes.health", (progress) => checkHealth(desk, site, body.ids, progress)),
    ),
};
