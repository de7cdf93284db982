import type { EarningsQuery, Unmatched } from "../../core/earnings/earning.ts";
import { amountText } from "../../core/earnings/money.ts";
import { isReportedBy, type CreditedProgram } from "../../core/earnings/credit.ts";
import { creditedPrograms } from "../../store/earnings/report-rows.ts";
import { unmatchedReported } from "../../store/earnings/report-names.ts";
import { spanOf } from "./earnings.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore } from "../ground/parts.ts";

/** Rows of reports that no program was found for, by what the reports call their program. */
export async function listUnmatched(
  core: WithStore,
  site: OpenSite,
  query: Pick<EarningsQuery, "from" | "to">,
  now: number,
): Promise<Unmatched[]> {
  const words = new Map<string, Unmatched>();
  const programs = await creditedPrograms(core.store, site.id);
  for (const row of await unmatchedReported(core.store, spanOf(site, query, now))) {
    const { network, word, currency, rows, clicks, last, references, subIds, earned } = row;
    const key = `${network}\t${word.toLowerCase()}`;
    const there = words.get(key) ?? {
      network,
      word,
      rows: 0,
      theirClicks: 0,
      last,
      references: [],
      subIds: [],
      money: [],
      doubt: doubtOf(row, programs),
    };
    words.set(key, {
      ...there,
      rows: there.rows + rows,
      theirClicks: there.theirClicks + clicks,
      last: last > there.last ? last : there.last,
      references: [...there.references, ...references].slice(0, 3),
      subIds: [...new Set([...there.subIds, ...subIds])].slice(0, 3),
      money:
        currency === null
          ? there.money
          : [...there.money, { currency, amount: amountText(Number(earned), currency) }],
    });
  }
  return [...words.values()];
}

// A row that names a program we know was credited to none for one reason alone: its sub-ID was issued for another.
function doubtOf(
  { network, word }: { network: string; word: string },
  programs: readonly CreditedProgram[],
): string {
  const named = programs.find((program) => {
    const names = [program.name, ...program.reportNames].map((name) => name.toLowerCase());
    return names.includes(word.toLowerCase()) && (program.network === "" || isReportedBy(network, program));
  });
  return named
    ? `These rows name ${named.name}, and their sub-IDs were issued for another program: ask the network whose they are.`
    : "";
}
