import type { ReportColumns } from "./earning.ts";
import type { ConversionKind, ConversionState } from "./choices.ts";
import { readAmount } from "./money.ts";
import { possibleOrders, readReportDate, type DateOrder } from "./report-date.ts";

/** One sale, lead or paid click as a network reports it. Amounts are in the currency's smallest unit. */
export interface ReportedConversion {
  reference: string;
  at: number;
  kind: ConversionKind;
  state: ConversionState;
  currency: string;
  commission: number;
  amount: number | null;
  subId: string;
  program: string;
}

/** How many clicks a network counted on a day (UTC) for a label. */
export interface ReportedClicks {
  /** YYYY-MM-DD. */
  day: string;
  clicks: number;
  subId: string;
  program: string;
}

export type ReadRow =
  | { ok: true; conversion: ReportedConversion }
  | { ok: true; conversion?: undefined; counted: ReportedClicks }
  | { ok: false; reason: string };

/** Reads the rows of one report. */
export type RowReader = (cells: readonly string[]) => ReadRow;

const STATES: Readonly<Record<string, ConversionState>> = {
  approved: "approved",
  confirmed: "approved",
  paid: "approved",
  payable: "approved",
  locked: "approved",
  closed: "approved",
  validated: "approved",
  pending: "pending",
  open: "pending",
  new: "pending",
  tracked: "pending",
  waiting: "pending",
  extended: "pending",
  reversed: "reversed",
  reversal: "reversed",
  cancelled: "reversed",
  canceled: "reversed",
  declined: "reversed",
  rejected: "reversed",
  returned: "reversed",
  refunded: "reversed",
  void: "reversed",
  storno: "reversed",
};
const KINDS: Readonly<Record<string, ConversionKind>> = {
  sale: "sale",
  order: "sale",
  purchase: "sale",
  lead: "lead",
  signup: "lead",
  registration: "lead",
  click: "click",
};

const MAX_REFERENCE = 200;

/**
 * Makes a reader for a report with this header. Without a column of references, equal rows of one report are told apart
 * by their number, so that the same report read again counts nothing twice. Answers the reason when a column is missing.
 */
export function rowReader(header: readonly string[], columns: ReportColumns): RowReader | string {
  const at = new Map(header.map((name, index) => [name.trim().toLowerCase(), index]));
  const place = (name: string | undefined): number => (name ? (at.get(name.trim().toLowerCase()) ?? -2) : -1);
  const places = {
    reference: place(columns.reference),
    at: place(columns.at),
    commission: place(columns.commission),
    amount: place(columns.amount),
    currency: place(columns.currency),
    kind: place(columns.kind),
    state: place(columns.state),
    subId: place(columns.subId),
    program: place(columns.program),
    clicks: place(columns.clicks),
  };
  for (const [field, index] of Object.entries(places))
    if (index === -2) return `The report has no column “${columns[field as keyof typeof places]}”.`;
  const seen = new Map<string, number>();
  return (cells) => {
    const time = readReportDate(cell(cells, places.at), columns.dates);
    if (time === undefined)
      return no(`“${cell(cells, places.at)}” is no date written ${ORDER_WORD[columns.dates]}.`);
    const subId = cell(cells, places.subId).slice(0, 200);
    const program = cell(cells, places.program).slice(0, 200);
    if (cell(cells, places.clicks) !== "" && /^[0.,]*$/.test(cell(cells, places.commission))) {
      const clicks = readCount(cell(cells, places.clicks));
      return clicks === undefined
        ? no(`“${cell(cells, places.clicks)}” is no number of clicks.`)
        : { ok: true, counted: { day: new Date(time).toISOString().slice(0, 10), clicks, subId, program } };
    }
    const currency = cell(cells, places.currency).toUpperCase() || columns.fixedCurrency || "";
    if (currency === "") return no("No currency is named.");
    const commission = readAmount(cell(cells, places.commission), currency, columns.decimal);
    if (!commission.ok) return no(commission.reason);
    const amount =
      cell(cells, places.amount) === ""
        ? undefined
        : readAmount(cell(cells, places.amount), currency, columns.decimal);
    if (amount && !amount.ok) return no(amount.reason);
    const stateWord = cell(cells, places.state).toLowerCase();
    const state = stateWord === "" ? "approved" : STATES[stateWord];
    if (!state)
      return no(`“${cell(cells, places.state)}” is no state that is known: approved, pending or reversed.`);
    const kindWord = cell(cells, places.kind).toLowerCase();
    const kind = kindWord === "" ? "sale" : KINDS[kindWord];
    if (!kind) return no(`“${cell(cells, places.kind)}” is no kind that is known: sale, lead or click.`);
    const reference = places.reference < 0 ? numbered(cells.join("\t"), seen) : cell(cells, places.reference);
    if (reference === "" || reference.length > MAX_REFERENCE)
      return no(
        reference === "" ? "The reference is missing." : "The reference has more than 200 characters.",
      );
    // What is taken back is reported as a row of its own, below zero, or by the word.
    const isReversed = state === "reversed" || commission.minor < 0;
    return {
      ok: true,
      conversion: {
        reference,
        at: time,
        kind,
        state: isReversed ? "reversed" : state,
        currency,
        commission: Math.abs(commission.minor),
        amount: amount?.ok ? Math.abs(amount.minor) : null,
        subId,
        program,
      },
    };
  };
}

