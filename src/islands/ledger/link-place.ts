import type { LedgerLink } from "../../core/ledger/ledger.ts";
import type { Site } from "../../core/sites/site.ts";
import { screenAddress } from "../../ui/frame/frame.ts";
import * as say from "./words.ts";

/** The words of a link, or what stands for them. */
export function wordsOf({ anchor, anchorKind }: Pick<LedgerLink, "anchor" | "anchorKind">): string {
  return anchor || (anchorKind === "image" ? say.pictureWithoutWords : say.noWords);
}

/** Where the words of a link stand in the workspace; the way back to this view of the ledger goes along. */
export function wordsPlace(site: Site, { place, pageId, ordinal, edition }: LedgerLink): string {
  if (place === "navigation") return `/${site.key}/navigation`;
  const { pathname, search } = screenAddress();
  const query = new URLSearchParams({
    ...(edition === "published" ? { view: "preview", of: "published" } : { link: String(ordinal) }),
    back: pathname + search,
  });
  return `/${site.key}/pages/${pageId}?${query}`;
}
