import type { Store } from "../ground/store.ts";

export interface ReadingSums {
  links: number;
  sponsored: number;
  ugc: number;
  nofollow: number;
  plain: number;
  newTab: number;
  changed: number;
  dead: number;
  redirected: number;
  untracked: number;
  couldBeShort: number;
}

const TOKENS = (rel: string): string =>
  `(SELECT array_agg(DISTINCT t ORDER BY t) FROM regexp_split_to_table(lower(coalesce(${rel}, '')), '\\s+') AS t WHERE t <> '')`;
const SAYS = (token: string): string =>
  `(' ' || lower(coalesce(l.stored_rel, '')) || ' ') LIKE '% ${token} %'`;

/** A link of a page that is read elsewhere which is another there than the rules ask for. */
export const DIFFERS_THERE = `l.reach <> 'none' AND l.wanted_rel IS NOT NULL AND (${TOKENS("l.stored_rel")} IS DISTINCT FROM ${TOKENS("l.wanted_rel")}
  OR coalesce(nullif(lower(l.stored_target), '_self'), '') IS DISTINCT FROM coalesce(nullif(l.wanted_target, '_self'), ''))`;

/** The links of the pages that are read, as they are written there and as the rules in force would have them. */
export async function readingSums(store: Store, of: { site: string }): Promise<ReadingSums> {
  const outside = "l.reach = 'external'";
  const [row] = await store.rows<ReadingSums>(
    `SELECT count(*)::int AS links,
       count(*) FILTER (WHERE ${outside} AND ${SAYS("sponsored")})::int AS sponsored,
       count(*) FILTER (WHERE ${outside} AND NOT ${SAYS("sponsored")} AND ${SAYS("ugc")})::int AS ugc,
       count(*) FILTER (WHERE ${outside} AND NOT ${SAYS("sponsored")} AND NOT ${SAYS("ugc")} AND ${SAYS("nofollow")})::int AS nofollow,
       count(*) FILTER (WHERE ${outside} AND NOT ${SAYS("sponsored")} AND NOT ${SAYS("ugc")} AND NOT ${SAYS("nofollow")})::int AS plain,
       count(*) FILTER (WHERE ${outside} AND lower(l.stored_target) = '_blank')::int AS "newTab",
       count(*) FILTER (WHERE ${DIFFERS_THERE})::int AS changed,
       count(*) FILTER (WHERE l.kind = 'broken')::int AS dead,
       count(*) FILTER (WHERE 'redirected' = ANY(l.text_findings))::int AS redirected,
       count(*) FILTER (WHERE 'untracked' = ANY(l.text_findings))::int AS untracked,
       count(DISTINCT l.destination_key) FILTER (WHERE l.kind = 'external' AND l.programs <> '{}' AND l.short_id IS NULL)::int AS "couldBeShort"
     FROM ledger_links l WHERE l.site_id = $site::bigint AND l.source_kind IN ('read', 'repeated')`,
    of,
  );
  return row!;
}

/** The programs that links of the pages that are read lead to. */
export function readingPrograms(
  store: Store,
  of: { site: string },
): Promise<{ program: string; links: number }[]> {
  return store.rows<{ program: string; links: number }>(
    `SELECT program, count(*)::int AS links FROM ledger_links l CROSS JOIN LATERAL unnest(l.programs) AS program
     WHERE l.site_id = $site::bigint AND l.source_kind IN ('read', 'repeated') GROUP BY program ORDER BY 2 DESC, 1 LIMIT 100`,
    of,
  );
}
