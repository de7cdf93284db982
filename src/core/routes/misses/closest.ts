import { distance } from "fastest-levenshtein";

/** An address that a reader may have meant. */
export interface Candidate {
  address: string;
  title: string;
  /** Where to send a reader who meant it, when that is more than the address: another host's full address. */
  destination?: string;
}

/** A candidate, and why it is close. */
export interface Close extends Candidate {
  reason: string;
  /** 0 is the same; lower is closer. */
  score: number;
}

const GOOD_ENOUGH = 2;
const CLEARLY_BETTER = 1;

/**
 * The closest of the known addresses to one that was missed, best first: few slips of the finger, or the
 * same words in another place. Compared without letter case; at most `most`, none that is merely similar.
 */
export function closestAddresses(missed: string, known: Iterable<Candidate>, most: number): Close[] {
  const wanted = missed.toLowerCase();
  const words = lastWords(wanted);
  const scored: Close[] = [];
  for (const candidate of known) {
    const likeness = likenessOf(wanted, words, candidate.address.toLowerCase());
    if (likeness) scored.push({ ...candidate, ...likeness });
  }
  return scored.sort((a, b) => a.score - b.score || a.address.length - b.address.length).slice(0, most);
}

/** The one address that was surely meant: a slip or two away, with no other nearly as close. Undefined when there is none. */
export function closestMatch(close: readonly Close[]): Close | undefined {
  const [best, next] = close;
  if (!best || best.score > GOOD_ENOUGH) return undefined;
  return next && next.score - best.score < CLEARLY_BETTER ? undefined : best;
}

function likenessOf(
  wanted: string,
  words: readonly string[],
  address: string,
): { score: number; reason: string } | undefined {
  const allowed = Math.max(1, Math.floor(wanted.length / 5));
  if (Math.abs(address.length - wanted.length) <= allowed) {
    const slips = distance(wanted, address);
    if (slips <= allowed) return { score: slips, reason: slipsInWords(slips) };
  }
  const own = lastWords(address);
  if (words.length === 0 || own.length === 0) return undefined;
  const shared = words.filter((word) => own.some((other) => other === word || nearWord(word, other)));
  return shared.length > 0 && shared.length * 2 >= words.length
    ? {
        score: 10 - (10 * shared.length) / Math.max(words.length, own.length) + 0.5,
        reason: `has ${shared.map((word) => `“${word}”`).join(", ")} in it`,
      }
    : undefined;
}

function slipsInWords(slips: number): string {
  if (slips === 0) return "the same but for letter case";
  return slips === 1 ? "one letter differs" : `${slips} letters differ`;
}

function nearWord(word: string, other: string): boolean {
  return (
    word.length >= 4 &&
    Math.abs(word.length - other.length) <= 2 &&
    distance(word, other) <= Math.floor(word.length / 4)
  );
}

function lastWords(address: string): string[] {
  const last = address.split("/").filter(Boolean).at(-1) ?? "";
  return last.split(/[^\p{L}\p{N}]+/u).filter((word) => word.length > 2);
}
