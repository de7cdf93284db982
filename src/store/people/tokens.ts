import type { Transaction } from "sequelize";
import type { Role } from "../../core/people/choices.ts";
import type { TokenRow } from "../ground/models.ts";
import { isRowId } from "../ground/row-ids.ts";
import type { Store } from "../ground/store.ts";
import { SITE_ROLES } from "./people.ts";

/** A token with what its person, if it has one, may do. */
export interface UsedToken {
  id: string;
  name: string;
  role: Role;
  siteIds: string[] | null;
  person: string | null;
  personName: string | null;
  personRole: Role | null;
  personSites: Record<string, Role>;
}

/** Whose API token this is, by its hash, and notes that it was used and from where; none when it or its person has ended. */
export function useToken(store: Store, of: { hash: string; place: string }): Promise<UsedToken[]> {
  return store.rows<UsedToken>(
    `WITH used AS (UPDATE tokens SET last_used_at = now(), last_used_from = $place
       WHERE token_hash = $hash AND (expires_at IS NULL OR expires_at > now()) RETURNING id, name, role, site_ids, person_id)
     SELECT t.id::text, t.name, t.role, t.site_ids::text[] AS "siteIds", p.id::text AS person, p.name AS "personName", p.role AS "personRole",
       ${SITE_ROLES} AS "personSites"
     FROM used t LEFT JOIN people p ON p.id = t.person_id WHERE t.person_id IS NULL OR p.deactivated_at IS NULL`,
    of,
  );
}

/** The API tokens of a person, or of the installation (null), the newest first. */
export function tokensOf(store: Store, personId: string | null): Promise<TokenRow[]> {
  return store.tokens.findAll({ where: { personId }, order: [["id", "DESC"]] });
}

/** Keeps a new API token, by its hash. */
export function insertToken(
  store: Store,
  token: Pick<TokenRow, "name" | "role" | "tokenHash" | "expiresAt" | "personId" | "siteIds">,
  transaction: Transaction,
): Promise<TokenRow> {
  return store.tokens.create(token, { transaction });
}

/** Ends an API token of a person, or of the installation (null); answers whether there was one. */
export async function endToken(
  store: Store,
  { id, personId }: { id: string; personId: string | null },
  transaction: Transaction,
): Promise<boolean> {
  return isRowId(id) && (await store.tokens.destroy({ where: { id, personId }, transaction })) > 0;
}
