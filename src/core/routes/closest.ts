import { distance } from "fastest-levenshtein";

/** An address that a reader may have meant. */
export interface Candidate {
  address: string;
  title: string;
  /** Where to send a reader who meant it, when that is more than the address: another host's full address. */
  destination?: string;
}

/**
 * The closest of the known addresses to one that was missed, best first: few slips of the finger, or the
 * same words in another place. Compared without letter case; at most `most`, none that is merely similar.
 */
export function closestAddresses(missed: string, known: Iterable<Candidate>, most: number): Candidate[] {
  const wanted = missed.toLowerCase();
  const words = lastWords(wanted);
  const scored: { candidate: Candidate; score: number }[] = [];
  for (const candidate of known) {
    const score = likeness(wanted, words, candidate.address.toLowerCase());
    if (score < Infinity) scored.push({ candidate, score });
  }
  return scored
    .sort((a, b) => a.score - b.score || a.candidate.address.length - b.candidate.address.length)
    .slice(0, most)
    .map(({ candidate }) => candidate);
}

// 0 is the same; lower is closer; Infinity is "no likeness worth offering".
function likeness(wanted: string, words: readonly string[], address: string): number {
  const allowed = Math.max(1, Math.floor(wanted.length / 5));
  if (Math.abs(address.length - wanted.length) <= allowed) {
    const slips = distance(wanted, address);
    if (slips <= allowed) return slips;
  }
  const own = lastWords(address);
  if (words.length === 0 || own.length === 0) return Infinity;
  const shared = words.filter((word) => own.some((other) => other === word || nearWord(word, other))).length;
  return shared > 0 && shared * 2 >= words.length
    ? 10 - (10 * shared) / Math.max(words.length, own.length)
    : Infinity;
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
