import { RE2Set } from "re2js";
import { foldedKey } from "../../address/path-key.ts";
import type { MatchKind } from "./match-kind.ts";
import { compilePattern, literalLength, patternText, type Pattern } from "./pattern.ts";

/** A route that answers more than one address; `host` null means every host of the site. */
export interface PatternAddress {
  match: Exclude<MatchKind, "exact">;
  host: string | null;
  /** Path key of a prefix or wildcard (folded when `folded`); source of a pattern. */
  key: string;
  folded: boolean;
}

/** What matched, and what its captures hold. */
export interface PatternHit<T> {
  entry: T;
  captures: string[];
}

/** Longer paths are not compared with patterns: no address that anybody makes is longer. */
export const LONGEST_MATCHED = 1_024;

interface Held<T> {
  address: PatternAddress;
  entry: T;
  /** The order among routes of the same literal length: the older first. */
  age: number;
  literal: number;
  pieces: readonly string[];
  pattern: Pattern | undefined;
}

/**
 * The routes of one site that answer by prefix, wildcard or pattern, longest literal part first (DESIGN section
 * 8). Prefixes and wildcards lie under the whole segments that they begin with, so a path meets only those that
 * share its beginning. Patterns are asked all at once, in one automaton (RE2's set), so that their number does
 * not count; only those that match are run again, for their captures.
 */
export class PatternTable<T> {
  private readonly heads = new Map<string, Held<T>[]>();
  private readonly patterns = new Map<T, Held<T>[]>();
  private set: { ask: RE2Set; held: Held<T>[] } | undefined;
  private count = 0;

  /** Number of addresses in the table. */
  get size(): number {
    return this.count;
  }

  /** Adds an address. One that cannot be compiled is left out and answered with false. */
  add(address: PatternAddress, entry: T, age: number): boolean {
    const compiled = address.match === "pattern" ? compilePattern(address.key, address.folded) : undefined;
    if (compiled && !compiled.ok) return false;
    const held: Held<T> = {
      address,
      entry,
      age,
      literal: literalOf(address),
      pieces: address.match === "wildcard" ? address.key.split("*") : [],
      pattern: compiled?.pattern,
    };
    if (held.pattern) {
      this.patterns.set(entry, [...(this.patterns.get(entry) ?? []), held]);
      this.set = undefined;
    } else {
      const head = headOf(address);
      const there = this.heads.get(head);
      if (there) there.push(held);
      else this.heads.set(head, [held]);
    }
    this.count += 1;
    return true;
  }

  /** Takes an address out, if `entry` still is what answers it. */
  delete(address: PatternAddress, entry: T): void {
    const same = (held: Held<T>): boolean =>
      held.entry === entry && held.address.key === address.key && held.address.host === address.host;
    if (address.match === "pattern") {
      const there = this.patterns.get(entry) ?? [];
      const rest = there.filter((held) => !same(held));
      if (rest.length > 0) this.patterns.set(entry, rest);
      else this.patterns.delete(entry);
      this.count -= there.length - rest.length;
      this.set = undefined;
      return;
    }
    const head = headOf(address);
    const there = this.heads.get(head) ?? [];
    const rest = there.filter((held) => held.address.match !== address.match || !same(held));
    if (rest.length > 0) this.heads.set(head, rest);
    else this.heads.delete(head);
    this.count -= there.length - rest.length;
  }

  /** All that match the path key on this host, in the order in which they answer. */
  find(host: string, key: string): PatternHit<T>[] {
    if (this.count === 0 || key.length > LONGEST_MATCHED) return [];
    const folded = foldedKey(key);
    const found: { held: Held<T>; captures: string[] }[] = [];
    const consider = (held: Held<T>): void => {
      if (held.address.host !== null && held.address.host !== host) return;
      const captures = capturesOf(held, key, folded);
      if (captures) found.push({ held, captures });
    };
    for (const head of headsOf(key)) this.heads.get(head)?.forEach(consider);
    if (folded !== key)
      for (const head of headsOf(folded))
        this.heads.get(head)?.forEach((held) => held.address.folded && consider(held));
    if (this.patterns.size > 0) {
      const { ask, held } = (this.set ??= compiledSet([...this.patterns.values()].flat()));
      for (const index of ask.match(key)) consider(held[index]!);
    }
    // A folded address under a head without capitals is met twice.
    const seen = new Set<Held<T>>();
    return found
      .filter(({ held }) => !seen.has(held) && seen.add(held))
      .sort((a, b) => before(a.held, b.held))
      .map(({ held, captures }) => ({ entry: held.entry, captures }));
  }
}

/** The order in which two routes are asked: longest literal part, then those of this very host, then the older. */
export function before(
  a: { literal: number; address: { host: string | null }; age: number },
  b: { literal: number; address: { host: string | null }; age: number },
): number {
  return (
    b.literal - a.literal ||
    Number(a.address.host === null) - Number(b.address.host === null) ||
    a.age - b.age
  );
}

/** How many characters of an address stand for themselves. */
export function literalOf({ match, key }: Pick<PatternAddress, "match" | "key">): number {
  if (match === "pattern") return literalLength(key);
  return match === "wildcard" ? key.replaceAll("*", "").length : key.length;
}

function compiledSet<T>(held: Held<T>[]): { ask: RE2Set; held: Held<T>[] } {
  const ask = new RE2Set(RE2Set.ANCHOR_BOTH);
  for (const { address } of held) {
    const text = patternText(address.key);
    ask.add(address.folded ? `(?i)${text}` : text);
  }
  ask.compile();
  return { ask, held };
}

// The whole segments before the first star, or the prefix itself.
function headOf({ match, key }: PatternAddress): string {
  if (match === "prefix") return key === "/" ? "" : key;
  const literal = key.slice(0, key.indexOf("*"));
  return literal.slice(0, literal.lastIndexOf("/"));
}

function headsOf(key: string): string[] {
  const heads = [""];
  for (let at = key.indexOf("/", 1); at !== -1; at = key.indexOf("/", at + 1)) heads.push(key.slice(0, at));
  if (key !== "/") heads.push(key);
  return heads;
}

function capturesOf<T>(held: Held<T>, key: string, foldedPath: string): string[] | undefined {
  const { address, pieces, pattern } = held;
  if (pattern) return pattern.match(key);
  const path = address.folded ? foldedPath : key;
  if (address.match === "prefix") {
    const base = address.key === "/" ? "" : address.key;
    return path === address.key || path.startsWith(`${base}/`) ? [key.slice(base.length + 1)] : undefined;
  }
  return wildcardCaptures(pieces, path, key);
}

// Folding changes no lengths, so what is found in the folded path is cut out of the path as it came.
function wildcardCaptures(pieces: readonly string[], path: string, original: string): string[] | undefined {
  const first = pieces[0]!;
  const last = pieces.at(-1)!;
  if (!path.startsWith(first)) return undefined;
  const captures: string[] = [];
  let at = first.length;
  for (const piece of pieces.slice(1, -1)) {
    const next = path.indexOf(piece, at);
    if (next === -1) return undefined;
    captures.push(original.slice(at, next));
    at = next + piece.length;
  }
  const end = path.length - last.length;
  if (end < at || !path.endsWith(last)) return undefined;
  return [...captures, original.slice(at, end)];
}
