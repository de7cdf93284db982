import type { CatalogueEntry } from "../../core/programs/catalogue-entry.ts";
import { readCatalogue } from "../../core/programs/catalogue.ts";
import { decodedText } from "../files/decoded-text.ts";
import { Problem } from "../ground/problem.ts";

/** What was found in a catalogue: the first entries of those that hold all words, and lines that make no sense. */
export interface FoundEntries {
  entries: CatalogueEntry[];
  total: number;
  refused: { line: number; message: string }[];
}

const MAX_SHOWN = 500;
const MAX_REFUSED = 100;

/** Reads a catalogue whole and searches it; where nobody says whether it is JSON, its first sign tells. Throws a Problem (422). */
export function searchEntries(
  bytes: Uint8Array,
  isJson: boolean | undefined,
  words: readonly string[],
): FoundEntries {
  const text = decodedText(bytes, []);
  const read = readCatalogue(text, isJson ?? /^\s*[[{]/.test(text));
  if (!read.ok) throw new Problem(422, "The catalogue cannot be read", read.reason);
  const found = read.entries.filter((entry) => {
    const hay = [entry.name, entry.about, entry.category, ...entry.domains].join("\n").toLowerCase();
    return words.every((word) => hay.includes(word));
  });
  return {
    entries: found.slice(0, MAX_SHOWN),
    total: found.length,
    refused: read.refused.slice(0, MAX_REFUSED),
  };
}
