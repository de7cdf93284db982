import type { Transaction } from "sequelize";
import type { Store } from "../ground/store.ts";

/** Keeps a link with which a person chooses a password, by the hash of its token; an earlier one ends. */
export async function insertReset(
  store: Store,
  of: { hash: string; person: string; expires: Date },
  transaction: Transaction,
): Promise<void> {
  await store.rows(
    `WITH gone AS (DELETE FROM password_resets WHERE person_id = $person::bigint OR expires_at < now())
     INSERT INTO password_resets (token_hash, person_id, expires_at) VALUES ($hash, $person::bigint, $expires)`,
    of,
    transaction,
  );
}

/** Whose link this is, by the hash of its token; no row when it has ended. */
export function personOfReset(store: Store, of: { hash: string }): Promise<{ person: string }[]> {
  return store.rows<{ person: string }>(
    `SELECT r.person_id::text AS person FROM password_resets r JOIN people p ON p.id = r.person_id
     WHERE r.token_hash = $hash AND r.expires_at > now() AND p.deactivated_at IS NULL`,
    of,
  );
}

/** Uses a link up; answers whether it was still there. */
export async function takeReset(
  store: Store,
  of: { hash: string },
  transaction: Transaction,
): Promise<boolean> {
  const taken = await store.rows<{ person: string }>(
    "DELETE FROM password_resets WHERE token_hash = $hash AND expires_at > now() RETURNING person_id::text AS person",
    of,
    transaction,
  );
  return taken.length > 0;
}
