import type { FindingCode } from "../../core/pages/check/finding.ts";
import type { LedgerFilter, LedgerPlace } from "../../core/ledger/ledger.ts";
import { containing } from "../ground/like.ts";
import type { Store } from "../ground/store.ts";
import { isRowId } from "../ground/row-ids.ts";

/** SQL over ledger_links l that a filter stands for, its parameters, and the joins that it needs. */
export interface LedgerSql {
  where: string;
  bind: Record<string, unknown>;
  joins: string;
}

const SOURCE = "JOIN ledger_sources s ON s.id = l.source_id";
const HEALTH = "LEFT JOIN route_health h ON h.route_id = coalesce(l.route_id, l.short_id)";
const BAD = "h.verdict IN ('loop', 'dead', 'failing', 'unreachable')";

/** The SQL of a filter. */
export function ledgerSql(siteId: string, filter: LedgerFilter): LedgerSql {
  const filters = ["l.site_id = $site::bigint"];
  const bind: Record<string, unknown> = { site: siteId };
  const joins = new Set<string>();
  const narrow = (sql: string, name: string, value: unknown): void => {
    if (value === undefined || value === "") return;
    filters.push(sql);
    bind[name] = value;
  };
  filters.push(filter.edition === "readers" ? "l.edition <> 'draft' AND l.live" : "l.edition <> 'published'");
  narrow("l.search LIKE $q", "q", filter.q?.trim() && containing(filter.q.trim().toLowerCase()));
  // A tracked link is one of the host where it ends, and of the network's that it is written with.
  narrow("(l.host = $host OR l.via = $host)", "host", filter.host);
  if (filter.page !== undefined && isRowId(filter.page)) {
    joins.add(SOURCE);
    narrow("s.page_id = $page::bigint", "page", filter.page);
  } else narrow("l.place = $page", "page", filter.page);
  narrow("l.source_kind = $place", "place", filter.place);
  narrow("l.category = $category", "category", filter.category);
  narrow("$program = ANY(l.programs)", "program", filter.program);
  narrow("l.reach = $reach", "reach", filter.reach);
  narrow("l.kind = $kind", "kind", filter.kind);
  narrow("l.anchor = $anchor", "anchor", filter.anchor);
  if (filter.rel === "none") filters.push("l.rel = ''");
  else
    narrow(
      "(' ' || l.rel || ' ') LIKE $rel",
      "rel",
      filter.rel && containing(` ${filter.rel.toLowerCase()} `),
    );
  if (filter.target)
    filters.push(filter.target === "new" ? "l.target = '_blank'" : "l.target IS DISTINCT FROM '_blank'");
  // How search engines take a link is asked of outside links; those inside are all plain.
  if (filter.treatment) filters.push("l.reach = 'external'");
  narrow("l.treatment = $treatment", "treatment", filter.treatment);
  narrow("$rule = ANY(l.rules)", "rule", filter.rule);
  if (filter.finding === "any") filters.push("(l.text_findings <> '{}' OR l.rule_findings <> '{}')");
  else
    narrow("($finding = ANY(l.text_findings) OR $finding = ANY(l.rule_findings))", "finding", filter.finding);
  if (filter.health) joins.add(HEALTH);
  if (filter.health === "bad") filters.push(`(${BAD} OR l.kind = 'broken')`);
  else if (filter.health === "unknown") filters.push("h.verdict IS NULL");
  else narrow("h.verdict = $health", "health", filter.health);
  if (filter.byHand) filters.push(`l.override IS ${filter.byHand === "1" ? "NOT " : ""}NULL`);
  if (filter.short)
    filters.push(
      `l.reach = 'external' AND l.kind = 'external' AND l.short_id IS ${filter.short === "1" ? "NOT " : ""}NULL`,
    );
  return { where: filters.join(" AND "), bind, joins: [...joins].join(" ") };
}

const CLICKS = `LEFT JOIN (SELECT route_id, key, sum(clicks)::int AS clicks FROM click_counts
    WHERE site_id = $site::bigint AND facet = 'page' AND class = 'person' AND route_id > 0 GROUP BY route_id, key) c
  ON c.route_id = l.route_id AND c.key = l.place`;

