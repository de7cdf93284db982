import type { Migration } from "../migration.ts";

// The n-th `%26` of a key was the n-th `&` or `%26` of the text that it was made from.
const AS_WRITTEN = `CREATE FUNCTION pg_temp.as_written(key text, source text) RETURNS text LANGUAGE sql AS $$
  SELECT string_agg(part || coalesce(sign[1], CASE WHEN n < count THEN '&' ELSE '' END), '' ORDER BY n)
  FROM (SELECT part, n, count(*) OVER () AS count FROM unnest(string_to_array(key, '%26')) WITH ORDINALITY AS p (part, n)) parts
  LEFT JOIN regexp_matches(source, '&|%26', 'g') WITH ORDINALITY AS s (sign, m) ON m = n AND n < count $$`;
const HAS = (column: string): string => `strpos(${column}, '%26') > 0`;
// A compared address keeps what stands behind its question mark.
const PATH_OF = (key: string, source: string): string =>
  `pg_temp.as_written(split_part(${key}, '?', 1), split_part(split_part(${source}, '#', 1), '?', 1)) || substr(${key}, length(split_part(${key}, '?', 1)) + 1)`;

/** An ampersand in a path is itself (RFC 3986 section 3.3); until now it was kept as if it had been written `%26`. */
export const ampersands: Migration = {
  name: "008-ampersands",
  statements: [
    AS_WRITTEN,
    // A route's address or alias is found again by being the same but for its ampersands; patterns are kept as they are written.
    `UPDATE route_addresses a SET key = pg_temp.as_written(a.key, coalesce(
        (SELECT one FROM unnest(r.address || r.aliases) AS one
          WHERE lower(replace(one, '&', '%26')) = lower(regexp_replace(a.key, '^[a-z]+:', '')) LIMIT 1), r.address))
      FROM routes r WHERE r.id = a.route_id AND r.match <> 'pattern' AND ${HAS("a.key")}`,
    `UPDATE routes SET destination_key = ${PATH_OF("destination_key", "destination")} WHERE ${HAS("split_part(destination_key, '?', 1)")}`,
    `UPDATE pages SET key = pg_temp.as_written(key, path) WHERE ${HAS("key")}`,
    `UPDATE pages SET published_key = pg_temp.as_written(published_key, published->>'path') WHERE ${HAS("published_key")}`,
    // Links of a text are many: where it has an encoded ampersand anywhere, they wait until it is saved.
    `UPDATE pages SET link_keys = ARRAY(SELECT ${PATH_OF("one", "''")} FROM unnest(link_keys) AS one)
      WHERE ${HAS("link_keys::text")} AND NOT ${HAS("html")}`,
    // Readers type and follow an ampersand as it is.
    `UPDATE misses SET key = replace(key, '%26', '&') WHERE ${HAS("key")}`,
    `UPDATE clicks SET page = replace(page, '%26', '&') WHERE ${HAS("page")}`,
    `UPDATE click_counts SET key = replace(key, '%26', '&') WHERE facet = 'page' AND ${HAS("key")}`,
    // The ledger of a site that has such links is made anew.
    `DELETE FROM ledger_states s WHERE EXISTS (SELECT FROM ledger_links l
      WHERE l.site_id = s.site_id AND (${HAS("l.own_key")} OR ${HAS("l.destination_key")}))`,
  ],
};
