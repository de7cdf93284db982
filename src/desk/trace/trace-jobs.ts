import type { trace as contract } from "../../contract/trace.ts";
import type { BodyOf } from "../../contract/ground/call.ts";
import type { WithDeliveryPort, WithOutgoing, WithStore } from "../ground/parts.ts";
import type { JobKind } from "../jobs/job-kind.ts";
import { checkHealth } from "./route-health.ts";
import { traceAddresses } from "./trace-routes.ts";

type Tracing = WithStore & WithDeliveryPort & WithOutgoing;

/** Follows addresses to their ends. */
export const traceJob: JobKind<
  Tracing,
  BodyOf<(typeof contract)["trace"]>,
  Awaited<ReturnType<typeof traceAddresses>>
> = {
  name: "routes.trace",
  run: (desk, { site, input }, progress) => traceAddresses(desk, site, input, progress),
};

/** Looks at the destinations of a site's routes. */
export const healthJob: JobKind<
  Tracing,
  BodyOf<(typeof contract)["health"]>,
  { checked: number; bad: number }
> = {
  name: "routes.health",
  run: (desk, { site, input }, progress) => checkHealth(desk, site, input.ids, progress),
  oneOf: (siteId) => `health ${siteId}`,
};