/** By what the ledger can be sorted; the order of the text is the default. */
export const LEDGER_SORTS: Readonly<Record<string, string>> = {
  page: "l.place",
  anchor: "l.words",
  href: "l.href",
  host: "l.host",
  kind: "l.kind",
  treatment: "l.treatment",
  target: "l.target",
  rel: "l.rel",
  clicks: "c.clicks",
  findings: "cardinality(l.text_findings) + cardinality(l.rule_findings)",
};

export interface LedgerListRow {
  id: string;
  page: string;
  pageId: string;
  title: string;
  place: LedgerPlace;
  onPages: number;
  category: string;
  edition: "both" | "draft" | "published";
  live: boolean;
  ordinal: number;
  words: string;
  anchor: "text" | "image";
  href: string;
  ends: string;
  host: string;
  via: string;
  kind: string;
  stored_rel: string | null;
  stored_target: string | null;
  override: string | null;
  rel: string;
  target: string | null;
  wanted_rel: string | null;
  wanted_target: string | null;
  treatment: string;
  rules: string[];
  programs: string[];
  route_id: string | null;
  short_id: string | null;
  route_host: string | null;
  route_address: string | null;
  counted: boolean | null;
  health: string | null;
  clicks: number | null;
  findings: string[];
}

/** One portion of the ledger, and how many entries the filter leaves. */
export async function readLedger(
  store: Store,
  siteId: string,
  filter: LedgerFilter,
  page: { sort?: string; limit: number; offset: number },
): Promise<{ rows: LedgerListRow[]; total: number }> {
  const { where, bind, joins } = ledgerSql(siteId, filter);
  const field = page.sort?.replace(/^-/, "") ?? "";
  const by = Object.hasOwn(LEDGER_SORTS, field) ? LEDGER_SORTS[field] : undefined;
  const direction = page.sort?.startsWith("-") ? "DESC NULLS LAST" : "ASC NULLS LAST";
  const order = by
    ? `${by} ${direction}, l.place, l.source_id, l.ordinal`
    : "l.place, l.source_id, l.ordinal";
  // First which, then what of them: the sort carries ids alone.
  const [ids, [count]] = await Promise.all([
    store.rows<{ id: string }>(
      `SELECT l.id::text FROM ledger_links l ${joins} ${field === "clicks" ? CLICKS : ""} WHERE ${where} ORDER BY ${order} LIMIT ${page.limit} OFFSET ${page.offset}`,
      bind,
    ),
    store.rows<{ total: number }>(
      `SELECT count(*)::int AS total FROM ledger_links l ${joins} WHERE ${where}`,
      bind,
    ),
  ]);
  return {
    rows: await ledgerRowsById(
      store,
      siteId,
      ids.map(({ id }) => id),
    ),
    total: count!.total,
  };
}

/** Entries by their ids, in the order of these; those that are gone are left out. */
export async function ledgerRowsById(
  store: Store,
  siteId: string,
  ids: readonly string[],
): Promise<LedgerListRow[]> {
  return store.rows<LedgerListRow>(
    `SELECT l.id::text, l.place AS page, s.page_id::text AS "pageId", s.title, s.kind AS place, s.on_pages AS "onPages", l.category, l.edition, l.live, l.ordinal,
       l.words, l.anchor, l.href, l.ends, l.host, l.via, l.kind, l.stored_rel, l.stored_target, l.override, l.rel, l.target, l.wanted_rel, l.wanted_target, l.treatment, l.rules, l.programs,
       l.route_id::text, l.short_id::text, r.host AS route_host, r.address AS route_address, r.counted, h.verdict AS health,
       (SELECT sum(c.clicks)::int FROM click_counts c WHERE c.site_id = l.site_id AND c.route_id = l.route_id AND c.facet = 'page' AND c.key = l.place AND c.class = 'person') AS clicks,
       l.text_findings || l.rule_findings AS findings
     FROM unnest($ids::bigint[]) WITH ORDINALITY AS wanted (id, at) JOIN ledger_links l ON l.id = wanted.id ${SOURCE} ${HEALTH}
       LEFT JOIN routes r ON r.id = coalesce(l.route_id, l.short_id) AND r.kind = 'short'
     WHERE l.site_id = $site::bigint ORDER BY wanted.at`,
    { site: siteId, ids },
  );
}

