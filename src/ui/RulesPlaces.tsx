import type { Site } from "../core/objects/site.ts";
import { StationPlaces } from "./StationPlaces.tsx";

const PLACES = [
  ["rules", "Rules"],
  ["disclosure", "Disclosure"],
  ["earlier-rules", "Earlier sets"],
] as const;

/** What belongs to rules, as words above each screen. */
export function RulesPlaces({ site, place }: { site: Site; place: (typeof PLACES)[number][0] }) {
  return <StationPlaces site={site} label="About rules" places={PLACES} place={place} />;
}
