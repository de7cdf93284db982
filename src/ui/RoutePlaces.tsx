import type { Site } from "../core/objects/site.ts";
import { StationPlaces } from "./StationPlaces.tsx";

const PLACES = [
  ["routes", "Routes"],
  ["misses", "Misses"],
  ["mends", "To mend"],
  ["trace", "Trace"],
  ["routes-in-out", "In and out"],
] as const;

/** What belongs to routes, as words above each screen. */
export function RoutePlaces({ site, place }: { site: Site; place: (typeof PLACES)[number][0] }) {
  return <StationPlaces site={site} label="About routes" places={PLACES} place={place} />;
}
