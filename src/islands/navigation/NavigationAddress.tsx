import type { NavigationItem } from "../../core/navigation/navigation.ts";
import type { Site } from "../../core/sites/site.ts";
import { KIND_WORD } from "../../ui/links/Knot.tsx";
import { DestinationField } from "../pages/compose/destination/DestinationField.tsx";
import { useDestinations, type Destination } from "../pages/compose/destination/use-destinations.ts";
import * as say from "./words.ts";

// Pages are chosen by their title beside it; short links and files are found by their words.
const OFFERED: Partial<Record<NavigationItem["kind"], readonly Destination["kind"][]>> = {
  route: ["route"],
  file: ["file"],
};

/** Where an entry of the navigation leads, when that is no page: an address, or a short link or file found by its words. */
export function NavigationAddress(props: {
  site: Site;
  item: Pick<NavigationItem, "kind" | "address">;
  onChange: (address: string | undefined) => void;
}) {
  const { site, item, onChange } = props;
  const typed = item.address ?? "";
  const { found } = useDestinations(site, typed, []);
  const kinds = OFFERED[item.kind] ?? ["route", "file"];
  return (
    <DestinationField
      label={item.kind === "heading" ? say.orAnAddressItLandsOn : say.address}
      placeholder={say.pasteAnAddressOrTypeWords(kinds.map((kind) => KIND_WORD[kind]).join(", "))}
      focus={false}
      value={typed}
      found={found.filter(({ kind, address }) => kinds.includes(kind) && address !== typed)}
      error={undefined}
      hint={undefined}
      onChange={(text) => onChange(text || undefined)}
      onPick={({ address }) => onChange(address)}
    />
  );
}
