import { RE2Set } from "re2js";
import { caseFoldedKey } from "../../address/path-key.ts";
import type { MatchKind } from "./match-kind.ts";
import { compilePattern, literalHead, literalLength, patternText, type Pattern } from "./pattern.ts";

/** A route that answers more than one address; `host` null means every host of the site. */
export interface PatternAddress {
  match: Exclude<MatchKind, "exact">;
  host: string | null;
  /** Path key of a prefix or wildcard (caseInsensitive when `caseInsensitive`); source of a pattern. */
  key: string;
  caseInsensitive: boolean;
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

// Up to so many patterns that begin alike are run one by one; more are asked together first.
const FEW = 8;

/** What lies under one beginning. */
interface Head<T> {
  plain: Held<T>[];
  patterns: Held<T>[];
  set: RE2Set | undefined;
}

/**
 * The routes of one site that answer by prefix, wildcard or pattern, longest literal part first. They
 * lie under the whole segments that they begin with, so a path meets only those that share its beginning.
 * Where many patterns begin alike they are asked all at once, in one automaton (RE2's set), so that their number
 * does not count; only those that match are run again, for their captures.
 */
export class PatternTable<T> {
  private readonly heads = new Map<string, Head<T>>();
  private count = 0;

  /** Number of addresses in the table. */
  get size(): number {
    return this.count;
  }

  /** Adds an address. One that cannot be compiled is left out and answered with false. */
  add(address: PatternAddress, entry: T, age: number): boolean {
    const compiled =
      address.match === "pattern" ? compilePattern(address.key, address.caseInsensitive) : undefined;
    if (compiled && !compiled.ok) return false;
    const pattern = compiled?.pattern;
    const pieces = address.match === "wildcard" ? address.key.split("*") : [];
    const held: Held<T> = { address, entry, age, literal: literalOf(address), pieces, pattern };
    const key = headOf(address);
    let head = this.heads.get(key);
    if (!head) this.heads.set(key, (head = { plain: [], patterns: [], set: undefined }));
    (pattern ? head.patterns : head.plain).push(held);
    head.set = undefined;
    this.count += 1;
    return true;
  }

  /** Takes an address out, if `entry` still is what answers it. */
  delete(address: PatternAddress, entry: T): void {
    const key = headOf(address);
    const head = this.heads.get(key);
    if (!head) return;
    const others = (all: Held<T>[]): Held<T>[] =>
      all.filter(
        (held) =>
          held.entry !== entry ||
          held.address.match !== address.match ||
          held.address.key !== address.key ||
          held.address.host !== address.host,
      );
    const left = { plain: others(head.plain), patterns: others(head.patterns), set: undefined };
    this.count -= head.plain.length + head.patterns.length - left.plain.length - left.patterns.length;
    if (left.plain.length + left.patterns.length > 0) this.heads.set(key, left);
    else this.heads.delete(key);
  }

  /** All that match the path key on this host, in the order in which they answer. */
  find(host: string, key: string): PatternHit<T>[] {
    if (this.count === 0 || key.length > LONGEST_MATCHED) return NONE;
    const caseInsensitive = caseFoldedKey(key);
    let found: Found<T>[] | undefined;
    const consider = (held: Held<T>): void => {
      if (held.address.host !== null && held.address.host !== host) return;
      const captures = capturesOf(held, key, caseInsensitive);
      // A caseInsensitive address under a head without capitals is met twice.
      if (captures && !found?.some((other) => other.held === held)) (found ??= []).push({ held, captures });
    };
    this.look(key, key, consider);
    if (caseInsensitive !== key)
      this.look(caseInsensitive, key, (held) => held.address.caseInsensitive && consider(held));
    if (!found) return NONE;
    return found
      .sort((a, b) => before(a.held, b.held))
      .map(({ held, captures }) => ({ entry: held.entry, captures }));
  }

  // Goes through the heads that a path begins with.
  private look(path: string, asked: string, consider: (held: Held<T>) => void): void {
    for (let at = 0; at !== -1; at = at === path.length ? -1 : nextCut(path, at)) {
      const head = this.heads.get(path.slice(0, at));
      if (!head) continue;
      head.plain.forEach(consider);
      if (head.patterns.length <= FEW) head.patterns.forEach(consider);
      else {
        head.set ??= compiledSet(head.patterns);
        for (const index of head.set.match(asked)) consider(head.patterns[index]!);
      }
    }
  }
}

interface Found<T> {
  held: Held<T>;
  captures: string[];
}

const NONE: never[] = [];

// The next slash, or the end of the path; the root has no segments.
function nextCut(path: string, at: number): number {
  const next = path.indexOf("/", at + 1);
  if (next !== -1) return next;
  return path === "/" ? -1 : path.length;
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

function compiledSet<T>(held: readonly Held<T>[]): RE2Set {
  const set = new RE2Set(RE2Set.ANCHOR_BOTH);
  for (const { address } of held) {
    const text = patternText(address.key);
    set.add(address.caseInsensitive ? `(?i)${text}` : text);
  }
  set.compile();
  return set;
}

// The whole segments before the first star or group, or the prefix itself.
function headOf({ match, key, caseInsensitive }: PatternAddress): string {
  if (match === "prefix") return key === "/" ? "" : key;
  const literal = match === "pattern" ? literalHead(key) : key.slice(0, key.indexOf("*"));
  const head = literal.slice(0, literal.lastIndexOf("/"));
  return caseInsensitive ? caseFoldedKey(head) : head;
}

function capturesOf<T>(held: Held<T>, key: string, foldedPath: string): string[] | undefined {
  const { address, pieces, pattern } = held;
  if (pattern) return pattern.match(key);
  const path = address.caseInsensitive ? foldedPath : key;
  if (address.match === "prefix") {
    const base = address.key === "/" ? "" : address.key;
    return path === address.key || path.startsWith(`${base}/`) ? [key.slice(base.length + 1)] : undefined;
  }
  return wildcardCaptures(pieces, path, key);
}

// Folding changes no lengths, so what is found in the caseInsensitive path is cut out of the path as it came.
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