/** The ids of all entries that a filter leaves, in the order of the text; at most so many. */
export async function ledgerIds(
  store: Store,
  siteId: string,
  filter: LedgerFilter,
  most: number,
): Promise<string[]> {
  const { where, bind, joins } = ledgerSql(siteId, filter);
  const rows = await store.rows<{ id: string }>(
    `SELECT l.id::text FROM ledger_links l ${joins} WHERE ${where} ORDER BY l.place, l.source_id, l.ordinal LIMIT ${most}`,
    bind,
  );
  return rows.map(({ id }) => id);
}

/** A link as a change of many looks at it, with the document that it stands in. */
export interface ChangedRow {
  id: string;
  ordinal: number;
  words: string;
  href: string;
  override: string | null;
  ends: string;
  kind_of_link: string;
  destination_key: string;
  route_id: string | null;
  place: string;
  title: string;
  page_id: string;
  kind: LedgerPlace;
  edition: "both" | "draft" | "published";
  stamp: string;
}

/**
 * Entries by their ids, document by document. With `published`, the same links of what readers get of the same pages
 * come along, where that differs from the draft.
 */
export async function readForChange(
  store: Store,
  siteId: string,
  ids: readonly string[],
  published: boolean,
): Promise<ChangedRow[]> {
  return store.rows<ChangedRow>(
    `WITH chosen AS (SELECT l.id, l.source_id, l.edition, l.href, l.words FROM ledger_links l WHERE l.site_id = $site::bigint AND l.id = ANY($ids::bigint[])),
     wanted AS (SELECT id FROM chosen WHERE $published::boolean OR edition <> 'published'
       UNION SELECT other.id FROM chosen c JOIN ledger_sources s ON s.id = c.source_id AND c.edition = 'draft'
         JOIN ledger_sources t ON t.site_id = s.site_id AND t.page_id = s.page_id AND t.edition = 'published'
         JOIN ledger_links other ON other.source_id = t.id AND other.href = c.href AND other.words = c.words WHERE $published::boolean)
     SELECT l.id::text, l.ordinal, l.words, l.href, l.override, l.ends, l.kind AS kind_of_link, l.destination_key, l.route_id::text, l.place,
       s.title, s.page_id::text, s.kind, s.edition, s.stamp
     FROM wanted w JOIN ledger_links l ON l.id = w.id ${SOURCE} ORDER BY l.place, l.source_id, l.ordinal`,
    { site: siteId, ids, published },
  );
}

/** What stands at these entries of the ledger now, as far as it is there. */
export function ledgerEntries(
  store: Store,
  siteId: string,
  ids: readonly string[],
): Promise<{ id: string; where: string; href: string; edition: string }[]> {
  return store.rows(
    `SELECT l.id::text, CASE WHEN s.kind IN ('page', 'read') THEN l.place ELSE s.title END AS "where", l.href, l.edition FROM ledger_links l ${SOURCE}
     WHERE l.site_id = $site::bigint AND l.id = ANY($ids::bigint[])`,
    { site: siteId, ids },
  );
}

export interface FacetRow {
  facet: string;
  value: string;
  links: number;
}

const MAX_OF_FACET = 60;

interface Combination {
  kind: string;
  treatment: string;
  reach: string;
  target: string | null;
  anchor: string;
  host: string;
  via: string;
  source_kind: string;
  rules: string[];
  programs: string[];
  text_findings: string[];
  rule_findings: string[];
  links: number;
}

/**
 * What a filter leaves, counted by everything that it can be narrowed by further. The links are gone through once:
 * of what there is to count by they have far fewer combinations than there are links.
 */
