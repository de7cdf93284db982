import type { ReportColumns } from "./earning.ts";
import type { CreditedProgram, IssuedSubId } from "./credit.ts";

/** A network that a site works with, and how its reports' columns were named the last time. */
export interface KnownNetwork {
  name: string;
  columns: ReportColumns | null;
}

/** What of a report tells whose it is. */
export interface ReportSigns {
  header: readonly string[];
  /** What the file is called where it comes from; empty when that is not known. */
  fileName: string;
  /** What its first rows call programs, and their sub-IDs. */
  programs: readonly string[];
  subIds: readonly string[];
}

/** Whose report a file seems to be, and why, in words. */
export interface GuessedNetwork {
  name: string;
  why: string;
}

const COLUMN_FIELDS = [
  "reference",
  "at",
  "commission",
  "amount",
  "currency",
  "kind",
  "state",
  "subId",
  "program",
  "clicks",
] as const;

/**
 * Says whose report a file seems to be: by the programs that it names, its file's name, the sub-IDs in it, and its
 * columns, in this order. Undefined when nothing tells, or two networks equally.
 */
export function guessNetwork(
  signs: ReportSigns,
  networks: readonly KnownNetwork[],
  programs: readonly CreditedProgram[],
  issued: readonly IssuedSubId[],
): GuessedNetwork | undefined {
  const names = new Set([...networks.map(({ name }) => name), ...programs.map(({ network }) => network)]);
  names.delete("");
  const ofProgram = new Map(programs.map(({ id, network }) => [id, network]));
  const guesses = [...names].map((name) => {
    const own = programs.filter(({ network }) => network === name);
    const called = new Set(own.flatMap((one) => [one.name, ...one.reportNames]).map(plain));
    const named = signs.programs.find((word) => called.has(plain(word)));
    const labels = new Set(
      issued.flatMap(({ subId, programId }) => (ofProgram.get(programId) === name ? subId : [])),
    );
    const label = signs.subIds.find((subId) => subId !== "" && labels.has(subId));
    const isInName = plain(name).length > 2 && plain(signs.fileName).includes(plain(name));
    const columns = networks.find((one) => one.name === name)?.columns;
    const score =
      (named ? 8 : 0) +
      (isInName ? 4 : 0) +
      (label ? 2 : 0) +
      (columns && fits(columns, signs.header) ? 1 : 0);
    const why = named
      ? `it names ${named}`
      : isInName
        ? "its file is called so"
        : label
          ? `its sub-ID ${label} was issued for one of that network’s programs`
          : "its columns are named as in that network’s last report";
    return { name, why, score };
  });
  const [best, second] = guesses.sort((a, b) => b.score - a.score);
  if (!best || best.score === 0 || best.score === second?.score) return undefined;
  return { name: best.name, why: best.why };
}

function fits(columns: ReportColumns, header: readonly string[]): boolean {
  const there = new Set(header.map((name) => name.trim().toLowerCase()));
  return COLUMN_FIELDS.every((field) => !columns[field] || there.has(columns[field].trim().toLowerCase()));
}

function plain(text: string): string {
  return text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, "");
}
