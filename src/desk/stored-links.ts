import { compareKey } from "../core/address/compare.ts";
import { destinationKind } from "../core/address/classify.ts";
import { findLinks } from "../core/links/find.ts";
import type { StoredLink } from "../store/models.ts";
import type { Desk } from "./desk.ts";
import { lookUpPlaces } from "./places.ts";
import type { OpenSite } from "./sites.ts";

/** The links of a page's HTML as lists and searches need them, and the keys by which their destinations are found. */
export async function storedLinks(
  desk: Desk,
  site: OpenSite,
  html: string,
): Promise<{ links: StoredLink[]; linkKeys: string[] }> {
  const found = findLinks(html);
  const sight = (
    await lookUpPlaces(
      desk,
      site,
      found.map(({ href }) => href),
    )
  ).sight();
  return {
    links: found.map(({ href, words }) => ({ href, words, kind: destinationKind(href, sight) })),
    linkKeys: [...new Set(found.map(({ href }) => compareKey(href)))],
  };
}
