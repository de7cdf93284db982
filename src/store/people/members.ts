import type { Transaction } from "sequelize";
import type { PERSON_STATES } from "../../core/people/member.ts";
import type { Role } from "../../core/people/choices.ts";
import type { Store } from "../ground/store.ts";

type State = (typeof PERSON_STATES)[number];

// Whoever has no password yet has not chosen one by their link.
const STATE = `CASE WHEN p.deactivated_at IS NOT NULL THEN 'out' WHEN p.password_hash = '' THEN 'invited' ELSE 'active' END`;

/** A person with all that they may do. */
export interface PersonWithRoles {
  id: string;
  name: string;
  mail: string;
  role: Role | null;
  roles: { site: string; role: Role }[];
  state: State;
  hasSecondFactor: boolean;
  createdAt: Date;
  lastSeenAt: Date | null;
}

/** All people of the installation with their roles, by name; or one of them. */
export function peopleWithRoles(store: Store, of: { id: string | null }): Promise<PersonWithRoles[]> {
  return store.rows<PersonWithRoles>(
    `SELECT p.id::text, p.name, p.email AS mail, p.role, ${STATE} AS state, p.totp_since IS NOT NULL AS "hasSecondFactor", p.created_at AS "createdAt",
       (SELECT max(s.last_seen_at) FROM sessions s WHERE s.person_id = p.id) AS "lastSeenAt",
       (SELECT coalesce(json_agg(json_build_object('site', r.site_id::text, 'role', r.role) ORDER BY r.site_id), '[]')
         FROM site_roles r WHERE r.person_id = p.id) AS roles
     FROM people p WHERE $id::bigint IS NULL OR p.id = $id::bigint ORDER BY lower(p.name), p.id`,
    of,
  );
}

/** A person who may come into a site. */
export interface Member {
  id: string;
  name: string;
  mail: string;
  /** By the site alone. */
  role: Role | null;
  /** By the installation: on every site. */
  everywhere: Role | null;
  state: State;
  lastSeenAt: Date | null;
}

/** Who may come into a site, by name. */
export function membersOf(store: Store, of: { site: string }): Promise<Member[]> {
  return store.rows<Member>(
    `SELECT p.id::text, p.name, p.email AS mail, r.role, p.role AS everywhere, ${STATE} AS state,
       (SELECT max(s.last_seen_at) FROM sessions s WHERE s.person_id = p.id) AS "lastSeenAt"
     FROM people p LEFT JOIN site_roles r ON r.person_id = p.id AND r.site_id = $site::bigint
     WHERE p.deactivated_at IS NULL AND (r.role IS NOT NULL OR p.role IS NOT NULL) ORDER BY lower(p.name), p.id`,
    of,
  );
}

/** Gives a person a role on a site. */
export async function setSiteRole(
  store: Store,
  of: { person: string; site: string; role: Role },
  transaction: Transaction,
): Promise<void> {
  await store.rows(
    `INSERT INTO site_roles (person_id, site_id, role) VALUES ($person::bigint, $site::bigint, $role)
     ON CONFLICT (person_id, site_id) DO UPDATE SET role = excluded.role`,
    of,
    transaction,
  );
}

/** Takes a person's role on a site away; answers whether there was one. */
export async function dropSiteRole(
  store: Store,
  of: { person: string; site: string },
  transaction: Transaction,
): Promise<boolean> {
  const gone = await store.rows<{ role: Role }>(
    "DELETE FROM site_roles WHERE person_id = $person::bigint AND site_id = $site::bigint RETURNING role",
    of,
    transaction,
  );
  return gone.length > 0;
}

/** Takes all roles on single sites away. */
export async function dropSiteRoles(
  store: Store,
  of: { person: string },
  transaction: Transaction,
): Promise<void> {
  await store.rows("DELETE FROM site_roles WHERE person_id = $person::bigint", of, transaction);
}

/**
 * How many people own the installation who may come in. What takes that away from one waits for whatever else does: two
 * who take it from one another at the same moment leave one.
 */
export async function ownersOf(store: Store, transaction: Transaction): Promise<number> {
  const owners = await store.rows<{ id: string }>(
    "SELECT id::text FROM people WHERE role = 'owner' AND deactivated_at IS NULL AND password_hash <> '' ORDER BY id FOR UPDATE",
    {},
    transaction,
  );
  return owners.length;
}
