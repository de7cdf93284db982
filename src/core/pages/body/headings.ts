import { decodeHTML } from "entities/decode";
import { walkTags } from "../../links/start-tags.ts";

/** A heading of a page, and the id under which `#id` leads to it. */
export interface HeadingAnchor {
  id: string;
  words: string;
  level: number;
}

interface FoundHeading extends HeadingAnchor {
  /** Offset behind the tag's name, where an id is put in; undefined when the author wrote one. */
  insertAt: number | undefined;
}

/** The headings of a page in their order. One without an id of its own is called by its words, told apart by a number. */
export function headingAnchors(html: string): HeadingAnchor[] {
  return findHeadings(html).map(({ id, words, level }) => ({ id, words, level }));
}

/** Gives every heading its id; every other byte stays. */
export function withHeadingIds(html: string): string {
  const pieces: string[] = [];
  let from = 0;
  for (const { id, insertAt } of findHeadings(html)) {
    if (insertAt === undefined) continue;
    pieces.push(html.slice(from, insertAt), ` id="${id}"`);
    from = insertAt;
  }
  return from === 0 ? html : pieces.join("") + html.slice(from);
}

/** Words as an id: lower-case letters and digits of any script, hyphens between. */
export function anchorOf(words: string): string {
  return (
    words
      .normalize("NFKC")
      .toLowerCase()
      .replace(/[^\p{L}\p{M}\p{N}]+/gu, "-")
      .replace(/^-|-$/g, "")
      .slice(0, 80) || "heading"
  );
}

function findHeadings(html: string): FoundHeading[] {
  const found: FoundHeading[] = [];
  let open: (FoundHeading & { own: string | undefined }) | undefined;
  const taken = new Set<string>();
  const numbers = new Map<string, number>();
  const waiting: (FoundHeading & { own: string | undefined })[] = [];
  walkTags(html, {
    startTag(tag) {
      const level = /^h([2-6])$/.exec(tag.name)?.[1];
      if (!level) return;
      const own = tag.value("id") || undefined;
      const insertAt = own ? undefined : tag.start + 1 + tag.name.length;
      open = { id: own ?? "", own, words: "", level: Number(level), insertAt };
      if (own) taken.add(own);
      waiting.push(open);
    },
    endTag(name) {
      if (/^h[2-6]$/.test(name)) open = undefined;
    },
    text(text) {
      if (open) open.words += text;
    },
  });
  for (const heading of waiting) {
    heading.words = decodeHTML(heading.words).replace(/\s+/g, " ").trim();
    if (!heading.own) {
      const wanted = anchorOf(heading.words);
      let id = wanted;
      // Where the last of the same words left off: many headings of the same words would be counted through each time.
      let number = numbers.get(wanted) ?? 2;
      for (; taken.has(id); number += 1) id = `${wanted}-${number}`;
      numbers.set(wanted, number);
      taken.add(id);
      heading.id = id;
    }
    found.push(heading);
  }
  return found;
}
