import type { ProgramFigures } from "../../../core/programs/program.ts";
import type { CatalogueEntry } from "../../../core/programs/catalogue-entry.ts";
import { newerTerms } from "../../../core/programs/catalogue-terms.ts";
import { inOrder } from "../../../ui/table/in-order.ts";

/** What is offered or joined already, as one row of the comparison. */
export interface CatalogueRow {
  key: string;
  offer: Pick<
    CatalogueEntry,
    | "name"
    | "commission"
    | "commissionKind"
    | "commissionFor"
    | "currency"
    | "cookieDays"
    | "epc30"
    | "domains"
  >;
  about: string;
  category: string;
  /** The entry that can be taken over; absent where the row is a program that no entry stands for. */
  entry?: CatalogueEntry;
  /** The program that it is already. */
  program?: ProgramFigures;
  /** What the catalogue tells otherwise than the program's record. */
  newer: ReturnType<typeof newerTerms>;
}

type Found = CatalogueEntry & { known: { id: string } | null };

/** Entries with the programs that they are already, and, where asked for, the joined programs besides. */
export function catalogueRows(
  found: readonly Found[],
  programs: readonly ProgramFigures[],
  besides: boolean,
): CatalogueRow[] {
  const byId = new Map(programs.map((program) => [program.id, program]));
  const offered = found.map(({ known, ...entry }): CatalogueRow => {
    const program = known ? byId.get(known.id) : undefined;
    return {
      key: `${entry.name} ${entry.domains[0]}`,
      offer: entry,
      about: entry.about,
      category: entry.category,
      entry,
      program,
      newer: program ? newerTerms(entry, program) : {},
    };
  });
  const there = new Set(found.map(({ known }) => known?.id));
  const joined = besides ? programs.filter(({ id, state }) => state === "approved" && !there.has(id)) : [];
  return [
    ...offered,
    ...joined.map((program): CatalogueRow => ({
      key: `program ${program.id}`,
      offer: { ...program, epc30: program.epc.d30 },
      about: "",
      category: program.network,
      program,
      newer: {},
    })),
  ];
}

const number = (text: string | null | undefined): number | undefined => (text ? Number(text) : undefined);
const VALUE: Readonly<Record<string, (row: CatalogueRow) => string | number | undefined>> = {
  name: ({ offer }) => offer.name.toLowerCase(),
  epc30: ({ offer }) => number(offer.epc30),
  own90: ({ program }) => number(program?.ownEpc.d90),
  cookieDays: ({ offer }) => offer.cookieDays,
};

/** Rows in the order that a sort like `-epc30` asks for; the unknown last, and as the network lists them without one. */
export function sortedRows(rows: readonly CatalogueRow[], sort: string): readonly CatalogueRow[] {
  const down = sort.startsWith("-");
  const value = VALUE[down ? sort.slice(1) : sort];
  return value ? inOrder(rows, value, down) : rows;
}
