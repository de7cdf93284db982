import { pageLabels, programLabels } from "../../store/earnings/labels.ts";
import Papa from "papaparse";
import { guardedCell } from "../../core/text/spreadsheet-cell.ts";
import type { Earnings, EarningsQuery, EarningSums } from "../../core/earnings/earning.ts";
import { currencyDigits } from "../../core/earnings/currencies.ts";
import { amountText, clicksToDivideBy, earningsPer100 } from "../../core/earnings/money.ts";
import {
  clicksBy,
  countUnmatched,
  moneyBy,
  networkClicksBy,
  type ClickRow,
  type EarningKey,
  type EarningSpan,
  type MoneyRow,
} from "../../store/earnings/conversions.ts";
import { invalid } from "../ground/problem.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore } from "../ground/parts.ts";

const DAY_MS = 86_400_000;
const USUAL_DAYS = 90;
const MAX_DAYS = 3_700;
/** Groups that are told at once; an export has all of them. */
const MAX_SHOWN = 1_000;
const MANY_CLICKS = 20;
const MAX_SILENT = 5;

/** What was earned in a span, by what was asked for, beside the clicks that led there. Currencies are never added up. */
export async function readEarnings(
  core: WithStore,
  site: OpenSite,
  query: EarningsQuery,
  now: number,
  most = MAX_SHOWN,
): Promise<Earnings> {
  const span = spanOf(site, query, now);
  const [money, clicks, theirs, unmatched] = await Promise.all([
    moneyBy(core.store, span, query.by),
    clicksBy(core.store, span, query.by),
    networkClicksBy(core.store, span, query.by),
    countUnmatched(core.store, span),
  ]);
  const groups = grouped(money, clicks, theirs, query.by);
  const shown = groups.slice(0, most);
  const silent = groups.filter(({ clicks: clicked, weight }) => weight === 0 && clicked >= MANY_CLICKS);
  const labels = await labelsOf(
    core,
    query.by,
    [...shown, ...silent.slice(0, MAX_SILENT)].map(({ key }) => key),
  );
  const labelOf = (key: string): string => labels.get(key) ?? nothing(query.by, key);
  const hasIds = query.by === "program" || query.by === "page";
  const totalClicks = sumOf(clicks);
  const totalTheirs = theirs.length === 0 ? null : sumOf(theirs);
  const divided = clicksToDivideBy(totalClicks, totalTheirs);
  return {
    from: span.from,
    to: span.to,
    total: {
      clicks: totalClicks,
      theirClicks: totalTheirs,
      per: divided.of,
      money: totalsOf(money).map((row) => sumsOf(row, divided.clicks)),
    },
    items: shown.map(({ key, clicks: clicked, theirClicks, rows }) => {
      const by = clicksToDivideBy(clicked, theirClicks);
      const conversions = rows.reduce((sum, { sales, leads }) => sum + sales + leads, 0);
      return {
        key,
        label: labelOf(key),
        id: hasIds && key !== "" ? key : null,
        clicks: clicked,
        theirClicks,
        per: by.of,
        conversion: by.clicks === 0 ? null : conversions / by.clicks,
        money: rows.map((row) => sumsOf(row, by.clicks)),
      };
    }),
    left: groups.length - shown.length,
    silent: silent.slice(0, MAX_SILENT).map(({ key }) => labelOf(key)),
    unmatched,
  };
}

interface Group {
  key: string;
  clicks: number;
  theirClicks: number | null;
  rows: MoneyRow[];
  /** Only for the order of the list, where currencies stand side by side. */
  weight: number;
}

// Those that earned most first, then those with most clicks; days and months in their order.
function grouped(
  money: readonly MoneyRow[],
  clicks: readonly ClickRow[],
  theirs: readonly ClickRow[],
  by: EarningKey,
): Group[] {
  const groups = new Map<string, Group>();
  const at = (key: string): Group => {
    let group = groups.get(key);
    if (!group) groups.set(key, (group = { key, clicks: 0, theirClicks: null, rows: [], weight: 0 }));
    return group;
  };
  const units = new Map<string, number>();
  for (const row of money) {
    const group = at(row.key);
    let unit = units.get(row.currency);
    if (unit === undefined) units.set(row.currency, (unit = 10 ** (currencyDigits(row.currency) ?? 2)));
    group.rows.push(row);
    group.weight += (row.approved + row.pending) / unit;
  }
  for (const { key, clicks: counted } of clicks) at(key).clicks = counted;
  for (const { key, clicks: counted } of theirs) at(key).theirClicks = counted;
  const isTime = by === "day" || by === "month";
  return [...groups.values()].sort((a, b) =>
    isTime ? (a.key < b.key ? -1 : 1) : b.weight - a.weight || b.clicks - a.clicks,
  );
}

