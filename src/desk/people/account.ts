import type { Transaction } from "sequelize";
import type { z } from "zod";
import type { Actor } from "../../core/people/actor.ts";
import type {
  Account,
  accountChangeSchema,
  passwordChangeSchema,
  Session,
} from "../../core/people/person.ts";
import { SESSION_IDLE_DAYS } from "../../core/people/choices.ts";
import type { PersonRow } from "../../store/ground/models.ts";
import { endSessions, findPerson, renameOwner, sessionsOf, updatePerson } from "../../store/people/people.ts";
import { audited } from "../ground/audit.ts";
import type { WithStore } from "../ground/parts.ts";
import { invalid, notFound } from "../ground/problem.ts";
import type { WithTexts } from "../pages/texts/read-text.ts";
import { newPasswordHash } from "./new-password.ts";
import { checkPassword } from "./check-password.ts";
import { refuseTaken } from "./taken.ts";
import { personId } from "./tokens.ts";

/** The account of whoever is signed in. Throws a 403 for a token. */
export async function readAccount(desk: WithStore, actor: Actor): Promise<Account> {
  return view(await personOf(desk, actor));
}

/** Changes one's name or mail address; for another address one's password is asked. */
export async function changeAccount(
  desk: WithStore,
  actor: Actor,
  { name: newName, mail, password }: z.infer<typeof accountChangeSchema>,
): Promise<Account> {
  const person = await personOf(desk, actor);
  const name = newName ?? person.name;
  const email = mail ?? person.email;
  if (email !== person.email) await checkPassword(desk, person, password ?? "", "password");
  await refuseTaken(desk, { id: person.id, name, email });
  const entry = {
    action: "account.change",
    object: person.id,
    detail: { before: { name: person.name, email: person.email }, after: { name, email } },
  };
  await audited(desk, actor, entry, async (transaction) => {
    await updatePerson(desk.store, person.id, { name, email }, transaction);
    await renameOwner(desk.store, { before: person.name, after: name }, transaction);
  });
  return readAccount(desk, actor);
}

/** Changes one's password, which must be hard to guess, and ends all other sessions. */
export async function changePassword(
  desk: WithStore & WithTexts,
  actor: Actor,
  { current, next }: z.infer<typeof passwordChangeSchema>,
): Promise<{ ended: number }> {
  const person = await personOf(desk, actor);
  await checkPassword(desk, person, current, "current");
  if (next === current) throw invalid([{ path: "next", message: "That is the password that you have." }]);
  const passwordHash = await newPasswordHash(desk, person, next, "next");
  return audited(
    desk,
    actor,
    ({ ended }: { ended: number }) => ({ action: "account.password", object: person.id, detail: { ended } }),
    async (transaction) => {
      await updatePerson(desk.store, person.id, { passwordHash }, transaction);
      return endOtherSessions(desk, person, actor, transaction);
    },
  );
}

/** Where one is signed in, the session used last first. */
export async function listSessions(desk: WithStore, actor: Actor): Promise<Session[]> {
  const { id } = await personOf(desk, actor);
  const rows = await sessionsOf(desk.store, { person: id, idleDays: SESSION_IDLE_DAYS });
  return rows.map((row) => ({
    ...row,
    createdAt: row.createdAt.toISOString(),
    lastSeenAt: row.lastSeenAt.toISOString(),
    expiresAt: row.expiresAt.toISOString(),
    isThis: row.id === actor.session,
  }));
}

/** Ends one of one's own sessions. */
export async function endSession(desk: WithStore, actor: Actor, id: string): Promise<void> {
  const person = await personOf(desk, actor);
  await audited(desk, actor, { action: "session.end", object: id }, async (transaction) => {
    const ended = await endSessions(desk.store, { person: person.id, only: id, except: null }, transaction);
    if (ended.length === 0) throw notFound("This session");
  });
}

/** Ends all of one's own sessions but the one that asks. */
export async function endOthers(desk: WithStore, actor: Actor): Promise<{ ended: number }> {
  const person = await personOf(desk, actor);
  return audited(
    desk,
    actor,
    ({ ended }: { ended: number }) => ({
      action: "session.end-others",
      object: person.id,
      detail: { ended },
    }),
    (transaction) => endOtherSessions(desk, person, actor, transaction),
  );
}

async function endOtherSessions(
  desk: WithStore,
  { id }: PersonRow,
  actor: Actor,
  transaction: Transaction,
): Promise<{ ended: number }> {
  const of = { person: id, only: null, except: actor.session ?? null };
  return { ended: (await endSessions(desk.store, of, transaction)).length };
}

/** Whoever is signed in. Throws a 403 for a token, a 404 when they were taken away meanwhile. */
export async function personOf(desk: WithStore, actor: Actor): Promise<PersonRow> {
  const row = await findPerson(desk.store, { id: personId(actor) });
  if (!row) throw notFound("Your account");
  return row;
}

function view({ id, name, email, role, createdAt }: PersonRow): Account {
  return { id, name, mail: email, role, createdAt: createdAt.toISOString() };
}
