import type { Transaction } from "sequelize";
import type { ReportedConversion } from "../core/programs/read-report.ts";
import { copyInto } from "./copy-text.ts";
import type { Store } from "./store.ts";

const INCOMING =
  "incoming_conversions (line, reference, at, kind, state, currency, commission, amount, sub_id, program_word)";

/** Makes room for a report's rows until the transaction ends. */
export async function beginReport(store: Store, transaction: Transaction): Promise<void> {
  await store.rows(
    `CREATE TEMPORARY TABLE incoming_conversions (line integer, reference text COLLATE "C", at timestamptz, kind text, state text, currency text,
       commission bigint, amount bigint, sub_id text COLLATE "C", program_word text) ON COMMIT DROP`,
    {},
    transaction,
  );
}

/** Adds rows of the report, each with its line. */
export function addReportRows(
  transaction: Transaction,
  rows: readonly (readonly [line: number, row: ReportedConversion])[],
): Promise<void> {
  return copyInto(
    transaction,
    INCOMING,
    rows.map(([line, row]) => [
      line,
      row.reference,
      new Date(row.at).toISOString(),
      row.kind,
      row.state,
      row.currency,
      row.commission,
      row.amount,
      row.subId,
      row.program,
    ]),
  );
}

/** What a report came to. */
export interface MergedReport {
  created: number;
  changed: number;
  unchanged: number;
  toPages: number;
  toPrograms: number;
  unmatched: number;
}

const rank = (row: string): string =>
  `CASE ${row}.state WHEN 'pending' THEN 0 WHEN 'approved' THEN 1 ELSE 2 END`;
const FIELDS = ["at", "kind", "state", "currency", "commission", "amount", "sub_id", "program_word", "program_id", "page_id"]; // prettier-ignore

/**
 * Takes the rows over, each reference once: the last row of a reference in the report counts, and a state never goes
 * back from reversed to approved or from approved to pending, so that an older report read again changes nothing.
 * `repeated` says whether a reference may stand in it more than once: finding the last of each is half of the work.
 */
export async function mergeReport(
  store: Store,
  transaction: Transaction,
  { siteId, network, repeated }: { siteId: string; network: string; repeated: boolean },
): Promise<MergedReport> {
  await store.sequelize.query("SET LOCAL work_mem = '256MB'", { transaction });
  const [counts] = await store.rows<MergedReport & { all: number }>(
    `WITH last AS (${repeated ? "SELECT DISTINCT ON (reference) * FROM incoming_conversions ORDER BY reference, line DESC" : "SELECT * FROM incoming_conversions"}),
     here AS (SELECT id, name FROM programs WHERE site_id = $siteId::bigint AND deleted_at IS NULL),
     issued AS (SELECT DISTINCT ON (sub_id) sub_id, program_id, page_id FROM (
       SELECT i.sub_id, i.program_id, i.page_id, 0 AS closeness, i.id FROM issued_links i JOIN here ON here.id = i.program_id WHERE i.sub_id <> ''
       UNION ALL SELECT l.sub_id, here.id, s.page_id, 1, l.id FROM ledger_links l JOIN ledger_sources s ON s.id = l.source_id JOIN here ON here.name = ANY(l.programs)
         WHERE l.site_id = $siteId::bigint AND l.sub_id <> '' AND s.kind = 'page'
       UNION ALL SELECT r.sub_id, r.program_id, NULL, 2, r.route_id FROM program_routes r JOIN here ON here.id = r.program_id WHERE r.sub_id <> '') AS all_of_them
       ORDER BY sub_id, closeness, id DESC),
     matched AS MATERIALIZED (SELECT l.reference, l.at, l.kind, l.state, l.currency, l.commission, l.amount, l.sub_id, l.program_word,
         coalesce(i.program_id, h.id) AS program_id, i.page_id
       FROM last l LEFT JOIN issued i ON i.sub_id = l.sub_id LEFT JOIN here h ON lower(h.name) = lower(l.program_word)),
     written AS (INSERT INTO conversions AS c (site_id, network, reference, ${FIELDS.join(", ")})
       SELECT $siteId::bigint, $network, reference, ${FIELDS.join(", ")} FROM matched
       ON CONFLICT (site_id, network, reference) DO UPDATE SET ${FIELDS.map((field) => `${field} = excluded.${field}`).join(", ")}
       WHERE ${rank("excluded")} >= ${rank("c")}
         AND (${FIELDS.map((field) => `c.${field}`).join(", ")}) IS DISTINCT FROM (${FIELDS.map((field) => `excluded.${field}`).join(", ")})
       RETURNING xmax = 0 AS is_new)
     SELECT (SELECT count(*) FILTER (WHERE is_new) FROM written)::int AS created, (SELECT count(*) FILTER (WHERE NOT is_new) FROM written)::int AS changed,
       count(*)::int AS "all", count(page_id)::int AS "toPages", count(program_id)::int AS "toPrograms", count(*) FILTER (WHERE program_id IS NULL)::int AS unmatched
     FROM matched`,
    { siteId, network },
    transaction,
  );
  const { all, ...rest } = counts!;
  return { ...rest, unchanged: all - rest.created - rest.changed };
}

