import { buildLink, type LinkTerms } from "../programs/build-link.ts";
import type { Recogniser } from "../programs/recognise.ts";
import { fillSubId, fitSubId } from "../programs/sub-id.ts";

/** What links to a program become. */
export type LinkConversion =
  /** The same placements under other terms; `terms` may be another program's. */
  | { do: "reissue"; terms: LinkTerms }
  /** Tracked, where they are not. */
  | { do: "track"; terms: LinkTerms; subIdPattern: string }
  /** The plain address of the page, without tracking. */
  | { do: "plain" };

/** Where a link stands, for the label of one that is tracked for the first time. */
export interface LinkPlace {
  page: string;
  /** From 1. */
  position: number;
}

/**
 * What becomes of an address that leads to the program that `find` knows: the new address, the reason why it stays
 * (in an object), or undefined where there is nothing to change. A link that names no page, or only its path, is read
 * from the shop's entrance on.
 */
export function convertLink(
  address: string,
  find: Recogniser<{ entrance: string | undefined }>,
  conversion: LinkConversion,
  place: LinkPlace,
): string | { refused: string } | undefined {
  const found = find(address);
  if (!found) return undefined;
  const isOurs = found.tracking === "ours";
  const destination = wholeAddress(found.destination, found.program.entrance);
  if (destination === undefined)
    return { refused: "It names no page, and where the program’s shop begins is not known." };
  if (conversion.do === "plain") return isOurs ? destination : undefined;
  if (isOurs !== (conversion.do === "reissue")) return undefined;
  const subId =
    conversion.do === "reissue"
      ? (found.subId ?? "")
      : fitSubId(fillSubId(conversion.subIdPattern, place), conversion.terms.subIdLimit);
  const built = buildLink(conversion.terms, destination, subId);
  if (!built.ok) return { refused: built.reason };
  return built.address === address ? undefined : built.address;
}

// Some networks take the page as a path of the shop.
function wholeAddress(destination: string | null, entrance: string | undefined): string | undefined {
  if (destination !== null && /^https?:\/\//i.test(destination)) return destination;
  if (entrance === undefined || !URL.canParse(destination ?? "/", entrance)) return undefined;
  return new URL(destination ?? "/", entrance).href;
}
