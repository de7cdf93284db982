import type { Store } from "../ground/store.ts";

/** Something that attempts are counted by, and how many pass before they have to wait. */
export interface AttemptCount {
  who: string;
  free: number;
}

/** How long attempts are remembered after the last one, and the longest that the next has to wait. */
const REMEMBERED_MINUTES = 15;

/**
 * Counts an attempt, in one statement and before anything is compared, so that any number of attempts at once are as
 * many as one after another. Answers 0 when it may go on, else the seconds until the next may: they double with each
 * attempt beyond the free ones. An attempt that has to wait is not counted. What another attempt has left is held against
 * the clock, not against this statement's beginning: one that waited for the other's row would find it in its future.
 */
export async function countAttempt(store: Store, counts: readonly AttemptCount[]): Promise<number> {
  const sorted = [...counts].sort((a, b) => (a.who < b.who ? -1 : 1));
  const [row] = await store.rows<{ counted: number; wait: number }>(
    `WITH asked AS (SELECT * FROM unnest($who::text[], $free::int[]) AS a (who, free)),
     counted AS (
       INSERT INTO attempts AS t (who, tries, at, until) SELECT who, 1, now(), now() FROM asked
       ON CONFLICT (who) DO UPDATE SET
         tries = CASE WHEN t.at < now() - interval '${REMEMBERED_MINUTES} minutes' THEN 1 ELSE t.tries + 1 END, at = now(),
         until = CASE WHEN t.at < now() - interval '${REMEMBERED_MINUTES} minutes' THEN now()
           ELSE now() + least(${REMEMBERED_MINUTES * 60}, CASE WHEN t.tries + 1 < (SELECT a.free FROM asked a WHERE a.who = t.who) THEN 0
             ELSE 2 ^ least(20, t.tries + 2 - (SELECT a.free FROM asked a WHERE a.who = t.who)) END) * interval '1 second' END
       WHERE t.until <= clock_timestamp() RETURNING who)
     SELECT (SELECT count(*)::int FROM counted) AS counted,
       coalesce((SELECT ceil(extract(epoch FROM max(t.until) - now()))::int FROM attempts t JOIN asked USING (who)), 0) AS wait`,
    { who: sorted.map(({ who }) => who), free: sorted.map(({ free }) => free) },
  );
  return row!.counted === sorted.length ? 0 : Math.max(1, row!.wait);
}

/** Forgets attempts that came to a good end: those of the first key whole, of the others the last one. */
export async function forgiveAttempts(store: Store, [first, ...others]: readonly string[]): Promise<void> {
  await store.rows(
    `WITH forgotten AS (DELETE FROM attempts WHERE who = $first)
     UPDATE attempts SET tries = greatest(0, tries - 1), until = now() WHERE who = ANY($others::text[]) RETURNING who`,
    { first, others },
  );
}

/** Lets go of what is remembered no more. */
export async function clearOldAttempts(store: Store): Promise<void> {
  await store.rows("DELETE FROM attempts WHERE at < now() - interval '1 day' RETURNING who");
}

/** Notes that a person has signed in from a place; it is theirs for three months. */
export async function noteOwnPlace(store: Store, personId: string, place: string): Promise<void> {
  await store.rows(
    `WITH gone AS (DELETE FROM own_places WHERE last_at < now() - interval '90 days')
     INSERT INTO own_places (person_id, place) VALUES ($personId::bigint, $place)
     ON CONFLICT (person_id, place) DO UPDATE SET last_at = now() RETURNING place`,
    { personId, place },
  );
}

/** True for a place that the person has signed in from lately. */
export async function isOwnPlace(store: Store, personId: string, place: string): Promise<boolean> {
  const rows = await store.rows(
    `SELECT 1 AS one FROM own_places WHERE person_id = $personId::bigint AND place = $place AND last_at > now() - interval '90 days'`,
    { personId, place },
  );
  return rows.length > 0;
}
