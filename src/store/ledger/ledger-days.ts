import type { Store } from "../ground/store.ts";

/** How readers' outside links were treated on a day. */
export interface TreatmentDay {
  /** As 2027-03-01, in UTC. */
  day: string;
  sponsored: number;
  ugc: number;
  nofollow: number;
  plain: number;
}

/** The days on which a site's ledger was looked at, oldest first; a day without a look has none. */
export function treatmentDays(store: Store, siteId: string): Promise<TreatmentDay[]> {
  const of = (treatment: string): string =>
    `coalesce(sum(links) FILTER (WHERE treatment = '${treatment}'), 0)::int AS ${treatment}`;
  return store.rows<TreatmentDay>(
    `SELECT to_char(day, 'YYYY-MM-DD') AS day, ${["sponsored", "ugc", "nofollow", "plain"].map(of).join(", ")}
     FROM ledger_days WHERE site_id = $site::bigint AND day > (now() AT TIME ZONE 'UTC')::date - 400 GROUP BY 1 ORDER BY 1`,
    { site: siteId },
  );
}

/** Keeps days that are known from elsewhere; those that are there already stay. */
export async function keepTreatmentDays(
  store: Store,
  siteId: string,
  days: readonly TreatmentDay[],
): Promise<void> {
  const rows = days.flatMap(({ day, ...counts }) =>
    Object.entries(counts).map(([treatment, links]) => ({ day, treatment, links })),
  );
  await store.rows(
    `INSERT INTO ledger_days (site_id, day, treatment, links)
     SELECT $site::bigint, day, treatment, links FROM jsonb_to_recordset($rows::jsonb) AS r (day date, treatment text, links integer)
     ON CONFLICT DO NOTHING`,
    { site: siteId, rows: JSON.stringify(rows) },
  );
}
