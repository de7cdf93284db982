import type { PersonRow, Row, SessionRow } from "../ground/models.ts";
import type { CreationAttributes, Transaction } from "sequelize";
import type { Store } from "../ground/store.ts";
import type { Role } from "../../core/people/choices.ts";

/** Whoever is signed in, and by which session. */
interface SignedIn {
  name: string;
  role: Role | null;
  sites: Record<string, Role>;
  person: string;
  session: string;
  /** They have no second factor, and everybody needs one. */
  mustSetUp: boolean;
}

/** What a person (`p`) may do on single sites, by the sites' ids. */
export const SITE_ROLES = `(SELECT coalesce(jsonb_object_agg(r.site_id::text, r.role), '{}') FROM site_roles r WHERE r.person_id = p.id)`;

/**
 * Whose session this is, by the hash of its token; none when it has ended, was not used for `idleDays`, or its person
 * may not come in any more. That it is used is noted once a minute.
 */
export function actorsOfSession(store: Store, of: { hash: string; idleDays: number }): Promise<SignedIn[]> {
  return store.rows<SignedIn>(
    `WITH seen AS (UPDATE sessions SET last_seen_at = now()
       WHERE token_hash = $hash AND last_seen_at BETWEEN now() - $idleDays::int * interval '1 day' AND now() - interval '1 minute')
     SELECT p.name, p.role, ${SITE_ROLES} AS sites, p.id::text AS person, s.id::text AS session,
       p.totp_since IS NULL AND EXISTS (SELECT 1 FROM installation i WHERE i.name = 'second-factor' AND i.value = 'required') AS "mustSetUp"
     FROM sessions s JOIN people p ON p.id = s.person_id
     WHERE s.token_hash = $hash AND s.expires_at > now() AND s.last_seen_at > now() - $idleDays::int * interval '1 day'
       AND p.deactivated_at IS NULL`,
    of,
  );
}

/** A session as its person sees it. */
export interface SessionSeen {
  id: string;
  place: string;
  agent: string;
  createdAt: Date;
  lastSeenAt: Date;
  expiresAt: Date;
}

/** A person's sessions that have not ended, the one used last first. */
export function sessionsOf(store: Store, of: { person: string; idleDays: number }): Promise<SessionSeen[]> {
  return store.rows<SessionSeen>(
    `SELECT id::text, place, agent, created_at AS "createdAt", last_seen_at AS "lastSeenAt", expires_at AS "expiresAt"
     FROM sessions WHERE person_id = $person::bigint AND expires_at > now() AND last_seen_at > now() - $idleDays::int * interval '1 day'
     ORDER BY last_seen_at DESC, created_at DESC`,
    of,
  );
}

/** Ends one of a person's sessions (`only`), or all but one (`except`); answers which. */
export function endSessions(
  store: Store,
  of: { person: string; only: string | null; except: string | null },
  transaction: Transaction,
): Promise<{ id: string }[]> {
  return store.rows<{ id: string }>(
    `DELETE FROM sessions WHERE person_id = $person::bigint AND ($only::uuid IS NULL OR id = $only::uuid)
       AND ($except::uuid IS NULL OR id <> $except::uuid) RETURNING id::text`,
    of,
    transaction,
  );
}

/** Lets a person's long work follow their name. */
export async function renameOwner(
  store: Store,
  of: { before: string; after: string },
  transaction: Transaction,
): Promise<void> {
  await store.rows(`UPDATE jobs SET owner = $after WHERE owner = $before RETURNING id`, of, transaction);
}

/** A person by id, or by the mail address that they sign in with; undefined when there is none. */
export async function findPerson(
  store: Store,
  of: { id: string } | { email: string },
): Promise<PersonRow | undefined> {
  return (await store.people.findOne({ where: of })) ?? undefined;
}

/** All people. */
export function allPeople(store: Store): Promise<PersonRow[]> {
  return store.people.findAll({ order: [["id", "ASC"]] });
}

/** Adds a person who may sign in. */
export function insertPerson(
  store: Store,
  person: Pick<PersonRow, "email" | "name" | "role" | "passwordHash">,
  transaction?: Transaction,
): Promise<PersonRow> {
  return store.people.create(person, { transaction });
}

/** Changes what is kept of a person. */
export async function updatePerson(
  store: Store,
  id: string,
  change: Partial<Pick<PersonRow, "email" | "name" | "role" | "passwordHash" | "deactivatedAt">>,
  transaction: Transaction,
): Promise<void> {
  await store.people.update(change, { where: { id }, transaction });
}

/** Takes a person away, with their sessions, roles and tokens. */
export async function removePerson(store: Store, id: string, transaction: Transaction): Promise<void> {
  await store.people.destroy({ where: { id }, transaction });
}

/** Takes people away by their mail addresses; answers how many there were. */
export function removePeople(store: Store, emails: readonly string[]): Promise<number> {
  return store.people.destroy({ where: { email: [...emails] } });
}

/** Keeps a session that begins. */
export async function insertSession(
  store: Store,
  session: CreationAttributes<Row<SessionRow>>,
  transaction: Transaction,
): Promise<void> {
  await store.sessions.create(session, { transaction });
}

/** Ends the session with this token, by its hash. */
export async function endSessionOf(store: Store, tokenHash: string, transaction: Transaction): Promise<void> {
  await store.sessions.destroy({ where: { tokenHash }, transaction });
}
