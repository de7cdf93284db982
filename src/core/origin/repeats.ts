import type { Area } from "./reduce.ts";

/** A block by the key of its words and links, and where on its page it stands. */
export interface KeyedBlock {
  key: string;
  area: Area;
}

/** A page as its repeats are looked for. */
export interface KeyedPage {
  /** The part of the site that it is of: the first step of its path. */
  part: string;
  blocks: readonly KeyedBlock[];
}

/** Blocks that stand together on many pages: a menu, a footer, a side box. */
export interface RepeatedPart {
  area: Area;
  /** Keys of its blocks, in the order in which they stand. */
  keys: string[];
  /** On how many pages most of it stands. */
  pages: number;
}

/** What stands on fewer pages is theirs. */
const FEWEST_PAGES = 3;
/** Of all pages, the share on which words within the text must stand to be no page's own. */
const SHARE_OF_ALL = 0.1;
/** The same for what stands in a landmark of its own. */
const SHARE_IN_LANDMARK = 0.02;
/** Of one part of the site, the share that makes a box of that part. */
const SHARE_OF_PART = 0.6;
/** Two blocks stand together where they follow each other on so much of the pages of the more frequent one. */
const TOGETHER = 0.6;

/**
 * What stands on many pages, told from what is a page's own by how often it comes: by itself where it stands on a tenth
 * of all pages (in a landmark a fiftieth) or on most pages of one part of the site. Blocks that follow each other nearly
 * always are one part; an entry that is missing on its own page (a menu's, of the page one is on) does not take it apart.
 * Takes time in proportion to the blocks.
 */
export function repeatedParts(pages: readonly KeyedPage[]): RepeatedPart[] {
  const seen = countBlocks(pages);
  const sizes = partSizes(pages);
  const repeated = new Map([...seen].filter(([, block]) => isRepeated(block, pages.length, sizes)));
  const groups = new Joined(repeated.keys());
  for (const [pair, count] of neighbours(pages, repeated)) {
    const [one, other] = pair.split(" ") as [string, string];
    const [a, b] = [repeated.get(one)!, repeated.get(other)!];
    if (a.area === b.area && count >= TOGETHER * Math.max(a.pages, b.pages)) groups.join(one, other);
  }
  return groups
    .all()
    .map((keys) => partOf(keys, repeated))
    .sort((a, b) => b.pages - a.pages || a.keys[0]!.localeCompare(b.keys[0]!));
}

interface CountedBlock {
  area: Area;
  pages: number;
  /** Sum of its places on its pages, from which its usual one follows. */
  places: number;
  parts: Map<string, number>;
}

function countBlocks(pages: readonly KeyedPage[]): Map<string, CountedBlock> {
  const seen = new Map<string, CountedBlock>();
  for (const { part, blocks } of pages) {
    const here = new Set<string>();
    for (const [place, { key, area }] of blocks.entries()) {
      if (here.has(key)) continue;
      here.add(key);
      const block = seen.get(key) ?? { area, pages: 0, places: 0, parts: new Map<string, number>() };
      seen.set(key, block);
      block.pages += 1;
      block.places += place;
      block.parts.set(part, (block.parts.get(part) ?? 0) + 1);
    }
  }
  return seen;
}

function partSizes(pages: readonly KeyedPage[]): Map<string, number> {
  const sizes = new Map<string, number>();
  for (const { part } of pages) sizes.set(part, (sizes.get(part) ?? 0) + 1);
  return sizes;
}

function isRepeated(
  { area, pages, parts }: CountedBlock,
  all: number,
  sizes: ReadonlyMap<string, number>,
): boolean {
  if (pages < FEWEST_PAGES) return false;
  const share = area === "text" ? SHARE_OF_ALL : SHARE_IN_LANDMARK;
  if (pages >= share * all) return true;
  return [...parts].some(
    ([part, count]) => count >= FEWEST_PAGES && count >= SHARE_OF_PART * sizes.get(part)!,
  );
}

// How often one repeated block follows another, at once or with one block between them.
function neighbours(
  pages: readonly KeyedPage[],
  repeated: ReadonlyMap<string, CountedBlock>,
): Map<string, number> {
  const counts = new Map<string, number>();
  for (const { blocks } of pages) {
    const here = new Set<string>();
    for (let at = 0; at < blocks.length; at += 1) {
      const { key } = blocks[at]!;
      if (!repeated.has(key)) continue;
      const next = [blocks[at + 1], blocks[at + 2]].find((block) => block && repeated.has(block.key));
      if (next && next.key !== key) here.add(`${key} ${next.key}`);
    }
    for (const pair of here) counts.set(pair, (counts.get(pair) ?? 0) + 1);
  }
  return counts;
}

function partOf(keys: readonly string[], repeated: ReadonlyMap<string, CountedBlock>): RepeatedPart {
  const place = (key: string): number => repeated.get(key)!.places / repeated.get(key)!.pages;
  const ordered = [...keys].sort((a, b) => place(a) - place(b));
  const counts = ordered.map((key) => repeated.get(key)!.pages).sort((a, b) => b - a);
  return {
    area: repeated.get(ordered[0]!)!.area,
    keys: ordered,
    pages: counts[Math.floor(counts.length / 2)]!,
  };
}

/** Keys that were found to belong together. */
class Joined {
  private readonly above: Map<string, string>;
  constructor(keys: Iterable<string>) {
    this.above = new Map(Array.from(keys, (key) => [key, key]));
  }
  private top(key: string): string {
    let at = key;
    while (this.above.get(at) !== at) {
      const up = this.above.get(this.above.get(at)!)!;
      this.above.set(at, up);
      at = up;
    }
    return at;
  }
  join(one: string, other: string): void {
    this.above.set(this.top(one), this.top(other));
  }
  all(): string[][] {
    const groups = new Map<string, string[]>();
    for (const key of this.above.keys()) {
      const top = this.top(key);
      const group = groups.get(top);
      if (group) group.push(key);
      else groups.set(top, [key]);
    }
    return [...groups.values()];
  }
}