export async function countFacets(store: Store, siteId: string, filter: LedgerFilter): Promise<FacetRow[]> {
  const { where, bind, joins } = ledgerSql(siteId, filter);
  const combinations = await store.rows<Combination>(
    `WITH combinations AS MATERIALIZED (
       SELECT min(l.id) AS id, count(*)::int AS links FROM ledger_links l ${joins} WHERE ${where} GROUP BY l.facet_key)
     SELECT l.kind, l.treatment, l.reach, l.target, l.anchor, l.host, l.via, l.source_kind, l.rules, l.programs, l.text_findings, l.rule_findings, c.links
     FROM combinations c JOIN ledger_links l ON l.id = c.id`,
    bind,
  );
  const facets = new Map<string, Map<string, number>>();
  const add = (facet: string, value: string, links: number): void => {
    let counts = facets.get(facet);
    if (!counts) facets.set(facet, (counts = new Map()));
    counts.set(value, (counts.get(value) ?? 0) + links);
  };
  for (const one of combinations) {
    const { links } = one;
    add("kind", one.kind, links);
    add("target", one.target === "_blank" ? "new" : "same", links);
    add("anchor", one.anchor, links);
    add("place", one.source_kind, links);
    if (one.reach === "external") add("treatment", one.treatment, links);
    if (one.host !== "") add("host", one.host, links);
    if (one.via !== "") add("host", one.via, links);
    for (const rule of one.rules) add("rule", rule, links);
    for (const program of one.programs) add("program", program, links);
    for (const finding of [...one.text_findings, ...one.rule_findings]) add("finding", finding, links);
  }
  return [...facets].flatMap(([facet, counts]) =>
    [...counts]
      .map(([value, links]) => ({ facet, value, links }))
      .sort((a, b) => b.links - a.links || (a.value < b.value ? -1 : 1))
      .slice(0, MAX_OF_FACET),
  );
}

/** Entries counted by host or by page, with how many of the outside ones are treated how. */
export interface LedgerGroupRow {
  value: string;
  title: string;
  place: LedgerPlace | null;
  links: number;
  outside: number;
  sponsored: number;
  ugc: number;
  nofollow: number;
  plain: number;
  newTab: number;
  findings: number;
}

/** The ledger by host (outside links alone) or by page, most links first. */
export async function groupLedger(
  store: Store,
  siteId: string,
  filter: LedgerFilter,
  by: "host" | "page",
  page: { limit: number; offset: number },
): Promise<{ rows: LedgerGroupRow[]; total: number }> {
  const { where, bind, joins } = ledgerSql(siteId, filter);
  const outside = "l.reach = 'external'";
  const treated = (treatment: string): string =>
    `count(*) FILTER (WHERE ${outside} AND l.treatment = '${treatment}')::int AS ${treatment}`;
  const key = by === "host" ? "l.host" : "l.place";
  const rows = await store.rows<LedgerGroupRow & { total: number }>(
    `SELECT ${key} AS value, ${by === "host" ? "''" : "coalesce((SELECT title FROM ledger_sources d WHERE d.id = min(l.source_id)), '')"} AS title,
       ${by === "host" ? "NULL::text" : "min(l.source_kind)"} AS place,
       count(*)::int AS links, count(*) FILTER (WHERE ${outside})::int AS outside,
       ${["sponsored", "ugc", "nofollow", "plain"].map(treated).join(", ")},
       count(*) FILTER (WHERE l.target = '_blank')::int AS "newTab",
       sum(cardinality(l.text_findings) + cardinality(l.rule_findings))::int AS findings, count(*) OVER ()::int AS total
     FROM ledger_links l ${joins} WHERE ${where} ${by === "host" ? "AND l.host <> ''" : ""}
     GROUP BY 1 ORDER BY links DESC, 1 LIMIT ${page.limit} OFFSET ${page.offset}`,
    bind,
  );
  return { rows: rows.map(({ total: _, ...row }) => row), total: rows[0]?.total ?? 0 };
}

/** Documents that readers get and that have a finding as a whole: path and title, by path. */
export function documentsWith(
  store: Store,
  siteId: string,
  finding: FindingCode,
  limit: number,
): Promise<{ page: string; title: string }[]> {
  return store.rows(
    `SELECT CASE WHEN kind IN ('page', 'read') THEN path ELSE '' END AS page, title FROM ledger_sources
     WHERE site_id = $site::bigint AND edition <> 'draft' AND live AND $finding = ANY(findings) ORDER BY path LIMIT ${limit}`,
    { site: siteId, finding },
  );
}
