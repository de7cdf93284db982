import type { Transaction } from "sequelize";
import type { Store } from "./store.ts";

/** Asks the database for an answer. */
export function ping(store: Store): Promise<object[]> {
  return store.rows("SELECT 1 AS one");
}

/** What the database is, how large, and what its clock says. */
export async function databaseFacts(store: Store): Promise<{ version: string; bytes: string; at: Date }> {
  const [facts] = await store.rows<{ version: string; bytes: string; at: Date }>(
    "SELECT current_setting('server_version') AS version, pg_database_size(current_database())::text AS bytes, clock_timestamp() AS at",
  );
  return facts!;
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

/** Whether everybody needs a second factor. */
export async function requiresSecondFactor(store: Store): Promise<boolean> {
  const rows = await store.rows<{ value: string }>(
    "SELECT value FROM installation WHERE name = 'second-factor'",
  );
  return rows[0]?.value === "required";
}

/** Says whether everybody needs a second factor. */
export async function setSecondFactorRule(
  store: Store,
  rule: "optional" | "required",
  transaction: Transaction,
): Promise<void> {
  await store.rows(
    `INSERT INTO installation (name, value) VALUES ('second-factor', $rule)
     ON CONFLICT (name) DO UPDATE SET value = excluded.value RETURNING name`,
    { rule },
    transaction,
  );
}

/** Whether a database has tables of ours. */
export async function hasTables(store: Store): Promise<boolean> {
  const [row] = await store.rows<{ is: boolean }>("SELECT to_regclass('sites') IS NOT NULL AS is");
  return row!.is;
}

/** How many rows the tables have that say what an installation holds. */
export interface RowCounts {
  sites: number;
  people: number;
  pages: number;
  files: number;
  routes: number;
  programs: number;
  clicks: number;
  history: number;
}

/** Counts them; one row. */
export async function rowCounts(store: Store): Promise<RowCounts> {
  const [counts] = await store.rows<RowCounts>(
    `SELECT (SELECT count(*)::int FROM sites) AS sites, (SELECT count(*)::int FROM people) AS people,
       (SELECT count(*)::int FROM pages) AS pages, (SELECT count(*)::int FROM files) AS files,
       (SELECT count(*)::int FROM routes) AS routes, (SELECT count(*)::int FROM programs) AS programs,
       (SELECT count(*)::int FROM clicks) AS clicks, (SELECT count(*)::int FROM audit) AS history`,
  );
  return counts!;
}

/** When the server that answers was started, by which it is told from another one. */
export async function serverStart(store: Store): Promise<string> {
  const [row] = await store.rows<{ at: string }>("SELECT pg_postmaster_start_time()::text AS at");
  return row!.at;
}
