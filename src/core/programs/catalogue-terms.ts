import type { CatalogueEntry } from "./catalogue-entry.ts";
import type { ProgramInput, WrittenProgram } from "./program.ts";

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
