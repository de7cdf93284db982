/** A document that machines read of a site, by the path where they look for it. */
export type MachineDocument =
  | { kind: "robots" }
  /** The site's icon; `size`: its width and height in pixels. */
  | { kind: "icon"; size: number }
  /** The site's sitemap; `part`: one of several, from 1. */
  | { kind: "sitemap"; part?: number }
  /** The feed of the site, or of a category. */
  | { kind: "feed"; category: string | null };

/** The paths where browsers and phones look for an icon, and its size there. */
const ICON_SIZES: ReadonlyMap<string, number> = new Map([
  ["/favicon.ico", 48],
  ["/apple-touch-icon.png", 180],
]);
const SITEMAP = /^\/sitemap(?:-([1-9]\d{0,3}))?\.xml$/;
const FEED = /^\/feed(?:\/([^/]+))?\.atom$/;

/** The document for machines that is answered at a path key where no route, page or file is; undefined: none. */
export function machineDocument(key: string): MachineDocument | undefined {
  if (key === "/robots.txt") return { kind: "robots" };
  const size = ICON_SIZES.get(key);
  if (size !== undefined) return { kind: "icon", size };
  const map = SITEMAP.exec(key);
  if (map) return { kind: "sitemap", ...(map[1] ? { part: Number(map[1]) } : {}) };
  const feed = FEED.exec(key);
  return feed ? { kind: "feed", category: feed[1] === undefined ? null : decoded(feed[1]) } : undefined;
}

/** The path of the feed of a site, or of one of its categories. */
export function feedPath(category: string | null): string {
  return category === null ? "/feed.atom" : `/feed/${encodeURIComponent(category)}.atom`;
}

// The signs of a path key are well-encoded, but need not be UTF-8.
function decoded(part: string): string {
  try {
    return decodeURIComponent(part);
  } catch {
    return part; // no category is called so
  }
}
