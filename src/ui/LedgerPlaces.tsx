import type { Site } from "../core/objects/site.ts";
import { StationPlaces } from "./StationPlaces.tsx";

const PLACES = [
  ["ledger", "Links"],
  ["report", "Report"],
] as const;

/** What belongs to the ledger, as words above each screen. */
export function LedgerPlaces({ site, place }: { site: Site; place: (typeof PLACES)[number][0] }) {
  return <StationPlaces site={site} label="About the ledger" places={PLACES} place={place} />;
}
