import type { Transaction } from "sequelize";
import type { Store } from "../ground/store.ts";

const KEPT_DAYS = 90;
/** Open misses that a site keeps at most, and how many are left when some have to go. */
export const MAX_MISSES = 10_000;
const LEFT = 9_000;

/**
 * Forgets what nobody has asked for in three months and only robots, or one reader once, ever did; what people asked
 * for again, or came to from somewhere, stays until it is dealt with.
 */
export async function forgetOldMisses(store: Store, now: number): Promise<void> {
  await store.rows(
    `DELETE FROM misses WHERE (times = 0 OR probe OR (times = 1 AND referrers = '{}')) AND ignored_at IS NULL
       AND last_seen < $before::timestamptz RETURNING id`,
    { before: new Date(now - KEPT_DAYS * 86_400_000).toISOString() },
  );
}

/**
 * Keeps the misses of sites within their bound, whoever asks for whatever addresses: those go first that nobody was led
 * to and that were asked for least and longest ago. What somebody has decided about stays. How many went is kept, to
 * be told.
 */
export async function keepWithinBound(
  store: Store,
  sites: readonly string[],
  transaction: Transaction,
): Promise<void> {
  await store.rows(
    `WITH full_sites AS (
       SELECT site_id FROM misses WHERE site_id = ANY($sites::bigint[]) AND resolved_at IS NULL AND ignored_at IS NULL
       GROUP BY site_id HAVING count(*) > ${MAX_MISSES}),
     ranked AS (
       SELECT m.id, row_number() OVER (PARTITION BY m.site_id
         ORDER BY m.probe, m.referrers = '{}', least(m.times, 1000) DESC, m.last_seen DESC, m.id DESC) AS place
       FROM misses m JOIN full_sites USING (site_id) WHERE m.resolved_at IS NULL AND m.ignored_at IS NULL),
     gone AS (DELETE FROM misses m USING ranked r WHERE m.id = r.id AND r.place > ${LEFT} RETURNING m.site_id)
     INSERT INTO misses_let_go AS g (site_id, misses, last_at) SELECT site_id, count(*), now() FROM gone GROUP BY site_id
     ON CONFLICT (site_id) DO UPDATE SET misses = g.misses + excluded.misses, last_at = excluded.last_at RETURNING site_id`,
    { sites },
    transaction,
  );
}

/** How many misses a site has let go of, and when last; undefined when it never had to. */
export async function missesLetGo(
  store: Store,
  siteId: string,
): Promise<{ misses: number; lastAt: Date } | undefined> {
  const [row] = await store.rows<{ misses: string; lastAt: Date }>(
    'SELECT misses::text, last_at AS "lastAt" FROM misses_let_go WHERE site_id = $siteId::bigint',
    { siteId },
  );
  return row && { misses: Number(row.misses), lastAt: row.lastAt };
}
