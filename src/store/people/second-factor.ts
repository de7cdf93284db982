import type { Transaction } from "sequelize";
import type { Store } from "../ground/store.ts";

/** A person's second factor as it is kept. */
export interface SecondFactorRow {
  /** Sealed; null: there is none. */
  secret: string | null;
  /** Null: begun, and not confirmed by a code yet. */
  since: Date | null;
  /** How many recovery codes are left. */
  left: number;
}

/** A person's second factor; no row when there is no such person. */
export function secondFactorOf(store: Store, of: { person: string }): Promise<SecondFactorRow[]> {
  return store.rows<SecondFactorRow>(
    `SELECT totp_secret AS secret, totp_since AS since, cardinality(recovery_hashes) AS left
     FROM people WHERE id = $person::bigint`,
    of,
  );
}

/** Begins a second factor; it counts once it is confirmed. One that counts stays as it is: answers whether it was begun. */
export async function beginSecondFactor(
  store: Store,
  of: { person: string; secret: string },
  transaction: Transaction,
): Promise<boolean> {
  const begun = await store.rows<{ id: string }>(
    `UPDATE people SET totp_secret = $secret, totp_step = NULL
     WHERE id = $person::bigint AND totp_since IS NULL RETURNING id::text`,
    of,
    transaction,
  );
  return begun.length > 0;
}

/** Lets a second factor count from now on, with its recovery codes, by their hashes. */
export async function confirmSecondFactor(
  store: Store,
  of: { person: string; step: string; recovery: readonly string[] },
  transaction: Transaction,
): Promise<boolean> {
  const confirmed = await store.rows<{ id: string }>(
    `UPDATE people SET totp_since = now(), totp_step = $step::bigint, recovery_hashes = $recovery::text[]
     WHERE id = $person::bigint AND totp_secret IS NOT NULL AND totp_since IS NULL RETURNING id::text`,
    of,
    transaction,
  );
  return confirmed.length > 0;
}

/** Puts new recovery codes, by their hashes, in place of those that there are. */
export async function replaceRecovery(
  store: Store,
  of: { person: string; recovery: readonly string[] },
  transaction: Transaction,
): Promise<void> {
  await store.rows(
    "UPDATE people SET recovery_hashes = $recovery::text[] WHERE id = $person::bigint RETURNING id",
    of,
    transaction,
  );
}

/** Takes a person's second factor away. */
export async function dropSecondFactor(
  store: Store,
  of: { person: string },
  transaction: Transaction,
): Promise<void> {
  await store.rows(
    `UPDATE people SET totp_secret = NULL, totp_since = NULL, totp_step = NULL, recovery_hashes = '{}'
     WHERE id = $person::bigint RETURNING id`,
    of,
    transaction,
  );
}

/** Uses the code of a step up, once: answers whether it, and no later one, was used before. */
export async function useStep(store: Store, of: { person: string; step: string }): Promise<boolean> {
  const used = await store.rows<{ id: string }>(
    `UPDATE people SET totp_step = $step::bigint
     WHERE id = $person::bigint AND totp_since IS NOT NULL AND (totp_step IS NULL OR totp_step < $step::bigint) RETURNING id::text`,
    of,
  );
  return used.length > 0;
}

/** Uses a recovery code up, by its hash; answers whether it was there. */
export async function useRecovery(store: Store, of: { person: string; hash: string }): Promise<boolean> {
  const used = await store.rows<{ id: string }>(
    `UPDATE people SET recovery_hashes = array_remove(recovery_hashes, $hash)
     WHERE id = $person::bigint AND $hash = ANY(recovery_hashes) RETURNING id::text`,
    of,
  );
  return used.length > 0;
}

/** Everybody's second factor as it is sealed, locked. */
export function sealedSecondFactors(
  store: Store,
  transaction: Transaction,
): Promise<{ person: string; mail: string; secret: string }[]> {
  return store.rows(
    `SELECT id::text AS person, email AS mail, totp_secret AS secret FROM people
     WHERE totp_secret IS NOT NULL ORDER BY id FOR UPDATE`,
    {},
    transaction,
  );
}

/** Keeps a second factor as it is sealed anew. */
export async function keepSecondFactorSecret(
  store: Store,
  of: { person: string; secret: string },
  transaction: Transaction,
): Promise<void> {
  await store.rows(
    "UPDATE people SET totp_secret = $secret WHERE id = $person::bigint RETURNING id::text",
    of,
    transaction,
  );
}
