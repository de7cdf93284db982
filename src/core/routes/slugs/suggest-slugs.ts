import { before } from "../../text/cut.ts";
import { distance } from "fastest-levenshtein";

/** A slug and why it is worth choosing. */
export interface SlugSuggestion {
  slug: string;
  reason: string;
}

const FILLER = new Set(
  "a an and at by for from in into is it of on or our out the this to with your you how what why page item product products article articles post posts shop store index html htm php aspx en us uk www com http https ref id view detail details go click track c p dp offer offers".split(
    " ",
  ),
);
const MAX_LETTERS = 24;

/**
 * Up to three slugs from the destination's own words and the title: short, speakable, none that is taken or
 * one letter away from an existing one. `existing` are the slugs of the same host, in lower case.
 */
export function suggestSlugs(
  destination: string,
  title: string,
  existing: readonly string[],
): SlugSuggestion[] {
  const words = unique([...wordsOf(title), ...wordsOf(pathWords(destination))]);
  const host = hostWord(destination);
  const candidates: SlugSuggestion[] = [];
  const offer = (slug: string | undefined, reason: string): void => {
    if (slug && slug.length >= 3 && slug.length <= MAX_LETTERS) candidates.push({ slug, reason });
  };
  const longestWord = [...words].sort((a, b) => b.length - a.length)[0];
  offer(longestWord, "one word, easy to say");
  offer(words.slice(0, 2).join("-"), "two words of the title or address");
  offer(host && longestWord && host !== longestWord ? `${host}-${longestWord}` : host, "says whose it is");
  offer(words.slice(0, 3).join("-"), "three words, hard to mistake");
  offer(words[0], "the first word");
  offer(host, "the name of the destination");

  const free = candidates.filter((candidate) => !isConfusable(candidate.slug, existing));
  const chosen = firstOfEach(free).slice(0, 3);
  if (chosen.length > 0) return chosen;
  const stem = words[0] ?? host ?? "link";
  return [2, 3, 4, 5, 6, 7, 8, 9]
    .map((number) => ({ slug: `${stem}-no-${number}`, reason: "the plain word is taken" }))
    .filter(({ slug }) => !existing.includes(slug))
    .slice(0, 1);
}

/** True when the slug is taken, or one slip of the finger away from one that is. */
export function isConfusable(slug: string, existing: readonly string[]): boolean {
  const lower = slug.toLowerCase();
  return existing.some((other) => Math.abs(other.length - lower.length) <= 1 && distance(other, lower) <= 1);
}

function pathWords(destination: string): string {
  const path = URL.canParse(destination) ? new URL(destination).pathname : before(destination, "?#");
  return safelyDecoded(path).split("/").filter(Boolean).reverse().join(" ");
}

function safelyDecoded(path: string): string {
  try {
    return decodeURIComponent(path);
  } catch {
    return path.replace(/%[0-9A-F]{2}/gi, " ");
  }
}

function wordsOf(text: string): string[] {
  const plain = text.normalize("NFKD").replace(/\p{M}/gu, "").toLowerCase().replace(/['’]/g, "");
  return plain
    .split(/[^a-z0-9]+/)
    .filter(
      (word) =>
        word.length > 2 && word.length < 16 && !FILLER.has(word) && !/^\d|\d{3}|^[^aeiouy]+$/.test(word),
    );
}

function hostWord(destination: string): string | undefined {
  if (!URL.canParse(destination)) return undefined;
  const labels = new URL(destination).hostname.split(".").filter((label) => label !== "www");
  return labels.at(-2)?.split("-")[0];
}

function unique(words: readonly string[]): string[] {
  return [...new Set(words)];
}

function firstOfEach(suggestions: readonly SlugSuggestion[]): SlugSuggestion[] {
  return suggestions.filter(
    (one, index) => suggestions.findIndex((other) => other.slug === one.slug) === index,
  );
}
