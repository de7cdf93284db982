import type { ChangedLink } from "../../core/origin/front/front-rewriter.ts";
import type { Store } from "../ground/store.ts";

/** What passed through us on its way from an origin to readers. */
export interface FrontCounts {
  passed: number;
  pages: number;
  changedPages: number;
  links: number;
  changedLinks: number;
  misses: number;
  failures: number;
}

/** One link that was, or would be, changed. */
export interface FrontSample extends ChangedLink {
  page: string;
}

/** Of each site so many samples are kept, the newest. */
const MOST_SAMPLES = 200;

/** Adds to what is counted of a site today, and keeps samples. */
export async function addFrontCounts(
  store: Store,
  of: { site: string; counts: FrontCounts; samples: readonly FrontSample[] },
): Promise<void> {
  const { passed, pages, changedPages, links, changedLinks, misses, failures } = of.counts;
  await store.transaction(async (transaction) => {
    await store.rows(
      `INSERT INTO front_counts AS c (site_id, day, passed, pages, changed_pages, links, changed_links, misses, failures)
       SELECT id, current_date, $passed::bigint, $pages::bigint, $changedPages::bigint, $links::bigint, $changedLinks::bigint, $misses::bigint, $failures::bigint
       FROM sites WHERE id = $site::bigint
       ON CONFLICT (site_id, day) DO UPDATE SET passed = c.passed + excluded.passed, pages = c.pages + excluded.pages,
         changed_pages = c.changed_pages + excluded.changed_pages, links = c.links + excluded.links, changed_links = c.changed_links + excluded.changed_links,
         misses = c.misses + excluded.misses, failures = c.failures + excluded.failures RETURNING site_id`,
      { site: of.site, passed, pages, changedPages, links, changedLinks, misses, failures },
      transaction,
    );
    if (of.samples.length === 0) return;
    await store.rows(
      `INSERT INTO front_samples AS s (site_id, page, words, href, before, after)
       SELECT DISTINCT ON (page, words, before->>'href') id, page, words, before->>'href', before, after
       FROM sites CROSS JOIN jsonb_to_recordset($rows::jsonb) AS r (page text, words text, before jsonb, after jsonb) WHERE id = $site::bigint
       ON CONFLICT (site_id, page, words, href) DO UPDATE SET before = excluded.before, after = excluded.after, at = now() RETURNING page`,
      { site: of.site, rows: JSON.stringify(of.samples) },
      transaction,
    );
    await store.rows(
      `DELETE FROM front_samples WHERE site_id = $site::bigint AND (page, words, href) NOT IN (
         SELECT page, words, href FROM front_samples WHERE site_id = $site::bigint ORDER BY at DESC, page LIMIT ${MOST_SAMPLES}) RETURNING page`,
      { site: of.site },
      transaction,
    );
  });
}

/** What passed through us in the last days. */
export async function frontCounts(store: Store, of: { site: string; days: number }): Promise<FrontCounts> {
  const [row] = await store.rows<FrontCounts>(
    `SELECT coalesce(sum(passed), 0)::int AS passed, coalesce(sum(pages), 0)::int AS pages, coalesce(sum(changed_pages), 0)::int AS "changedPages",
       coalesce(sum(links), 0)::int AS links, coalesce(sum(changed_links), 0)::int AS "changedLinks", coalesce(sum(misses), 0)::int AS misses,
       coalesce(sum(failures), 0)::int AS failures
     FROM front_counts WHERE site_id = $site::bigint AND day > current_date - $days::int`,
    of,
  );
  return row!;
}

/** Links that were, or would be, changed, the newest first. */
export function frontSamples(store: Store, of: { site: string; most: number }): Promise<FrontSample[]> {
  return store.rows<FrontSample>(
    "SELECT page, words, before, after FROM front_samples WHERE site_id = $site::bigint ORDER BY at DESC, page, words LIMIT $most::int",
    of,
  );
}
