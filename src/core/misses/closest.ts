import { slipsBetween } from "../text/slips.ts";

/** An address that a reader may have meant. */
export interface Candidate {
  address: string;
  title: string;
  /** Where to send a reader who meant it, when that is more than the address: another host's full address. */
  destination?: string;
  /** What it is one spelling of: of several that are close the closest counts. */
  of?: string;
}

/** A candidate, and why it is close. */
export interface Close extends Candidate {
  reason: string;
  /** 0 is the same; lower is closer. */
  score: number;
}

const GOOD_ENOUGH = 2;
const CLEARLY_BETTER = 1;
const SAME_LAST_PART = 1.5;

/**
 * The closest of the known addresses to one that was missed, best first: few slips of the finger, or the
 * same words in another place. Compared without letter case; at most `most`, none that is merely similar.
 */
export function closestAddresses(missed: string, known: Iterable<Candidate>, most: number): Close[] {
  return new KnownAddresses(known).closest(missed, most);
}

interface Known {
  candidate: Candidate;
  lower: string;
  words: readonly string[];
}

/**
 * Known addresses, looked through once and asked many times: by their length, since a slip changes little of it,
 * and by the words of their last part. A miss that nobody made before costs some microseconds, not milliseconds.
 */
export class KnownAddresses {
  private readonly byLength = new Map<number, Known[]>();
  private readonly byWord = new Map<string, Known[]>();

  constructor(candidates: Iterable<Candidate>) {
    for (const candidate of candidates) {
      const lower = candidate.address.toLowerCase();
      const known = { candidate, lower, words: lastWords(lower) };
      push(this.byLength, lower.length, known);
      for (const word of new Set(known.words)) push(this.byWord, word, known);
    }
  }

  /** The closest ones, best first; none of those that `isGone` says are not there. */
  closest(missed: string, most: number, isGone?: (address: string) => boolean): Close[] {
    const wanted = missed.toLowerCase();
    const found = new Map<Known, Close>();
    const allowed = allowedIn(wanted.length);
    for (let length = wanted.length - allowed; length <= wanted.length + allowed; length += 1) {
      for (const known of this.byLength.get(length) ?? []) {
        const slips = slipsBetween(wanted, known.lower, allowed);
        if (slips <= allowed)
          found.set(known, { ...known.candidate, score: slips, reason: slipsInWords(slips) });
      }
    }
    const words = lastWords(wanted);
    for (const [known, shared] of this.sharing(words)) {
      if (found.has(known) || shared.length * 2 < words.length) continue;
      const share = shared.length / Math.max(words.length, known.words.length);
      // The same last part below another parent is as sure as a slip or two; other words are a guess.
      const score =
        known.words.join(" ") === words.join(" ") ? SAME_LAST_PART : GOOD_ENOUGH + 10 - 9.5 * share;
      const reason = `has ${shared.map((word) => `“${word}”`).join(", ")} in it`;
      found.set(known, { ...known.candidate, score, reason });
    }
    const sorted = [...found.values()].sort(
      (a, b) => a.score - b.score || a.address.length - b.address.length,
    );
    const seen = new Set<string>();
    const there = sorted.filter(
      ({ address, of }) => (of === undefined || (!seen.has(of) && seen.add(of))) && !isGone?.(address),
    );
    return there.slice(0, most);
  }

  // Which of the words each known address has in its last part, as they are or nearly.
  private sharing(words: readonly string[]): Map<Known, string[]> {
    const shared = new Map<Known, string[]>();
    for (const word of words) {
      const having = new Set<Known>(this.byWord.get(word));
      for (const [other, all] of this.byWord)
        if (other !== word && nearWord(word, other)) for (const known of all) having.add(known);
      for (const known of having) push(shared, known, word);
    }
    return shared;
  }
}

// In an address of a few letters two slips make another word.
function allowedIn(length: number): number {
  return length <= 6 ? 1 : Math.max(2, Math.floor(length / 5));
}

function push<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const there = map.get(key);
  if (there) there.push(value);
  else map.set(key, [value]);
}

/** The one address that was surely meant: a slip or two away, with no other nearly as close. Undefined when there is none. */
export function closestMatch(close: readonly Close[]): Close | undefined {
  const [best, next] = close;
  if (!best || best.score > GOOD_ENOUGH) return undefined;
  return next && next.score - best.score < CLEARLY_BETTER ? undefined : best;
}

function slipsInWords(slips: number): string {
  if (slips === 0) return "the same but for letter case";
  return slips === 1 ? "one letter differs" : `${slips} letters differ`;
}

function nearWord(word: string, other: string): boolean {
  return (
    word.length >= 4 &&
    Math.abs(word.length - other.length) <= 2 &&
    slipsBetween(word, other, Math.floor(word.length / 4)) <= Math.floor(word.length / 4)
  );
}

function lastWords(address: string): string[] {
  const last = address.split("/").filter(Boolean).at(-1) ?? "";
  return last.split(/[^\p{L}\p{N}]+/u).filter((word) => word.length > 2);
}
