import type { Migration } from "../migration.ts";

// The programs that a network's report may speak of, by each of their names; a program's own name goes first.
const NAMED = `CREATE TEMPORARY TABLE named_010 ON COMMIT DROP AS
  SELECT p.site_id, p.id AS program_id, lower(p.network) AS network, lower(n.name) AS name, n.own
  FROM programs p, LATERAL (SELECT p.name, 0 UNION ALL SELECT jsonb_array_elements_text(p.terms->'reportNames'), 1) AS n (name, own)
  WHERE p.deleted_at IS NULL`;
const OWNERS = `CREATE TEMPORARY TABLE owners_010 ON COMMIT DROP AS
  SELECT DISTINCT ON (o.site_id, o.program_id, o.sub_id) o.site_id, o.program_id, o.sub_id, o.page_id, lower(p.network) AS network, lower(p.name) AS name
  FROM (SELECT site_id, program_id, sub_id, page_id, 0 AS closeness, id FROM issued_links
    UNION ALL SELECT l.site_id, p.id, l.sub_id, s.page_id, 1, l.id FROM ledger_links l JOIN ledger_sources s ON s.id = l.source_id
      JOIN programs p ON p.site_id = l.site_id AND p.deleted_at IS NULL AND p.name = ANY(l.programs) WHERE s.kind = 'page'
    UNION ALL SELECT site_id, program_id, sub_id, NULL, 2, route_id FROM program_routes) o
  JOIN programs p ON p.id = o.program_id AND p.deleted_at IS NULL
  WHERE o.sub_id <> '' ORDER BY o.site_id, o.program_id, o.sub_id, o.closeness, o.id DESC`;
const INDEXES = [
  "CREATE INDEX ON named_010 (site_id, name)",
  "CREATE INDEX ON owners_010 (site_id, sub_id)",
  "ANALYZE named_010",
  "ANALYZE owners_010",
];

/**
 * Rows that were credited wrongly: to a program of another network, or to one while the row names another. Each goes to
 * the program that it names where its sub-ID does not say otherwise, else to the one program of the network that has its
 * sub-ID, else to none. What was changed stands in the audit log, by program.
 */
const corrected = (table: "conversions" | "network_clicks"): string => `WITH judged AS (
    SELECT c.ctid AS at, c.program_id AS was, named.program_id AS named, owners.count AS owners, owners.one, owners.page, same.page_id AS same_page, same.program_id AS same
    FROM ${table} c JOIN programs p ON p.id = c.program_id
    LEFT JOIN LATERAL (SELECT n.program_id FROM named_010 n WHERE n.site_id = c.site_id AND n.name = lower(c.program_word) AND c.program_word <> ''
      AND (n.network = lower(c.network) OR n.network = '') ORDER BY n.own LIMIT 1) named ON true
    LEFT JOIN LATERAL (SELECT count(*) AS count, min(o.program_id) AS one, min(o.page_id) AS page FROM owners_010 o
      WHERE o.site_id = c.site_id AND o.sub_id = c.sub_id AND coalesce(nullif(o.network, ''), o.name) = lower(c.network)) owners ON true
    LEFT JOIN owners_010 same ON same.site_id = c.site_id AND same.sub_id = c.sub_id AND same.program_id = named.program_id
    WHERE (p.network <> '' AND lower(p.network) <> lower(c.network)) OR (named.program_id IS NOT NULL AND named.program_id <> c.program_id)),
  put AS (SELECT at, was,
      CASE WHEN same IS NOT NULL THEN same WHEN named IS NOT NULL AND owners = 0 THEN named WHEN named IS NULL AND owners = 1 THEN one END AS program,
      CASE WHEN same IS NOT NULL THEN same_page WHEN named IS NULL AND owners = 1 THEN page END AS page FROM judged),
  changed AS (UPDATE ${table} c SET program_id = put.program, page_id = put.page FROM put WHERE c.ctid = put.at AND c.program_id IS DISTINCT FROM put.program
    RETURNING c.site_id, c.network, put.was, put.program AS now)
  INSERT INTO audit (actor, site_id, action, object, detail)
  SELECT 'Map Rope', site_id, 'earnings.correct', was::text, jsonb_build_object('rows', count(*), 'of', '${table}', 'network', network,
    'was', (SELECT name FROM programs WHERE id = was), 'now', (SELECT name FROM programs WHERE id = now))
  FROM changed GROUP BY site_id, network, was, now ORDER BY site_id, was, now`;

/** Rows of reports belong to programs of their network, and to none where they contradict themselves. */
export const credits: Migration = {
  name: "010-credits",
  statements: [NAMED, OWNERS, ...INDEXES, corrected("conversions"), corrected("network_clicks")],
};