/** The same as CSV, a row for each group and currency. */
export async function exportEarnings(
  core: WithStore,
  site: OpenSite,
  query: EarningsQuery,
  now: number,
): Promise<string> {
  const { items } = await readEarnings(core, site, query, now, Infinity);
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
    "epc_per_clicks_of",
  ];
  const rows = items.flatMap(({ label, clicks, theirClicks, per, money }) => {
    const start = [guardedCell(label), clicks, theirClicks ?? ""];
    return money.length === 0
      ? [[...start, "", "", "", "", "", "", "", "", ""]]
      : money.map((one) => [
          ...start,
          one.currency,
          one.approved,
          one.pending,
          one.reversed,
          one.sales,
          one.leads,
          one.reversals,
          one.epc ?? "",
          one.epc === null ? "" : (per ?? ""),
        ]);
  });
  return `${Papa.unparse([head, ...rows], { newline: "\r\n" })}\r\n`;
}

/** The span that a question asks about: the last 90 days where it names none. Refuses one that cannot be. */
export function spanOf(
  site: OpenSite,
  query: Pick<EarningsQuery, "from" | "to" | "program">,
  now: number,
): EarningSpan {
  const to = query.to ?? dayOf(now);
  const from = query.from ?? dayOf(Date.parse(to) - (USUAL_DAYS - 1) * DAY_MS);
  const days = (Date.parse(to) - Date.parse(from)) / DAY_MS + 1;
  if (days < 1) throw invalid([{ path: "to", message: "The span ends before it begins." }]);
  if (days > MAX_DAYS) throw invalid([{ path: "from", message: "A span has at most ten years." }]);
  return { siteId: site.id, from, to, ...(query.program === undefined ? {} : { program: query.program }) };
}

function sumOf(rows: readonly { clicks: number }[]): number {
  return rows.reduce((sum, { clicks }) => sum + clicks, 0);
}

function dayOf(at: number): string {
  return new Date(at).toISOString().slice(0, 10);
}

function sumsOf(row: MoneyRow, clicks: number): EarningSums {
  const { currency, approved, pending, reversed, sales, leads, reversals } = row;
  const epc = earningsPer100(approved + pending, clicks);
  return {
    currency,
    sales,
    leads,
    reversals,
    approved: amountText(approved, currency),
    pending: amountText(pending, currency),
    reversed: amountText(reversed, currency),
    epc: epc === null ? null : amountText(epc, currency),
  };
}

function totalsOf(rows: readonly MoneyRow[]): MoneyRow[] {
  const totals = new Map<string, MoneyRow>();
  for (const row of rows) {
    const total = totals.get(row.currency);
    if (!total) {
      totals.set(row.currency, { ...row, key: "" });
      continue;
    }
    for (const figure of FIGURES) total[figure] += row[figure];
  }
  return [...totals.values()];
}

const FIGURES = ["approved", "pending", "reversed", "sales", "leads", "reversals"] as const;

async function labelsOf(
  core: WithStore,
  by: EarningKey,
  keys: readonly string[],
): Promise<Map<string, string>> {
  if (by !== "program" && by !== "page") return new Map();
  const ids = keys.filter((key) => /^\d+$/.test(key));
  const rows = await (by === "program" ? programLabels : pageLabels)(core.store, { ids });
  return new Map(rows.map(({ id, label }) => [id, label]));
}

function nothing(by: EarningKey, key: string): string {
  if (key !== "") return key;
  return {
    program: "no program found",
    page: "no page known",
    subId: "without a sub-ID",
    day: "",
    month: "",
    network: "no network",
  }[by];
}
