import type { WrittenPageSearch } from "../../../core/pages/search.ts";
import type { Site } from "../../../core/sites/site.ts";

/** What the fields hold: empty for what is not said. */
export type SearchTyped = { noindex: boolean } & Record<Exclude<keyof WrittenPageSearch, "noindex">, string>;

export function typedSearch(search: WrittenPageSearch): SearchTyped {
  const { title = "", canonical = "", picture = "", language = "", noindex = false } = search;
  return { title, canonical, picture, language, noindex };
}

/** What is said, without what is not. */
export function saidSearch({ noindex, ...texts }: SearchTyped): WrittenPageSearch {
  const said = Object.entries(texts).filter(([, text]) => text.trim() !== "");
  return { ...Object.fromEntries(said), ...(noindex ? { noindex } : {}) };
}

/** The whole address of something on the site, for a browser that looks at it from elsewhere. */
export function addressOnSite({ hosts }: Site, address: string): string {
  const front = hosts.find(({ role }) => role === "primary")!.url;
  return URL.canParse(address, front) ? new URL(address, front).href : address;
}
