import { before } from "../../text/cut.ts";
import { pathKey } from "../../address/path-key.ts";
import type { MatchKind } from "./match-kind.ts";
import { samplesOf } from "./samples.ts";

/** So many addresses are tried of one route, unless fewer are asked for: what a search for circles is bounded by. */
export const MAX_SUSPECTS = 400;
const MAX_SEGMENTS = 4;

/**
 * Path keys whose way through a route may come round. A way can only come back to an address that the destination
 * can be as well, so what stands for the captures is made of the literal parts of both: their segments, alone and in
 * rows of up to four, and, where one capture stands between two ends, the text by which the ends differ (equations
 * u·x·v = s·x·t are solved by its repetitions). Samples of the address come first. Whether one matches, the route says.
 */
export function suspects(
  address: string,
  match: MatchKind,
  destination: string,
  most = MAX_SUSPECTS,
): string[] {
  const found = new Set(samplesOf(address, match));
  const words = literalWords(address, match, destination);
  const rows = rowsOf(words);
  if (match === "prefix") {
    const base = pathKey(address) === "/" ? "" : pathKey(address);
    for (const row of [...shifts(`${base}/*`, destination), ...rows]) found.add(pathKey(`${base}/${row}`));
  } else if (match === "wildcard") {
    for (const row of [...shifts(address, destination), ...rows]) found.add(pathKey(fill(address, [row])));
    for (const first of words) for (const second of words) found.add(pathKey(fill(address, [first, second])));
  } else for (const row of rows) found.add(pathKey(`/${row}`));
  return [...found].slice(0, most);
}

// The stars of an address, filled in turn; the last filling goes on for those that are left.
function fill(address: string, fillings: readonly string[]): string {
  let at = 0;
  return address.replace(/\*/g, () => fillings[Math.min(at++, fillings.length - 1)]!);
}

function literalWords(address: string, match: MatchKind, destination: string): string[] {
  const plain = match === "pattern" ? literalParts(address) : address;
  const path = before(before(pathOf(destination), "#"), "?").replace(/\$[1-9]/g, " ");
  const pieces = `${plain} ${path}`.split(/[/\s()|^$?+*\\]+/).filter(Boolean);
  return [...new Set(["x", "y", ...pieces])].slice(0, 8);
}

// A pattern without its classes and counts.
function literalParts(pattern: string): string {
  let text = "";
  let inside = "";
  for (let at = 0; at < pattern.length; at += 1) {
    const sign = pattern[at]!;
    if (sign === "\\") {
      at += 1;
      if (inside === "") text += /[a-zA-Z0-9]/.test(pattern[at] ?? "") ? " " : (pattern[at] ?? "");
    } else if (inside !== "") {
      if (sign === inside) inside = "";
    } else if (sign === "[" || sign === "{") inside = sign === "[" ? "]" : "}";
    else text += sign;
  }
  return text;
}

function pathOf(destination: string): string {
  return destination.replace(/^https?:\/\/[^/?#]*/i, "");
}

// Rows of one to four segments, short ones first.
function rowsOf(words: readonly string[]): string[] {
  const rows: string[] = [];
  let last: string[] = [""];
  for (let length = 1; length <= MAX_SEGMENTS && rows.length < MAX_SUSPECTS * 4; length += 1) {
    last = last.flatMap((row) => words.map((word) => (row === "" ? word : `${row}/${word}`)));
    rows.push(...last);
  }
  return rows;
}

// Fillings x of one star for which what is asked for may be what is made: both begin and end with the same text then.
function shifts(address: string, destination: string): string[] {
  const made = pathOf(destination).split(/\$[1-9]/);
  const asked = address.split("*");
  if (made.length !== 2 || asked.length !== 2) return [];
  const [a, b] = [asked[0]!, made[0]!];
  if (a === b || (!a.startsWith(b) && !b.startsWith(a))) return [];
  const shift = a.length > b.length ? a.slice(b.length) : b.slice(a.length);
  const run = shift.repeat(2);
  return Array.from({ length: run.length + 1 }, (_, length) => run.slice(0, length));
}
