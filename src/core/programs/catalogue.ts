import Papa from "papaparse";
import { z } from "zod";
import { delimiterOf } from "../text/delimiter.ts";
import { programInputSchema, type ProgramInput, type WrittenProgram } from "./program.ts";
import { COMMISSION_FOR, COMMISSION_KINDS } from "./choices.ts";

/** A program as a network's catalogue offers it. */
export const catalogueEntrySchema = z.object({
  name: z.string().trim().min(1).max(120),
  about: z.string().max(2000).default(""),
  category: z.string().max(120).default(""),
  siteAddress: z.string().max(2048).default(""),
  domains: z.array(z.string().max(255)).min(1).max(50),
  commission: z.coerce.string(),
  commissionKind: z.enum(COMMISSION_KINDS).default("percent"),
  commissionFor: z.enum(COMMISSION_FOR).default("sale"),
  currency: z.string().default("EUR"),
  cookieDays: z.coerce.number().int().min(0).max(3650).default(30),
  epc30: z.coerce.string().nullable().default(null),
  template: z.string().max(1500).default(""),
  needsReferrer: z
    .union([
      z.boolean(),
      z.enum(["yes", "no", "true", "false", ""]).transform((word) => word === "yes" || word === "true"),
    ])
    .default(false),
});
export type CatalogueEntry = z.infer<typeof catalogueEntrySchema>;

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

/** The program that an entry becomes when it is taken over: considered, and otherwise as the catalogue says. */
export function consideredProgram(entry: CatalogueEntry, network: string): WrittenProgram {
  const {
    name,
    about,
    category,
    siteAddress,
    domains,
    commission,
    commissionKind,
    commissionFor,
    currency,
    cookieDays,
    epc30,
    template,
    needsReferrer,
  } = entry;
  return {
    name,
    network,
    siteAddress,
    domains,
    commission,
    commissionKind,
    commissionFor,
    currency,
    cookieDays,
    template,
    needsReferrer,
    state: "considering",
    epc: { d7: null, d30: epc30, d90: null },
    notes: about,
    tags: category === "" ? [] : [category],
  };
}

/** Terms of a program's record that a catalogue may tell differently. */
const COMPARED = [
  "commission",
  "commissionKind",
  "commissionFor",
  "currency",
  "cookieDays",
  "needsReferrer",
] as const;
type ComparedTerms = Pick<ProgramInput, (typeof COMPARED)[number] | "epc">;

/** The terms of a record that its catalogue tells otherwise, as the change that takes them over; empty when none. */
export function newerTerms(entry: CatalogueEntry, record: ComparedTerms): Partial<ComparedTerms> {
  const isSame = (name: (typeof COMPARED)[number]): boolean =>
    name === "commission" ? Number(entry[name]) === Number(record[name]) : entry[name] === record[name];
  const changed = Object.fromEntries(
    COMPARED.filter((name) => !isSame(name)).map((name) => [name, entry[name]]),
  );
  const hasNewEpc = entry.epc30 !== null && Number(entry.epc30) !== Number(record.epc.d30 ?? NaN);
  return { ...changed, ...(hasNewEpc ? { epc: { ...record.epc, d30: entry.epc30 } } : {}) };
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
