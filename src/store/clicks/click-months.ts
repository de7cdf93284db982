import { LOCKS } from "../ground/locks.ts";
import type { Store } from "../ground/store.ts";

const DAY = 86_400_000;

// Months whose partition is there already, for each database that this process writes to.
const known = new WeakMap<Store, Set<string>>();

/** Makes the partitions that clicks of these moments need. Several processes may do so at once. */
export async function ensureMonths(store: Store, moments: readonly number[]): Promise<void> {
  let there = known.get(store);
  if (!there) known.set(store, (there = new Set()));
  // Days first: there are few of them, and naming a month for every click was a sixth of copying it.
  const days = new Set(moments.map((at) => Math.floor(at / DAY)));
  for (const month of new Set([...days].map((day) => monthOf(day * DAY)))) {
    if (there.has(month)) continue;
    await store.transaction(async (transaction) => {
      await store.rows("SELECT pg_advisory_xact_lock($lock)", { lock: LOCKS.months }, transaction);
      await store.sequelize.query(
        `CREATE TABLE IF NOT EXISTS clicks_${month.replace("-", "_")} PARTITION OF clicks
         FOR VALUES FROM ('${month}-01 00:00:00+00') TO ('${nextMonth(month)}-01 00:00:00+00')`,
        { transaction },
      );
    });
    there.add(month);
  }
}

/**
 * Drops what each site no longer keeps: whole months by their partition when no site wants them, else the rows of
 * the sites that do not. Counts stay. Answers how many months went.
 */
export async function dropOldMonths(store: Store, now: number): Promise<number> {
  const sites = await store.rows<{ id: string; months: number }>(
    "SELECT id::text, click_months AS months FROM sites",
  );
  if (sites.length === 0) return 0;
  const partitions = await store.rows<{ name: string }>(
    `SELECT c.relname AS name FROM pg_inherits i JOIN pg_class c ON c.oid = i.inhrelid
     WHERE i.inhparent = 'clicks'::regclass AND c.relname ~ '^clicks_\\d{4}_\\d\\d$' ORDER BY 1`,
  );
  let dropped = 0;
  for (const { name } of partitions) {
    const age = monthsBetween(name.slice(7).replace("_", "-"), monthOf(now));
    const leaving = sites.filter(({ months }) => age > months);
    if (leaving.length === sites.length) {
      await store.sequelize.query(`DROP TABLE ${name}`);
      known.get(store)?.delete(name.slice(7).replace("_", "-"));
      dropped += 1;
    } else if (leaving.length > 0) {
      await store.rows(
        `DELETE FROM ${name} WHERE route_id IN (SELECT id FROM routes WHERE site_id = ANY($sites::bigint[]))`,
        { sites: leaving.map(({ id }) => id) },
      );
    }
  }
  return dropped;
}

function monthOf(at: number): string {
  return new Date(at).toISOString().slice(0, 7);
}

function nextMonth(month: string): string {
  const [year, number] = month.split("-").map(Number) as [number, number];
  return number === 12 ? `${year + 1}-01` : `${year}-${String(number + 1).padStart(2, "0")}`;
}

function monthsBetween(earlier: string, later: string): number {
  const index = (month: string): number => Number(month.slice(0, 4)) * 12 + Number(month.slice(5, 7));
  return index(later) - index(earlier);
}
