import type { EarningsQuery, Unmatched } from "../../core/objects/earning.ts";
import { amountText } from "../../core/programs/money.ts";
import { unmatchedReported } from "../../store/report-names.ts";
import type { DeskCore } from "../desk.ts";
import type { OpenSite } from "../sites.ts";
import { spanOf } from "./earnings.ts";

/** Rows of reports that no program was found for, by what the reports call their program. */
export async function listUnmatched(
  core: DeskCore,
  site: OpenSite,
  query: Pick<EarningsQuery, "from" | "to">,
  now: number,
): Promise<Unmatched[]> {
  const words = new Map<string, Unmatched>();
  for (const row of await unmatchedReported(core.store, spanOf(site, query, now))) {
    const { network, word, currency, rows, clicks, last, references, subIds, earned } = row;
    const key = `${network}\t${word.toLowerCase()}`;
    const there = words.get(key) ?? { network, word, rows: 0, theirClicks: 0, last, references: [], subIds: [], money: [] }; // prettier-ignore
    words.set(key, {
      ...there,
      rows: there.rows + rows,
      theirClicks: there.theirClicks + clicks,
      last: last > there.last ? last : there.last,
      references: [...there.references, ...references].slice(0, 3),
      subIds: [...new Set([...there.subIds, ...subIds])].slice(0, 3),
      money: currency === null ? there.money : [...there.money, { currency, amount: amountText(Number(earned), currency) }], // prettier-ignore
    });
  }
  return [...words.values()];
}
