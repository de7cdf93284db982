/** The last signs of paths, whatever their letter case, by which routes are parted among nginx's maps; all others stand in one more. */
export const LAST_SIGNS: readonly string[] = [
  ..."0123456789",
  "e",
  "s",
  "t",
  "mn",
  "dl",
  "ry",
  "abcfghijkopquvwxz",
];

const PARTS: readonly string[] = [...LAST_SIGNS, ""];
const HOST_MAPS = PARTS.map((_, at) => `host_${at}`);
const SITE_MAPS = PARTS.map((_, at) => `site_${at}`);

/**
 * The maps of routes, by their names. nginx compares what it reads into a map with ten thousand lists of what it has read: of a
 * million in one map that took ten seconds, and a tenth of it in eighteen (`npm run bench -- edge`).
 */
export const NGINX_MAPS: readonly string[] = [...HOST_MAPS, ...SITE_MAPS];

const PART_OF = new Map(LAST_SIGNS.flatMap((signs, at) => [...signs].map((sign) => [sign, at] as const)));

/** The map that an address belongs to; of every host of its site where `host` is null. */
export function nginxMapOf(host: string | null, key: string): string {
  const part = PART_OF.get(key.at(-1)!.toLowerCase()) ?? LAST_SIGNS.length;
  return (host === null ? SITE_MAPS : HOST_MAPS)[part]!;
}
