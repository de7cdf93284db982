import { diffWordsWithSpace } from "diff";
import { findLinks, type LinkInHtml } from "../links/find.ts";
import { walkTags } from "../links/start-tags.ts";
import { decodeHTML } from "entities/decode";

/** A run of words that two texts share, or that only one of them has. */
export interface WordChange {
  text: string;
  change: "same" | "added" | "removed";
}

/** A link that differs between two texts. */
export interface LinkChange {
  change: "added" | "removed" | "changed";
  words: string;
  before: string | undefined;
  after: string | undefined;
}

const BLOCKS = new Set("p h2 h3 h4 li blockquote pre figure figcaption hr".split(" "));

/** The words of a page as plain text, an empty line between paragraphs. */
export function pageText(html: string): string {
  const lines: string[] = [""];
  walkTags(html, {
    startTag(tag) {
      if (BLOCKS.has(tag.name) && lines.at(-1) !== "") lines.push("");
      if (tag.name === "br") lines[lines.length - 1] += " ";
    },
    text(text) {
      lines[lines.length - 1] += text;
    },
  });
  return decodeHTML(lines.filter((line) => line.trim() !== "").join("\n\n"));
}

/** What the second text has otherwise than the first, word by word. */
export function wordDifference(before: string, after: string): WordChange[] {
  return diffWordsWithSpace(pageText(before), pageText(after)).map(({ value, added, removed }) => ({
    text: value,
    change: added ? "added" : removed ? "removed" : "same",
  }));
}

/**
 * Which links the second text has otherwise than the first. Links are paired by their words first and then by
 * their address, each once, so that a link that only moved is no change.
 */
export function linkDifference(before: string, after: string): LinkChange[] {
  const left = findLinks(before);
  const open = new Set(left);
  const changes: LinkChange[] = [];
  const unpaired: LinkInHtml[] = [];
  for (const link of findLinks(after)) {
    const same = take(open, (one) => one.words === link.words && told(one) === told(link));
    if (!same) unpaired.push(link);
  }
  for (const link of unpaired) {
    const pair = take(open, (one) => one.words === link.words) ?? take(open, (one) => one.href === link.href);
    changes.push({
      change: pair ? "changed" : "added",
      words: link.words,
      before: pair && told(pair),
      after: told(link),
    });
  }
  for (const link of open)
    changes.push({ change: "removed", words: link.words, before: told(link), after: undefined });
  return changes;
}

function take(open: Set<LinkInHtml>, fits: (link: LinkInHtml) => boolean): LinkInHtml | undefined {
  for (const link of open) {
    if (!fits(link)) continue;
    open.delete(link);
    return link;
  }
  return undefined;
}

function told({ href, title, rel, target, override }: LinkInHtml): string {
  const more = Object.entries({ title, rel, target, override }).flatMap(([name, value]) =>
    value === null ? [] : [`${name}=“${value}”`],
  );
  return [href, ...more].join(" ");
}
