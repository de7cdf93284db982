import { z } from "zod";
import { DATE_ORDERS } from "./report-date.ts";
import { currencyDigits } from "./currencies.ts";
import { clicksOf, id, line, requiredLine } from "../ground/fields.ts";
import { EARNINGS_BY } from "./choices.ts";

/** A currency's code in capitals (ISO 4217). */
export const currencyCode = z
  .string("A currency is a code of three letters, such as EUR.")
  .trim()
  .toUpperCase()
  .refine((code) => currencyDigits(code) !== undefined, "That is no currency of ISO 4217, such as EUR.");

const column = line("A column's name", 200);

const columnFields = z.strictObject({
  /** By which a row is told from all others: an order or transaction number. Without one, equal rows are counted as they stand. */
  reference: column.optional(),
  at: column.min(1, "Which column holds the date?"),
  commission: column.min(1, "Which column holds the commission?"),
  amount: column.optional(),
  currency: column.optional(),
  /** For reports without a column for it. */
  fixedCurrency: currencyCode.optional(),
  kind: column.optional(),
  state: column.optional(),
  subId: column.optional(),
  program: column.optional(),
  /** How many clicks the network counted: rows with a number there and no commission are counts, not conversions. */
  clicks: column.optional(),
  dates: z.enum(DATE_ORDERS, "Dates are written ymd, dmy or mdy."),
  decimal: z.enum([".", ","], "Decimals stand behind a point or a comma."),
});

/** Which column of a network's report says what; kept for each network. */
export const reportColumnsSchema = columnFields.refine(
  ({ currency, fixedCurrency }) => currency !== undefined || fixedCurrency !== undefined,
  { path: ["fixedCurrency"], message: "Name the currency, or the column that holds it." },
);
export type ReportColumns = z.infer<typeof reportColumnsSchema>;

export const reportImportQuerySchema = z.object({
  network: requiredLine("The network", 120),
  /** What the file is called where it comes from. */
  name: z.string().max(500).optional(),
  /** The columns as JSON; those that were kept for the network when absent. */
  columns: z.string().max(4000).optional(),
  dryRun: z.enum(["0", "1"]).optional(),
  /** A report that was asked of its network: the id of the job that did. The body stays empty. */
  pulled: z.uuid("pulled is the id of the job that asked for the report.").optional(),
});

/** A look needs no network: whose report it is may be what one wants to know. */
export const reportLookQuerySchema = reportImportQuerySchema
  .pick({ name: true, pulled: true })
  .extend({ network: line("The network", 120).optional() });

export const reportLookSchema = z.object({
  header: z.array(z.string()),
  sample: z.array(z.array(z.string())),
  /** What the columns seem to say, or said the last time. */
  columns: columnFields.partial(),
  remembered: z.boolean(),
  /** More than one: the dates could be read either way, and somebody has to say which. */
  dateOrders: z.array(z.enum(DATE_ORDERS)),
  /** Whose report it seems to be, and why; null when nothing tells. */
  seems: z.object({ name: z.string(), why: z.string() }).nullable(),
});
export type ReportLook = z.infer<typeof reportLookSchema>;

const refusedRow = z.object({ line: z.int(), message: z.string() });

/** What an import came to, or would. */
export const reportResultSchema = z.object({
  network: z.string(),
  rows: z.int(),
  created: z.int(),
  changed: z.int(),
  unchanged: z.int(),
  /** Rows that say how many clicks the network counted. */
  clickRows: z.int(),
  refused: z.int(),
  /** The first of them. */
  refusals: z.array(refusedRow),
  matchedToPages: z.int(),
  matchedToPrograms: z.int(),
  unmatched: z.int(),
  /** Credited to nobody: the row names one program, and its sub-ID was issued for another, or for several. */
  doubtful: z.int(),
});
export type ReportResult = z.infer<typeof reportResultSchema>;

/** Sums of one currency, as decimal text. */
const sums = z.object({
  currency: z.string(),
  approved: z.string(),
  pending: z.string(),
  reversed: z.string(),
  sales: z.int(),
  leads: z.int(),
  reversals: z.int(),
  /** Per 100 clicks, of approved and pending commission; null without clicks. */
  epc: z.string().nullable(),
});
export type EarningSums = z.infer<typeof sums>;
export const earningsQuerySchema = z.object({
  from: z.iso.date("from is a day, such as 2026-11-01.").optional(),
  to: z.iso.date("to is a day, such as 2026-11-30.").optional(),
  by: z.enum(EARNINGS_BY, "by is program, page, subId, day, month or network.").default("program"),
  program: id.optional(),
});
export type EarningsQuery = z.infer<typeof earningsQuerySchema>;

export const earningsSchema = z.object({
  from: z.string(),
  to: z.string(),
  /** `theirClicks` are those that networks report, of all tracked links; null where none was reported. */
  total: z.object({ clicks: z.int(), theirClicks: z.int().nullable(), per: clicksOf, money: z.array(sums) }),
  items: z.array(
    z.object({
      key: z.string(),
      label: z.string(),
      id: z.string().nullable(),
      clicks: z.int(),
      theirClicks: z.int().nullable(),
      per: clicksOf,
      conversion: z.number().nullable(),
      money: z.array(sums),
    }),
  ),
  /** How many more there are than are told here; an export has all. */
  left: z.int(),
  /** Labels of those with the most clicks among them that earned nothing. */
  silent: z.array(z.string()),
  /** Rows that no program was found for. */
  unmatched: z.int(),
});
export type Earnings = z.infer<typeof earningsSchema>;

/** Rows of reports that no program was found for, by what the report calls their program. */
export const unmatchedQuerySchema = earningsQuerySchema.pick({ from: true, to: true });
export const unmatchedSchema = z.object({
  network: z.string(),
  /** What the report calls the program; empty where it names none. */
  word: z.string(),
  rows: z.int(),
  /** Clicks that the network counted under the same word. */
  theirClicks: z.int(),
  /** The latest day of them. */
  last: z.string(),
  /** A few of their references and sub-IDs. */
  references: z.array(z.string()),
  subIds: z.array(z.string()),
  /** Approved and pending commission. */
  money: z.array(z.object({ currency: z.string(), amount: z.string() })),
  /** Why rows that name a program we know are credited to none; empty for those that name none. */
  doubt: z.string(),
});
export type Unmatched = z.infer<typeof unmatchedSchema>;
