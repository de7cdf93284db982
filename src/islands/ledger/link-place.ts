import type { Site } from "../../core/sites/site.ts";
import { addressOfWords } from "../../core/address/text-fragment.ts";
import { isElsewhere, type LedgerLink } from "../../core/ledger/ledger.ts";
import { addressOnOrigin } from "../../core/origin/place.ts";
import { screenAddress } from "../../ui/frame/frame.ts";
import * as say from "./words.ts";

/** The words of a link, or what stands for them. */
export function wordsOf({ anchor, anchorKind }: Pick<LedgerLink, "anchor" | "anchorKind">): string {
  return anchor || (anchorKind === "image" ? say.pictureWithoutWords : say.noWords);
}

/** Where the words of a link stand, in the workspace or in their page elsewhere; the way back to this view of the ledger goes along. */
export function wordsPlace(
  site: Site,
  { place, page, pageId, ordinal, edition, anchor }: LedgerLink,
): string {
  if (isElsewhere(place) && site.origin)
    return addressOfWords(addressOnOrigin(place === "read" ? page : "", site.origin.address), anchor);
  if (place === "navigation") return `/${site.key}/navigation`;
  const { pathname, search } = screenAddress();
  const query = new URLSearchParams({
    ...(edition === "published" ? { view: "preview", of: "published" } : { link: String(ordinal) }),
    back: pathname + search,
  });
  return `/${site.key}/pages/${pageId}?${query}`;
}
