import type { Store } from "../ground/store.ts";

/** What earnings can be grouped by: as SQL over a row `c` of a conversion, and of what a network counted. */
const GROUP = {
  program: "c.program_id",
  page: "c.page_id",
  subId: "c.sub_id",
  day: "day",
  month: "date_trunc('month', day)",
  network: "c.network",
} as const;
export type EarningKey = keyof typeof GROUP;

// Written out as text only once for each group.
function keyText(by: EarningKey, group: string): string {
  return by === "month" ? `to_char(${group}, 'YYYY-MM')` : `coalesce(${group}::text, '')`;
}

/** Sums of one currency in one group, in minor units. */
export interface MoneyRow {
  key: string;
  currency: string;
  approved: number;
  pending: number;
  reversed: number;
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

/**
 * What was earned, by currency within each group. The database adds up by state and answers one text: of ten thousand
 * groups its conditional sums, and the driver's making rows of them, take longer than all else (`npm run bench -- programs`).
 */
export async function moneyBy(store: Store, span: EarningSpan, by: EarningKey): Promise<MoneyRow[]> {
  const group = GROUP[by].replace("day", "(c.at AT TIME ZONE 'UTC')::date");
  // The key stands last and may have spaces; the record separator (U+001E) is taken out of it.
  const [row] = await store.rows<{ text: string | null }>(
    `SELECT string_agg(line, chr(30)) AS text FROM (
       SELECT concat_ws(' ', c.currency, c.state, c.kind, sum(c.commission), count(*), translate(${keyText(by, group)}, chr(30), '')) AS line
       FROM conversions c WHERE ${WITHIN} ${ofProgram(span, "c")} GROUP BY ${group}, c.currency, c.state, c.kind) lines`,
    spanned(span),
  );
  const rows = new Map<string, MoneyRow>();
  for (const line of row!.text?.split("\u001e") ?? []) addLine(rows, line);
  return [...rows.values()];
}

// Taken apart by its spaces: an expression with groups takes three times as long, and there are ten thousand lines.
function addLine(rows: Map<string, MoneyRow>, line: string): void {
  const [currency, state, kind, sum, count] = line.split(" ", 5) as [
    string,
    MoneyState,
    string,
    string,
    string,
  ];
  const key = line.slice(currency.length + state.length + kind.length + sum.length + count.length + 5);
  const at = currency + key;
  let row = rows.get(at);
  if (!row) {
    row = { key, currency, approved: 0, pending: 0, reversed: 0, sales: 0, leads: 0, reversals: 0 };
    rows.set(at, row);
  }
  row[state] += Number(sum);
  if (state === "reversed") row.reversals += Number(count);
  else if (kind === "sale") row.sales += Number(count);
  else if (kind === "lead") row.leads += Number(count);
}

type MoneyState = "approved" | "pending" | "reversed";

/** Clicks in one group. */
export interface ClickRow {
  key: string;
  clicks: number;
}

/** Readers' clicks on routes that lead to programs, in the groups that clicks can be told by. */
export function clicksBy(store: Store, span: EarningSpan, by: EarningKey): Promise<ClickRow[]> {
  const within = `site_id = $siteId::bigint AND day BETWEEN $from AND $to AND route_id > 0 AND class = 'person'`;
  if (by === "day" || by === "month") {
    const routes = `SELECT r.route_id FROM program_routes r WHERE r.site_id = $siteId::bigint ${ofProgram(span, "r")}`;
    const group = by === "day" ? GROUP.day : GROUP.month;
    return store.rows<ClickRow>(
      `SELECT ${keyText(by, group)} AS key, sum(clicks)::int AS clicks FROM click_counts
       WHERE ${within} AND facet = 'all' AND route_id IN (${routes}) GROUP BY ${group}`,
      spanned(span),
    );
  }
  const isPage = by === "page";
  const key = { program: "r.program_id", page: "g.id", subId: "r.sub_id", network: "p.network" }[by];
  // Counted by route first: what they are then joined with is a hundredth of the rows.
  return store.rows<ClickRow>(
    `SELECT coalesce(${key}::text, '') AS key, sum(d.clicks)::int AS clicks
     FROM (SELECT route_id, ${isPage ? "key," : ""} sum(clicks) AS clicks FROM click_counts
       WHERE ${within} AND facet = '${isPage ? "page" : "all"}' GROUP BY route_id ${isPage ? ", key" : ""}) d
     JOIN program_routes r ON r.route_id = d.route_id ${ofProgram(span, "r")} JOIN programs p ON p.id = r.program_id
     ${isPage ? "LEFT JOIN pages g ON g.site_id = r.site_id AND g.published_key = d.key AND g.deleted_at IS NULL" : ""} GROUP BY ${key}`,
    spanned(span),
  );
}

/** Clicks on all tracked links as the networks counted them; none where no report said so. */
export function networkClicksBy(store: Store, span: EarningSpan, by: EarningKey): Promise<ClickRow[]> {
  const group = GROUP[by].replace("day", "c.day");
  return store.rows<ClickRow>(
    `SELECT ${keyText(by, group)} AS key, sum(c.clicks)::int AS clicks FROM network_clicks c
     WHERE c.site_id = $siteId::bigint AND c.day BETWEEN $from AND $to ${ofProgram(span, "c")} GROUP BY ${group}`,
    spanned(span),
  );
}

function ofProgram({ program }: EarningSpan, row: string): string {
  return program === undefined ? "" : `AND ${row}.program_id = $program::bigint`;
}

/** How many conversions of a span belong to no program that is known. */
export async function countUnmatched(store: Store, span: EarningSpan): Promise<number> {
  const [row] = await store.rows<{ n: number }>(
    `SELECT count(*)::int AS n FROM conversions c WHERE ${WITHIN} AND c.program_id IS NULL`,
    spanned({ ...span, program: undefined }),
  );
  return row!.n;
}
