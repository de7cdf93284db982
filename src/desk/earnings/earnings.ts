import Papa from "papaparse";
import { guardedCell } from "../../core/formats/spreadsheet-cell.ts";
import type { Earnings, EarningsQuery, EarningSums } from "../../core/objects/earning.ts";
import { amountText, earningsPer100 } from "../../core/programs/money.ts";
import {
  clicksBy,
  countUnmatched,
  moneyBy,
  networkClicksBy,
  type EarningKey,
  type EarningSpan,
  type MoneyRow,
} from "../../store/conversions.ts";
import type { DeskCore } from "../desk.ts";
import { invalid } from "../problem.ts";
import type { OpenSite } from "../sites.ts";

const DAY_MS = 86_400_000;
const USUAL_DAYS = 90;
const MOST_DAYS = 3_700;

/** What was earned in a span, by what was asked for, beside the clicks that led there. Currencies are never added up. */
export async function readEarnings(
  core: DeskCore,
  site: OpenSite,
  query: EarningsQuery,
  now: number,
): Promise<Earnings> {
  const span = spanOf(site, query, now);
  const [money, clicks, theirs, unmatched] = await Promise.all([
    moneyBy(core.store, span, query.by),
    clicksBy(core.store, span, query.by),
    networkClicksBy(core.store, span, query.by),
    countUnmatched(core.store, span),
  ]);
  const clicksOf = new Map(clicks.map((row) => [row.key, row.clicks]));
  const theirsOf = new Map(theirs.map((row) => [row.key, row.clicks]));
  const moneyOf = new Map<string, MoneyRow[]>();
  for (const row of money) moneyOf.set(row.key, [...(moneyOf.get(row.key) ?? []), row]);
  const keys = [...new Set([...moneyOf.keys(), ...clicksOf.keys(), ...theirsOf.keys()])];
  const labels = await labelsOf(core, query.by, keys);
  const items = keys.map((key) => {
    const rows = moneyOf.get(key) ?? [];
    const clicked = clicksOf.get(key) ?? 0;
    const conversions = rows.reduce((sum, { sales, leads }) => sum + sales + leads, 0);
    return {
      key,
      label: labels.get(key) ?? nothing(query.by, key),
      id: /^\d+$/.test(key) && (query.by === "program" || query.by === "page") ? key : null,
      clicks: clicked,
      theirClicks: theirsOf.get(key) ?? null,
      conversion: clicked === 0 ? null : conversions / clicked,
      money: rows.map((row) => sumsOf(row, clicked)),
    };
  });
  const totalClicks = sumOf(clicks);
  const isTime = query.by === "day" || query.by === "month";
  return {
    from: span.from,
    to: span.to,
    total: {
      clicks: totalClicks,
      theirClicks: theirs.length === 0 ? null : sumOf(theirs),
      money: totalsOf(money).map((row) => sumsOf(row, totalClicks)),
    },
    items: items.sort((a, b) =>
      isTime ? (a.key < b.key ? -1 : 1) : weight(b) - weight(a) || b.clicks - a.clicks,
    ),
    unmatched,
  };
}

/** The same as CSV, a row for each group and currency. */
export async function exportEarnings(
  core: DeskCore,
  site: OpenSite,
  query: EarningsQuery,
  now: number,
): Promise<string> {
  const { items } = await readEarnings(core, site, query, now);
  const head = [
    query.by,
    "clicks",
    "network_clicks",
    "currency",
    "approved",
    "pending",
    "reversed",
    "sales",
    "leads",
    "reversals",
    "epc",
  ];
  const rows = items.flatMap(({ label, clicks, theirClicks, money }) => {
    const start = [guardedCell(label), clicks, theirClicks ?? ""];
    return money.length === 0
      ? [[...start, "", "", "", "", "", "", "", ""]]
      : money.map((one) => [...start, one.currency, one.approved, one.pending, one.reversed, one.sales, one.leads, one.reversals, one.epc ?? ""]); // prettier-ignore
  });
  return `${Papa.unparse([head, ...rows], { newline: "\r\n" })}\r\n`;
}

function spanOf(site: OpenSite, query: EarningsQuery, now: number): EarningSpan {
  const to = query.to ?? dayOf(now);
  const from = query.from ?? dayOf(Date.parse(to) - (USUAL_DAYS - 1) * DAY_MS);
  const days = (Date.parse(to) - Date.parse(from)) / DAY_MS + 1;
  if (days < 1) throw invalid([{ path: "to", message: "The span ends before it begins." }]);
  if (days > MOST_DAYS) throw invalid([{ path: "from", message: "A span has at most ten years." }]);
  return { siteId: site.id, from, to, ...(query.program === undefined ? {} : { program: query.program }) };
}

function sumOf(rows: readonly { clicks: number }[]): number {
  return rows.reduce((sum, { clicks }) => sum + clicks, 0);
}

function dayOf(at: number): string {
  return new Date(at).toISOString().slice(0, 10);
}

function sumsOf(row: MoneyRow, clicks: number): EarningSums {
  const { currency, sales, leads, reversals } = row;
  const [approved, pending, reversed] = [Number(row.approved), Number(row.pending), Number(row.reversed)];
  const epc = earningsPer100(approved + pending, clicks);
  return {
    currency, sales, leads, reversals,
    approved: amountText(approved, currency), pending: amountText(pending, currency), reversed: amountText(reversed, currency),
    epc: epc === null ? null : amountText(epc, currency),
  }; // prettier-ignore
}

function totalsOf(rows: readonly MoneyRow[]): MoneyRow[] {
  const totals = new Map<string, MoneyRow>();
  for (const row of rows) {
    const there = totals.get(row.currency);
    const add = (a: string | undefined, b: string): string => String(BigInt(a ?? 0) + BigInt(b));
    totals.set(row.currency, {
      key: "", currency: row.currency,
      approved: add(there?.approved, row.approved), pending: add(there?.pending, row.pending), reversed: add(there?.reversed, row.reversed),
      sales: (there?.sales ?? 0) + row.sales, leads: (there?.leads ?? 0) + row.leads, reversals: (there?.reversals ?? 0) + row.reversals,
    }); // prettier-ignore
  }
  return [...totals.values()];
}

// Only for the order of the list, where currencies stand side by side.
function weight({ money }: { money: EarningSums[] }): number {
  return money.reduce((sum, { approved, pending }) => sum + Number(approved) + Number(pending), 0);
}

async function labelsOf(
  core: DeskCore,
  by: EarningKey,
  keys: readonly string[],
): Promise<Map<string, string>> {
  const table = by === "program" ? "programs" : by === "page" ? "pages" : undefined;
  if (!table) return new Map();
  const rows = await core.store.rows<{ id: string; label: string }>(
    `SELECT id::text, ${table === "programs" ? "name" : "title"} AS label FROM ${table} WHERE id = ANY($ids::bigint[])`,
    { ids: keys.filter((key) => /^\d+$/.test(key)) },
  );
  return new Map(rows.map(({ id, label }) => [id, label]));
}

function nothing(by: EarningKey, key: string): string {
  if (key !== "") return key;
  return { program: "no program found", page: "no page known", subId: "without a sub-ID", day: "", month: "", network: "no network" }[by]; // prettier-ignore
}
