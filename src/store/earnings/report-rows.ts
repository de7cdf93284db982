import type { Transaction } from "sequelize";
import { crediter, type Credit, type CreditedProgram, type IssuedSubId } from "../../core/earnings/credit.ts";
import type { ReportedClicks, ReportedConversion } from "../../core/earnings/read-report.ts";
import { copyPortions, type CopyValue } from "../ground/copy-text.ts";
import type { Store } from "../ground/store.ts";

/** A conversion beside whom it belongs to: the same few objects for all rows, as copying a million rows takes seconds. */
export interface MatchedConversion {
  row: ReportedConversion;
  belonging: Credit;
}
export interface MatchedClicks {
  counted: ReportedClicks;
  belonging: Credit;
}

/** Finds whom a row belongs to. */
export type Match = (row: { subId: string; program: string }) => Credit;

/** Whose report is read. */
export interface ReportOf {
  siteId: string;
  network: string;
}

const COLUMNS = [
  "reference",
  "at",
  "kind",
  "state",
  "currency",
  "commission",
  "amount",
  "sub_id",
  "program_word",
  "program_id",
  "page_id",
];

/**
 * Begins a report: no other of the network is read at the same time, until the transaction ends. Answers whether it is
 * the network's first.
 */
export async function beginReport(
  store: Store,
  transaction: Transaction,
  { siteId, network }: ReportOf,
): Promise<boolean> {
  await store.rows(
    "SELECT pg_advisory_xact_lock(hashtextextended('report ' || $siteId || ' ' || $network, 0))",
    { siteId, network },
    transaction,
  );
  const [row] = await store.rows<{ any: boolean }>(
    'SELECT EXISTS (SELECT FROM conversions WHERE site_id = $siteId::bigint AND network = $network) AS "any"',
    { siteId, network },
    transaction,
  );
  return !row!.any;
}

/** The placements that sub-IDs were issued to, as a table in SQL over $siteId. */
export const PLACES = `(
  WITH here AS (SELECT id, name FROM programs WHERE site_id = $siteId::bigint AND deleted_at IS NULL)
  SELECT i.sub_id, i.program_id, i.page_id, 0 AS closeness, i.id FROM issued_links i JOIN here ON here.id = i.program_id WHERE i.sub_id <> ''
  UNION ALL SELECT l.sub_id, here.id, s.page_id, 1, l.id FROM ledger_links l JOIN ledger_sources s ON s.id = l.source_id JOIN here ON here.name = ANY(l.programs)
    WHERE l.site_id = $siteId::bigint AND l.sub_id <> '' AND s.kind IN ('page', 'read')
  UNION ALL SELECT r.sub_id, r.program_id, NULL, 2, r.route_id FROM program_routes r JOIN here ON here.id = r.program_id WHERE r.sub_id <> '') AS places`;

/** Says whose the rows of a network's report are (`core/programs/credit.ts`). */
export async function matcher(store: Store, { siteId, network }: ReportOf): Promise<Match> {
  const [programs, issued] = await Promise.all([
    creditedPrograms(store, siteId),
    issuedSubIds(store, siteId),
  ]);
  return crediter(network, programs, issued);
}

/** The sub-IDs that were issued in a site, of each program once, with the closest place that is known. */
export function issuedSubIds(store: Store, siteId: string): Promise<IssuedSubId[]> {
  return store.rows<IssuedSubId>(
    `SELECT DISTINCT ON (sub_id, program_id) sub_id AS "subId", program_id::text AS "programId", page_id::text AS "pageId"
     FROM ${PLACES} ORDER BY sub_id, program_id, closeness, id DESC`,
    { siteId },
  );
}

/** A site's programs as reports may speak of them. */
export function creditedPrograms(store: Store, siteId: string): Promise<CreditedProgram[]> {
  return store.rows<CreditedProgram>(
    `SELECT id::text, name, network, ARRAY(SELECT jsonb_array_elements_text(terms->'reportNames')) AS "reportNames"
     FROM programs WHERE site_id = $siteId::bigint AND deleted_at IS NULL ORDER BY id`,
    { siteId },
  );
}

/** What is kept of these references, each as `fingerprint` has it. */
export async function keptConversions(
  store: Store,
  { siteId, network }: ReportOf,
  references: readonly string[],
): Promise<Map<string, string>> {
  const rows = await store.rows<{ reference: string; print: string }>(
    `SELECT reference, concat_ws(E'\\t', (extract(epoch FROM at) * 1000)::bigint, kind, state, currency, commission, coalesce(amount::text, '-'),
       coalesce(program_id::text, '-'), coalesce(page_id::text, '-'), sub_id, program_word) AS print
     FROM conversions WHERE site_id = $siteId::bigint AND network = $network AND reference = ANY($references::text[])`,
    { siteId, network, references },
  );
  return new Map(rows.map(({ reference, print }) => [reference, print]));
}

/** All that is kept of a conversion, as one text. */
export function fingerprint({ row, belonging: { programId, pageId } }: MatchedConversion): string {
  const { at, kind, state, currency, commission, amount, subId, program } = row;
  return [
    at,
    kind,
    state,
    currency,
    commission,
    amount ?? "-",
    programId ?? "-",
    pageId ?? "-",
    subId,
    program,
  ].join("\t");
}

