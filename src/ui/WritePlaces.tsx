import type { Site } from "../core/objects/site.ts";
import { StationPlaces } from "./StationPlaces.tsx";

const PLACES = [
  ["write", "Pages"],
  ["blocks", "Shared blocks"],
  ["navigation", "Navigation"],
  ["files", "Files"],
  ["transfer", "In and out"],
] as const;

/** What is written besides pages, as words above each list. */
export function WritePlaces({ site, place }: { site: Site; place: (typeof PLACES)[number][0] }) {
  return <StationPlaces site={site} label="What is written" places={PLACES} place={place} />;
}
