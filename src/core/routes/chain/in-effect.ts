import type { AfterEnd, RouteStatus } from "../choices.ts";
import { withCaptures } from "../match/captures.ts";

/** What of a route depends on the moment. Times are milliseconds since the epoch; 0 and Infinity where there is no limit. */
export interface ScheduledRoute {
  status: RouteStatus;
  destination: string | null;
  from: number;
  until: number;
  afterEnd: AfterEnd;
  endDestination: string | null;
}

/**
 * What a route answers at a moment: undefined when it is as if it were not there, before its time, after it, or
 * because a capture cannot stand where its author put it. The last moment itself is outside.
 */
export function inEffect(
  route: ScheduledRoute,
  now: number,
  captures: readonly string[] = [],
): { status: RouteStatus; destination: string | null } | undefined {
  if (now < route.from) return undefined;
  if (now < route.until) {
    if (route.destination === null) return { status: route.status, destination: null };
    const destination = withCaptures(route.destination, captures);
    return destination === undefined ? undefined : { status: route.status, destination };
  }
  if (route.afterEnd === "gone") return { status: 410, destination: null };
  if (route.afterEnd === "destination" && route.endDestination !== null) {
    return { status: route.status === 410 ? 302 : route.status, destination: route.endDestination };
  }
  return undefined;
}
