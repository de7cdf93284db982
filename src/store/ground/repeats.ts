import type { Store } from "./store.ts";

/** Who made a call, and the key that they gave it. */
export interface RepeatKey {
  who: string;
  key: string;
}

/** A call that was made before with the same key. */
export interface Repeat {
  /** In short, what was asked for. */
  call: string;
  /** Null while it is worked on, and where its process ended meanwhile. */
  status: number | null;
  headers: Record<string, string> | null;
  /** Null where the answer is not kept. */
  body: string | null;
}

/** Notes that a call begins; answers the one that was made with its key before, if there is one. Both are one step. */
export async function beginRepeatable(
  store: Store,
  { who, key }: RepeatKey,
  call: string,
): Promise<Repeat | undefined> {
  const begun = await store.rows<{ key: string }>(
    `INSERT INTO repeats (who, key, call) VALUES ($who, $key, $call) ON CONFLICT (who, key) DO NOTHING RETURNING key`,
    { who, key, call },
  );
  if (begun.length > 0) return undefined;
  const [before] = await store.rows<Repeat>(
    `SELECT call, status, headers, body FROM repeats WHERE who = $who AND key = $key`,
    { who, key },
  );
  // It failed in this very moment, and is forgotten: the caller tries again.
  return before ?? { call, status: null, headers: null, body: null };
}

/** Keeps how a call was answered. */
export async function keepRepeat(
  store: Store,
  of: RepeatKey & { status: number; headers: Record<string, string>; body: string | null },
): Promise<void> {
  await store.rows(
    `UPDATE repeats SET status = $status::int, headers = $headers::jsonb, body = $body WHERE who = $who AND key = $key RETURNING key`,
    { ...of, headers: JSON.stringify(of.headers) },
  );
}

/** Forgets a call that did nothing. */
export async function dropRepeat(store: Store, { who, key }: RepeatKey): Promise<void> {
  await store.rows(`DELETE FROM repeats WHERE who = $who AND key = $key RETURNING key`, { who, key });
}

/** Forgets those that are older than a day; answers how many. */
export async function clearOldRepeats(store: Store): Promise<number> {
  const gone = await store.rows<{ key: string }>(
    `DELETE FROM repeats WHERE at < now() - interval '1 day' RETURNING key`,
  );
  return gone.length;
}
