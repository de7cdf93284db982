import type { Transaction } from "sequelize";
import type { Store } from "../ground/store.ts";
import { PLACES } from "./report-rows.ts";

/** A program, and words that reports call it by. */
export interface CalledInReports {
  siteId: string;
  programId: string;
  words: readonly string[];
}

/** Gives a program the rows of its network's reports that belonged to none and call it by these words, unless their sub-ID is another's. */
export function claimReported(
  store: Store,
  transaction: Transaction,
  called: CalledInReports,
): Promise<void> {
  const isFree = `c.program_id IS NULL AND c.sub_id NOT IN (SELECT sub_id FROM ${PLACES} WHERE program_id <> $programId::bigint)
    AND EXISTS (SELECT FROM programs p WHERE p.id = $programId::bigint AND (p.network = '' OR lower(p.network) = lower(c.network)))`;
  return setOwner(store, transaction, called, "$programId::bigint", isFree);
}

/** Takes the rows from a program that were its own by these words alone: not those whose sub-ID says whose they are. */
export function releaseReported(
  store: Store,
  transaction: Transaction,
  called: CalledInReports,
): Promise<void> {
  const byWordAlone = `c.program_id = $programId::bigint AND c.page_id IS NULL AND c.sub_id NOT IN (SELECT sub_id FROM ${PLACES})`;
  return setOwner(store, transaction, called, "NULL", byWordAlone);
}

// Owner and condition are SQL over a row `c`.
async function setOwner(
  store: Store,
  transaction: Transaction,
  called: CalledInReports,
  owner: string,
  condition: string,
): Promise<void> {
  if (called.words.length === 0) return;
  for (const table of ["conversions", "network_clicks"])
    await store.rows(
      `UPDATE ${table} c SET program_id = ${owner} WHERE c.site_id = $siteId::bigint AND ${condition}
         AND lower(c.program_word) = ANY(SELECT lower(word) FROM unnest($words::text[]) AS word)`,
      { ...called },
      transaction,
    );
}

/** Rows of reports that no program was found for, by network, word and currency. */
export interface UnmatchedRow {
  network: string;
  word: string;
  currency: string | null;
  rows: number;
  clicks: number;
  last: string;
  references: string[];
  subIds: string[];
  /** Approved and pending commission, in minor units. */
  earned: string;
}

const MAX_WORDS = 200;

/** What reports of a span call programs that are not known, those with the most rows first. */
export function unmatchedReported(
  store: Store,
  span: { siteId: string; from: string; to: string },
): Promise<UnmatchedRow[]> {
  return store.rows<UnmatchedRow>(
    `WITH c AS (
       SELECT network, program_word, currency, (at AT TIME ZONE 'UTC')::date AS day, reference, sub_id, CASE WHEN state <> 'reversed' THEN commission ELSE 0 END AS commission, 0 AS clicks
       FROM conversions WHERE site_id = $siteId::bigint AND program_id IS NULL
         AND at >= $from::date::timestamp AT TIME ZONE 'UTC' AND at < ($to::date + 1)::timestamp AT TIME ZONE 'UTC'
       UNION ALL SELECT network, program_word, NULL, day, NULL, sub_id, 0, clicks FROM network_clicks WHERE site_id = $siteId::bigint AND program_id IS NULL AND day BETWEEN $from AND $to)
     SELECT network, min(program_word) AS word, currency, count(reference)::int AS rows, sum(clicks)::int AS clicks, max(day)::text AS last,
       coalesce((array_agg(reference ORDER BY day DESC) FILTER (WHERE reference IS NOT NULL))[1:3], '{}') AS references,
       coalesce((array_agg(DISTINCT sub_id) FILTER (WHERE sub_id <> ''))[1:3], '{}') AS "subIds", sum(commission)::text AS earned
     FROM c GROUP BY network, lower(program_word), currency ORDER BY 4 DESC, 5 DESC, 1, 2 LIMIT ${MAX_WORDS}`,
    span,
  );
}
