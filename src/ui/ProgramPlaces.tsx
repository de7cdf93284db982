import type { Site } from "../core/objects/site.ts";
import { StationPlaces } from "./StationPlaces.tsx";

const PLACES = [
  ["programs", "Programs"],
  ["catalogue", "Find a program"],
  ["earnings", "Earnings"],
] as const;

/** What belongs to programs, as words above each screen. */
export function ProgramPlaces({ site, place }: { site: Site; place: (typeof PLACES)[number][0] }) {
  return <StationPlaces site={site} label="About programs" places={PLACES} place={place} />;
}
