import type { Store } from "./store.ts";

/** Asks the database for an answer. */
export function ping(store: Store): Promise<object[]> {
  return store.rows("SELECT 1 AS one");
}

/** Leaves the mark of a secret where there is none yet. */
export function addSecretMark(store: Store, of: { mark: undefined | string }): Promise<object[]> {
  return store.rows(
    "INSERT INTO installation (name, value) VALUES ('secret', $mark) ON CONFLICT DO NOTHING RETURNING name",
    of,
  );
}

/** The mark of the installation's secret. */
export function secretMarks(store: Store): Promise<{ value: string }[]> {
  return store.rows<{ value: string }>("SELECT value FROM installation WHERE name = 'secret'");
}

/** Replaces the mark of the secret. */
export function replaceSecretMark(store: Store, of: { mark: undefined | string }): Promise<object[]> {
  return store.rows("UPDATE installation SET value = $mark WHERE name = 'secret' RETURNING name", of);
}
