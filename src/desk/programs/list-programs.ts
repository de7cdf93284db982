import type { z } from "zod";
import type { programListQuery, ProgramFigures } from "../../core/programs/program.ts";
import { isAskedFor } from "../../core/programs/asked-for.ts";
import { amountText, clicksToDivideBy, earningsPer100 } from "../../core/earnings/money.ts";
import {
  programNumbers,
  programRows,
  type ProgramNumbers,
  type ProgramRow,
} from "../../store/programs/programs.ts";
import { sortedBy } from "../ground/lists.ts";
import { programView } from "./programs.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore } from "../ground/parts.ts";

/** The site's programs with what each does for it, all of them: they are compared as a whole. */
export async function listPrograms(
  core: WithStore,
  site: OpenSite,
  query: z.infer<typeof programListQuery>,
  now: number,
): Promise<ProgramFigures[]> {
  const today = new Date(now).toISOString().slice(0, 10);
  const [rows, numbers] = await Promise.all([
    programRows(core.store, site.id),
    programNumbers(core.store, site.id, today),
  ]);
  const byId = new Map(numbers.map((one) => [one.id, one]));
  const listed = rows
    .filter(({ terms }) => isAskedFor(terms, query))
    .map((row) => figuresOf(row, byId.get(row.id)));
  const sorted = sortedBy(query.sort, SORTS);
  if (!sorted) return listed;
  const field = sorted.field as keyof ProgramFigures;
  const turn = sorted.down ? -1 : 1;
  return listed.sort((a, b) => turn * compared(a[field], b[field]));
}

const SORTS = {
  name: "name",
  network: "network",
  state: "state",
  links: "links",
  clicks: "clicks",
  updatedAt: "updatedAt",
};

function compared(a: unknown, b: unknown): number {
  return typeof a === "number" && typeof b === "number" ? a - b : String(a).localeCompare(String(b), "en");
}

function figuresOf(row: ProgramRow, numbers: ProgramNumbers | undefined): ProgramFigures {
  const { currency } = row.terms;
  const money = numbers?.money ?? [];
  const own = money.find((one) => one.currency === currency);
  const divided = {
    d7: clicksToDivideBy(numbers?.clicks7 ?? 0, numbers?.theirs7 ?? null),
    d30: clicksToDivideBy(numbers?.clicks30 ?? 0, numbers?.theirs30 ?? null),
    d90: clicksToDivideBy(numbers?.clicks90 ?? 0, numbers?.theirs90 ?? null),
  };
  const epc = (days: keyof typeof divided): string | null => {
    const value = earningsPer100(Number(own?.[days] ?? 0), divided[days].clicks);
    return value === null ? null : amountText(value, currency);
  };
  return {
    ...programView(row),
    links: numbers?.links ?? 0,
    untracked: numbers?.untracked ?? 0,
    clicks: numbers?.clicks90 ?? 0,
    earned: money
      .filter(({ d90 }) => d90 !== "0")
      .map((one) => ({ currency: one.currency, amount: amountText(Number(one.d90), one.currency) })),
    ownEpc: {
      d7: epc("d7"),
      d30: epc("d30"),
      d90: epc("d90"),
    },
    ownEpcPer: { d7: divided.d7.of, d30: divided.d30.of, d90: divided.d90.of },
    towardsPayout: amountText(Number(own?.approved ?? 0), currency),
  };
}
