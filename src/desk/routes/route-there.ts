import type { QueryMode } from "../../core/routes/choices.ts";
import { inEffect, type ScheduledRoute } from "../../core/routes/chain/in-effect.ts";
import type { RouteAnswer } from "../../core/routes/chain/own-site.ts";
import { withParameters } from "../../core/routes/chain/parameters.ts";
import { headerSafe } from "../../core/routes/chain/header-safe.ts";
import type { RouteThereRow } from "../../store/routes/places.ts";

/** A route as it stands at one of its places. */
export interface RouteThere extends ScheduledRoute {
  id: string;
  /** `*`: every host of the site. */
  host: string;
  /** The stored key of the place. */
  key: string;
  address: string;
  caseInsensitive: boolean;
  enabled: boolean;
  query: QueryMode;
}

/** A row with its limits as numbers and its parameters behind its destinations. */
export function routeThere({ parameters, from, until, ...row }: RouteThereRow): RouteThere {
  const leading = (destination: string | null): string | null =>
    destination === null ? null : headerSafe(withParameters(destination, parameters));
  return {
    ...row,
    destination: leading(row.destination),
    endDestination: leading(row.endDestination),
    from: from?.getTime() ?? 0,
    until: until?.getTime() ?? Infinity,
  };
}

/** What a route answers at a moment; undefined when it is off or not in its time. */
export function answerOfRoute(
  route: RouteThere,
  now: number,
  captures: readonly string[] = [],
): RouteAnswer | undefined {
  const effect = route.enabled ? inEffect(route, now, captures) : undefined;
  return effect && { by: "route", id: route.id, query: route.query, ...effect };
}