/** Adds conversions whose references are new, as they come. */
export function addConversions(
  transaction: Transaction,
  { siteId, network }: ReportOf,
  portions: AsyncIterable<readonly MatchedConversion[]>,
): Promise<void> {
  return copyPortions(
    transaction,
    `conversions (site_id, network, ${COLUMNS.join(", ")})`,
    (async function* () {
      for await (const portion of portions) yield portion.map((one) => valuesOf(one, siteId, network));
    })(),
  );
}

/** A conversion that is kept already, or stood in the same report before; `fresh` when it is new by that report. */
export interface LaterRow extends MatchedConversion {
  line: number;
  fresh: boolean;
}

/**
 * Brings conversions up to date: of each reference the last row counts, and a state never goes back from reversed to
 * approved or from approved to pending, so that an older report read again changes nothing. Answers how many that were
 * kept before the report are not as they were.
 */
export async function updateConversions(
  store: Store,
  transaction: Transaction,
  { siteId, network }: ReportOf,
  later: readonly LaterRow[],
): Promise<number> {
  await store.rows(
    `CREATE TEMPORARY TABLE later_conversions (line integer, fresh boolean, reference text COLLATE "C", at timestamptz, kind text, state text, currency text,
       commission bigint, amount bigint, sub_id text COLLATE "C", program_word text, program_id bigint, page_id bigint)`,
    {},
    transaction,
  );
  const rows = later.map((one): CopyValue[] => valuesOf(one, one.line, one.fresh));
  await copyPortions(transaction, `later_conversions (line, fresh, ${COLUMNS.join(", ")})`, [rows]);
  const [counted] = await store.rows<{ changed: number }>(
    `WITH last AS (SELECT DISTINCT ON (reference) * FROM later_conversions ORDER BY reference, line DESC),
     changed AS (UPDATE conversions c SET ${FIELDS.map((field) => `${field} = l.${field}`).join(", ")} FROM last l
       WHERE c.site_id = $siteId::bigint AND c.network = $network AND c.reference = l.reference AND ${rank("l")} >= ${rank("c")}
         AND (${FIELDS.map((field) => `c.${field}`).join(", ")}) IS DISTINCT FROM (${FIELDS.map((field) => `l.${field}`).join(", ")})
       RETURNING l.fresh)
     SELECT count(*) FILTER (WHERE NOT fresh)::int AS changed FROM changed`,
    { siteId, network },
    transaction,
  );
  await store.rows("DROP TABLE later_conversions", {}, transaction);
  return counted!.changed;
}

/** Keeps what a network counted: of the same day and label the latest report counts. */
export async function putNetworkClicks(
  store: Store,
  transaction: Transaction,
  { siteId, network }: ReportOf,
  rows: readonly MatchedClicks[],
): Promise<void> {
  await store.rows(
    "CREATE TEMPORARY TABLE later_clicks (day date, program_word text, sub_id text, program_id bigint, page_id bigint, clicks integer)",
    {},
    transaction,
  );
  const values = rows.map(({ counted, belonging }): CopyValue[] => [
    counted.day,
    counted.program,
    counted.subId,
    belonging.programId,
    belonging.pageId,
    counted.clicks,
  ]);
  await copyPortions(transaction, "later_clicks", [values]);
  await store.rows(
    `INSERT INTO network_clicks (site_id, network, day, program_word, sub_id, program_id, page_id, clicks)
     SELECT $siteId::bigint, $network, * FROM later_clicks
     ON CONFLICT (site_id, day, network, program_word, sub_id) DO UPDATE SET clicks = excluded.clicks, program_id = excluded.program_id, page_id = excluded.page_id`,
    { siteId, network },
    transaction,
  );
  await store.rows("DROP TABLE later_clicks", {}, transaction);
}

const FIELDS = COLUMNS.slice(1);
const rank = (row: string): string =>
  `CASE ${row}.state WHEN 'pending' THEN 0 WHEN 'approved' THEN 1 ELSE 2 END`;

function valuesOf({ row, belonging }: MatchedConversion, first: CopyValue, second: CopyValue): CopyValue[] {
  const { reference, at, kind, state, currency, commission, amount, subId, program } = row;
  return [
    first,
    second,
    reference,
    timeText(at),
    kind,
    state,
    currency,
    commission,
    amount,
    subId,
    program,
    belonging.programId,
    belonging.pageId,
  ];
}

const DAY_MS = 86_400_000;
const TWO = Array.from({ length: 60 }, (_, at) => String(at).padStart(2, "0"));
const days = new Map<number, string>();
const MAX_DAYS = 5_000;

// As ISO 8601 has it: writing out a million times takes seconds, and they share a few days.
function timeText(at: number): string {
  const day = Math.floor(at / DAY_MS);
  let text = days.get(day);
  if (text === undefined) {
    if (days.size >= MAX_DAYS) days.clear();
    days.set(day, (text = new Date(day * DAY_MS).toISOString().slice(0, 11)));
  }
  const ms = at - day * DAY_MS;
  const seconds = Math.floor(ms / 1000);
  return `${text}${TWO[Math.floor(seconds / 3600)]}:${TWO[Math.floor(seconds / 60) % 60]}:${TWO[seconds % 60]}.${String(ms % 1000).padStart(3, "0")}Z`;
}