const ORDER_WORD: Readonly<Record<DateOrder, string>> = {
  ymd: "year, month, day",
  dmy: "day, month, year",
  mdy: "month, day, year",
};

function cell(cells: readonly string[], index: number): string {
  return index < 0 ? "" : (cells[index] ?? "").trim();
}

function no(reason: string): ReadRow {
  return { ok: false, reason };
}

// A whole number, its thousands perhaps grouped.
function readCount(text: string): number | undefined {
  return /^(?:\d{1,9}|\d{1,3}(?:[.,' ]\d{3}){1,2})$/.test(text) ? Number(text.replace(/\D/g, "")) : undefined;
}

function numbered(row: string, seen: Map<string, number>): string {
  const times = (seen.get(row) ?? 0) + 1;
  seen.set(row, times);
  return `~${fingerprint(row)}-${times}`;
}

// FNV-1a in two halves of 32 bits: short, the same on every machine, and made from the whole row.
function fingerprint(text: string): string {
  let [a, b] = [0x811c9dc5, 0x01000193];
  for (let at = 0; at < text.length; at += 1) {
    const code = text.charCodeAt(at);
    a = Math.imul(a ^ code, 0x01000193);
    b = Math.imul(b ^ code ^ (at & 0xff), 0x85ebca6b);
  }
  return (a >>> 0).toString(36) + (b >>> 0).toString(36);
}

const NAMES: Readonly<Record<string, RegExp>> = {
  reference:
    /^(?:(?:order|transaction|conversion|action|sale)[ _-]?(?:id|no|number|ref(?:erence)?)|reference|id)$/i,
  at: /^(?:(?:order|transaction|event|sale|conversion)?[ _-]?(?:date|time)(?:[ _-]?utc)?|at|day|datum)$/i,
  commission: /^(?:(?:publisher|your)?[ _-]?(?:commission|earnings?|payout|provision)(?:[ _-]?amount)?)$/i,
  amount: /^(?:(?:sale|order|basket)[ _-]?(?:amount|value|total)|amount|value)$/i,
  currency: /^(?:commission[ _-]?)?currency$|^währung$/i,
  kind: /^(?:kind|type|(?:action|event)[ _-]?type)$/i,
  state: /^(?:(?:transaction|commission)?[ _-]?(?:state|status))$/i,
  clicks: /^(?:clicks?|click[ _-]?count|klicks)$/i,
  subId: /^(?:sub[ _-]?id\d?|sub|label|click[ _-]?ref\d?|placement)$/i,
  program: /^(?:program(?:me)?|merchant|advertiser|shop)(?:[ _-]?(?:name|key))?$/i,
};

/** What a report's columns seem to say, from their names and the first rows. */
export function guessColumns(
  header: readonly string[],
  sample: readonly (readonly string[])[],
): { columns: Partial<ReportColumns>; dateOrders: DateOrder[] } {
  const columns: Record<string, string> = {};
  for (const [field, pattern] of Object.entries(NAMES)) {
    const found = header.find((name) => pattern.test(name.trim()) && !Object.values(columns).includes(name));
    if (found !== undefined) columns[field] = found;
  }
  const valuesOf = (field: string): string[] => {
    const at = header.indexOf(columns[field] ?? "");
    return at === -1 ? [] : sample.map((row) => row[at] ?? "");
  };
  const dateOrders = possibleOrders(valuesOf("at"));
  const amounts = [...valuesOf("commission"), ...valuesOf("amount")];
  const commas = amounts.filter((text) => /,\d{1,2}\D*$/.test(text)).length;
  const points = amounts.filter((text) => /\.\d{1,2}\D*$/.test(text)).length;
  return {
    columns: {
      ...columns,
      decimal: commas > points ? "," : ".",
      ...(dateOrders.length > 0 ? { dates: dateOrders[0] } : {}),
    },
    dateOrders,
  };
}