/** What earnings can be grouped by, as SQL over a conversion c. */
const KEY = {
  program: "coalesce(c.program_id::text, '')",
  page: "coalesce(c.page_id::text, '')",
  subId: "c.sub_id",
  day: "(c.at AT TIME ZONE 'UTC')::date::text",
  month: "left((c.at AT TIME ZONE 'UTC')::date::text, 7)",
  network: "c.network",
} as const;
export type EarningKey = keyof typeof KEY;

/** Sums of one currency in one group, in minor units. */
export interface MoneyRow {
  key: string;
  currency: string;
  approved: string;
  pending: string;
  reversed: string;
  sales: number;
  leads: number;
  reversals: number;
}

export interface EarningSpan {
  siteId: string;
  from: string;
  to: string;
  program?: string;
}

const spanned = ({ siteId, from, to, program }: EarningSpan): Record<string, string> => ({
  siteId,
  from,
  to,
  ...(program === undefined ? {} : { program }),
});
const WITHIN =
  "c.site_id = $siteId::bigint AND c.at >= $from::date::timestamp AT TIME ZONE 'UTC' AND c.at < ($to::date + 1)::timestamp AT TIME ZONE 'UTC'";

/** What was earned, by currency within each group. */
export function moneyBy(store: Store, span: EarningSpan, by: EarningKey): Promise<MoneyRow[]> {
  const sum = (state: string): string =>
    `coalesce(sum(c.commission) FILTER (WHERE c.state = '${state}'), 0)::text AS ${state}`;
  return store.rows<MoneyRow>(
    `SELECT ${KEY[by]} AS key, c.currency, ${["approved", "pending", "reversed"].map(sum).join(", ")},
       count(*) FILTER (WHERE c.kind = 'sale' AND c.state <> 'reversed')::int AS sales,
       count(*) FILTER (WHERE c.kind = 'lead' AND c.state <> 'reversed')::int AS leads,
       count(*) FILTER (WHERE c.state = 'reversed')::int AS reversals
     FROM conversions c WHERE ${WITHIN} ${span.program === undefined ? "" : "AND c.program_id = $program::bigint"} GROUP BY 1, 2 ORDER BY 1, 2`,
    spanned(span),
  );
}

/** Readers' clicks on routes that lead to programs, in the groups that clicks can be told by. */
export async function clicksBy(
  store: Store,
  span: EarningSpan,
  by: EarningKey,
): Promise<{ key: string; clicks: number }[]> {
  const key = { program: "r.program_id::text", page: "coalesce(g.id::text, '')", subId: "coalesce(r.sub_id, '')", day: "d.day::text", month: "to_char(d.day, 'YYYY-MM')", network: "p.network" }[by]; // prettier-ignore
  const isPage = by === "page";
  const within = { day: "day", month: "day", page: "key", program: "", subId: "", network: "" }[by];
  // Counted by route first: what they are then joined with is a hundredth of the rows.
  const counted = `SELECT route_id, ${within === "" ? "" : `${within},`} sum(clicks) AS clicks FROM click_counts
     WHERE site_id = $siteId::bigint AND day BETWEEN $from AND $to AND facet = '${isPage ? "page" : "all"}' AND route_id > 0 AND class = 'person'
     GROUP BY route_id ${within === "" ? "" : `, ${within}`}`;
  return store.rows(
    `SELECT ${key} AS key, sum(d.clicks)::int AS clicks FROM (${counted}) d JOIN program_routes r ON r.route_id = d.route_id
       JOIN programs p ON p.id = r.program_id
       ${isPage ? "LEFT JOIN pages g ON g.site_id = r.site_id AND g.published_key = d.key AND g.deleted_at IS NULL" : ""}
     ${span.program === undefined ? "" : "WHERE r.program_id = $program::bigint"} GROUP BY 1`,
    spanned(span),
  );
}

/** How many conversions of a span belong to no program that is known. */
export async function countUnmatched(store: Store, span: EarningSpan): Promise<number> {
  const [row] = await store.rows<{ n: number }>(
    `SELECT count(*)::int AS n FROM conversions c WHERE ${WITHIN} AND c.program_id IS NULL`,
    spanned({ ...span, program: undefined }),
  );
  return row!.n;
}
