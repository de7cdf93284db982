import Papa from "papaparse";
import { delimiterOf } from "../text/delimiter.ts";
import { catalogueEntrySchema, type CatalogueEntry } from "./catalogue-entry.ts";
import { consideredProgram } from "./catalogue-terms.ts";
import { programInputSchema } from "./program.ts";

export type ReadCatalogue =
  | { ok: true; entries: CatalogueEntry[]; refused: { line: number; message: string }[] }
  | { ok: false; reason: string };

/**
 * Reads a network's catalogue: JSON, a list or `{programs: [...]}`, or CSV with the same names in its first line and
 * domains separated by spaces. Entries that make no sense are named and left out.
 */
export function readCatalogue(text: string, isJson: boolean): ReadCatalogue {
  const rows = isJson ? jsonRows(text) : csvRows(text);
  if (typeof rows === "string") return { ok: false, reason: rows };
  const entries: CatalogueEntry[] = [];
  const refused: { line: number; message: string }[] = [];
  for (const [index, row] of rows.entries()) {
    const entry = catalogueEntrySchema.safeParse(row);
    const program = entry.success ? programInputSchema.safeParse(consideredProgram(entry.data, "")) : entry;
    if (entry.success && program.success) entries.push(entry.data);
    else {
      const [issue] = program.error!.issues;
      refused.push({
        line: index + (isJson ? 1 : 2),
        message: `${issue!.path.join(".")}: ${issue!.message}`,
      });
    }
  }
  return { ok: true, entries, refused };
}

function jsonRows(text: string): unknown[] | string {
  let read: unknown;
  try {
    read = JSON.parse(text);
  } catch {
    return "The catalogue is no JSON to its end: it may have stopped half-way.";
  }
  const list = Array.isArray(read) ? read : (read as { programs?: unknown } | null)?.programs;
  return Array.isArray(list) ? (list as unknown[]) : "The catalogue holds no list of programs.";
}

function csvRows(text: string): unknown[] | string {
  const plain = text.replace(/^\uFEFF/, "");
  const { data, meta } = Papa.parse<Record<string, string>>(plain, {
    header: true,
    delimiter: delimiterOf(plain),
    skipEmptyLines: true,
    transformHeader: (name) => name.trim(),
  });
  if (!meta.fields?.includes("name") || !meta.fields.includes("domains"))
    return "The first line is to name the columns, “name” and “domains” among them.";
  return data.map(({ domains = "", ...row }) => ({
    ...Object.fromEntries(Object.entries(row).filter(([, value]) => value !== "")),
    domains: domains.split(/[\s,]+/).filter(Boolean),
  }));
}
