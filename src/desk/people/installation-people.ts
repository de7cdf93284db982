import type { Transaction } from "sequelize";
import type { Actor } from "../../core/people/actor.ts";
import {
  INVITE_DAYS,
  type HandedLink,
  type Person,
  type PersonChange,
  type PersonInput,
} from "../../core/people/member.ts";
import type { Role } from "../../core/people/choices.ts";
import { isRowId } from "../../store/ground/row-ids.ts";
import {
  dropSiteRoles,
  ownersOf,
  peopleWithRoles,
  setSiteRole,
  type PersonWithRoles,
} from "../../store/people/members.ts";
import {
  endSessions,
  insertPerson,
  removePerson,
  renameOwner,
  updatePerson,
} from "../../store/people/people.ts";
import { dropSecondFactor } from "../../store/people/second-factor.ts";
import { audited } from "../ground/audit.ts";
import type { WithStore } from "../ground/parts.ts";
import { invalid, notFound, Problem } from "../ground/problem.ts";
import { handLink } from "./links.ts";
import { refuseTaken } from "./taken.ts";
import { idsOfSites } from "./tokens.ts";

/** All people of the installation, by name. */
export async function listPeople(desk: WithStore): Promise<Person[]> {
  return (await peopleWithRoles(desk.store, { id: null })).map(personView);
}

/** Lets somebody new in, who chooses a password by a link; it is in this answer and nowhere else. */
export async function invitePerson(
  desk: WithStore,
  actor: Actor,
  { mail, name, role = null, roles: named }: PersonInput,
): Promise<Person & { link: HandedLink }> {
  const roles = await rolesOf(desk, actor, named);
  await refuseTaken(desk, { name, email: mail });
  const made = await audited(
    desk,
    actor,
    ({ id }: { id: string }) => ({
      action: "person.invite",
      object: id,
      detail: { name, mail, role, roles },
    }),
    async (transaction) => {
      const { id } = await insertPerson(
        desk.store,
        { email: mail, name, role, passwordHash: "" },
        transaction,
      );
      await replaceSiteRoles(desk, id, roles, transaction);
      return { id, link: await handLink(desk, id, INVITE_DAYS, transaction) };
    },
  );
  return { ...(await readPerson(desk, made.id)), link: made.link };
}

/** Changes a person, or whether they may come in. Throws a 409 where nobody would own the installation any more. */
export async function changePerson(
  desk: WithStore,
  actor: Actor,
  id: string,
  change: PersonChange,
): Promise<Person> {
  const before = await readPerson(desk, id);
  const roles = change.roles && (await rolesOf(desk, actor, change.roles));
  const { name = before.name, mail = before.mail } = change;
  await refuseTaken(desk, { id, name, email: mail });
  const entry = { action: "person.change", object: id, detail: { before, after: change } };
  await audited(desk, actor, entry, async (transaction) => {
    const owners = await ownersOf(desk.store, transaction);
    const { role, isActive } = change;
    const fields = {
      ...(name !== before.name ? { name } : {}),
      ...(mail !== before.mail ? { email: mail } : {}),
      ...(role !== undefined ? { role } : {}),
      ...(isActive !== undefined ? { deactivatedAt: isActive ? null : new Date() } : {}),
    };
    if (Object.keys(fields).length > 0) await updatePerson(desk.store, id, fields, transaction);
    if (name !== before.name)
      await renameOwner(desk.store, { before: before.name, after: name }, transaction);
    if (isActive === false)
      await endSessions(desk.store, { person: id, only: null, except: null }, transaction);
    if (roles) await replaceSiteRoles(desk, id, roles, transaction);
    await keepOwner(desk, owners, before, transaction);
  });
  return readPerson(desk, id);
}

/** Takes a person away with their sessions and tokens. Throws a 409 for the last owner. */
export async function deletePerson(desk: WithStore, actor: Actor, id: string): Promise<void> {
  const before = await readPerson(desk, id);
  const entry = { action: "person.delete", object: id, detail: { before } };
  await audited(desk, actor, entry, async (transaction) => {
    const owners = await ownersOf(desk.store, transaction);
    await removePerson(desk.store, id, transaction);
    await keepOwner(desk, owners, before, transaction);
  });
}

/** Takes a second factor away from somebody who lost what shows their codes. */
export async function endSecondFactorOf(desk: WithStore, actor: Actor, id: string): Promise<void> {
  await readPerson(desk, id);
  await audited(desk, actor, { action: "person.second-factor-end", object: id }, (transaction) =>
    dropSecondFactor(desk.store, { person: id }, transaction),
  );
}

/** A person by id. Throws a 404 when there is none. */
export async function readPerson(desk: WithStore, id: string): Promise<Person> {
  const [row] = isRowId(id) ? await peopleWithRoles(desk.store, { id }) : [];
  if (!row) throw notFound("This person");
  return personView(row);
}

// Sites are named by id or key; each stands once.
async function rolesOf(
  desk: WithStore,
  actor: Actor,
  named: readonly { site: string; role: Role }[],
): Promise<{ site: string; role: Role }[]> {
  const ids = await idsOfSites(
    desk,
    actor,
    named.map(({ site }) => site),
    "roles",
  );
  const twice = ids.findIndex((id, at) => ids.indexOf(id) !== at);
  if (twice !== -1) throw invalid([{ path: `roles.${twice}`, message: "Each site stands once." }]);
  return named.map(({ role }, at) => ({ site: ids[at]!, role }));
}

async function keepOwner(
  desk: WithStore,
  before: number,
  { name }: Person,
  transaction: Transaction,
): Promise<void> {
  if (before === 0 || (await ownersOf(desk.store, transaction)) > 0) return;
  throw new Problem(
    409,
    "The last owner",
    `${name} is the last who owns the installation: let somebody else own it first.`,
  );
}

async function replaceSiteRoles(
  desk: WithStore,
  person: string,
  roles: readonly { site: string; role: Role }[],
  transaction: Transaction,
): Promise<void> {
  await dropSiteRoles(desk.store, { person }, transaction);
  for (const { site, role } of roles) await setSiteRole(desk.store, { person, site, role }, transaction);
}

function personView({ createdAt, lastSeenAt, ...row }: PersonWithRoles): Person {
  return { ...row, createdAt: createdAt.toISOString(), lastSeenAt: lastSeenAt?.toISOString() ?? null };
}
