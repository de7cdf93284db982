import Papa from "papaparse";
import { delimiterOf } from "../../core/text/delimiter.ts";

// Small enough that a portion is being stored while the next one is read.
const PORTION = 128_000;

/** A table of text: its first row, and the others portion by portion with the line each begins on. */
export interface TextTable {
  header: string[];
  portions(): Generator<{ line: number; cells: string[] }[]>;
  /** How many signs of text there are, and how many have been handed out. */
  readonly length: number;
  readonly done: number;
}

/** Reads CSV (RFC 4180) with whatever sign stands between its cells; a byte order mark in front is left out. */
export function readTable(text: string): TextTable | undefined {
  const plain = text.charCodeAt(0) === 0xfeff ? text.slice(1) : text;
  const delimiter = delimiterOf(plain);
  const headerEnd = rowEnd(plain, 0, 1);
  const header = Papa.parse<string[]>(plain.slice(0, headerEnd), { delimiter }).data[0]?.map((name) =>
    name.trim(),
  );
  if (!header || header.every((name) => name === "")) return undefined;
  let done = headerEnd;
  return {
    header,
    length: plain.length,
    get done() {
      return done;
    },
    *portions() {
      let line = 1 + linesIn(plain.slice(0, headerEnd));
      for (let from = headerEnd; from < plain.length;) {
        const to = rowEnd(plain, from, PORTION);
        const part = plain.slice(from, to);
        const quoted = part.includes('"');
        const rows: { line: number; cells: string[] }[] = [];
        for (const cells of Papa.parse<string[]>(part, { delimiter }).data) {
          if (cells.length > 1 || cells[0] !== "") rows.push({ line, cells });
          line += 1 + (quoted ? cells.reduce((sum, cell) => sum + linesIn(cell), 0) : 0);
        }
        // What follows the last line break is no row.
        line -= /\n$/.test(part) ? 1 : 0;
        from = done = to;
        yield rows;
      }
    },
  };
}

function linesIn(text: string): number {
  return text.split("\n").length - 1;
}

// The end of a row at least so many signs further on: a line break that stands outside quotes.
function rowEnd(text: string, from: number, least: number): number {
  let at = Math.min(text.length, from + least);
  // Only so far is looked for quotes: in a text without any, looking for the next one goes to its end.
  let quotes = text.slice(from, at).split('"').length - 1;
  for (; at < text.length; at += 1) {
    const code = text.charCodeAt(at);
    if (code === 34) quotes += 1;
    else if (code === 10 && quotes % 2 === 0) return at + 1;
  }
  return text.length;
}
