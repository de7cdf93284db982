import type { Transaction } from "sequelize";
import type { z } from "zod";
import type { Actor } from "../../core/people/actor.ts";
import { RESET_DAYS, type HandedLink } from "../../core/people/member.ts";
import type { linkTakeSchema } from "../../core/people/person.ts";
import { isRowId } from "../../store/ground/row-ids.ts";
import type { PersonRow } from "../../store/ground/models.ts";
import { endSessions, findPerson, renameOwner, updatePerson } from "../../store/people/people.ts";
import { insertReset, personOfReset, takeReset } from "../../store/people/resets.ts";
import { audit, audited } from "../ground/audit.ts";
import type { WithStore } from "../ground/parts.ts";
import { notFound, Problem } from "../ground/problem.ts";
import type { WithTexts } from "../pages/texts/read-text.ts";
import { newPasswordHash } from "./new-password.ts";
import { newSecret, tokenHash } from "./secrets.ts";
import { refuseTaken } from "./taken.ts";

/** Makes the link with which a person chooses a password; an earlier one ends. It is kept as a hash alone. */
export async function handLink(
  desk: WithStore,
  person: string,
  days: number,
  transaction: Transaction,
): Promise<HandedLink> {
  const token = newSecret();
  const expires = new Date(Date.now() + days * 86_400_000);
  await insertReset(desk.store, { hash: tokenHash(token), person, expires }, transaction);
  // Behind the #: no log of ours or of a proxy ever sees it.
  return { path: `/welcome#${token}`, expiresAt: expires.toISOString() };
}

/** A link for somebody who lost their password. Throws a 404 when there is no such person. */
export async function resetLink(
  desk: WithStore,
  actor: Actor,
  who: { id: string } | { email: string },
): Promise<HandedLink> {
  const person = "id" in who && !isRowId(who.id) ? undefined : await findPerson(desk.store, who);
  if (!person) throw notFound("This person");
  return audited(desk, actor, { action: "person.reset-link", object: person.id }, (transaction) =>
    handLink(desk, person.id, RESET_DAYS, transaction),
  );
}

/** Whose link it is, for whoever holds it; and whether they are new. */
export async function lookAtLink(
  desk: WithStore,
  token: string,
): Promise<{ mail: string; name: string; isNew: boolean }> {
  const { email, name, passwordHash } = await behind(desk, token);
  return { mail: email, name, isNew: passwordHash === "" };
}

/** Chooses a password by a link, and, for whoever is new, a name; all sessions end. Answers the address to sign in with. */
export async function takeLink(
  desk: WithStore & WithTexts,
  { token, name: chosen, password }: z.infer<typeof linkTakeSchema>,
): Promise<{ mail: string }> {
  const person = await behind(desk, token);
  const name = (person.passwordHash === "" ? chosen : undefined) ?? person.name;
  await refuseTaken(desk, { id: person.id, name, email: person.email });
  const passwordHash = await newPasswordHash(desk, { name, email: person.email }, password);
  await desk.store.transaction(async (transaction) => {
    if (!(await takeReset(desk.store, { hash: tokenHash(token) }, transaction))) throw ended();
    await updatePerson(desk.store, person.id, { name, passwordHash }, transaction);
    await renameOwner(desk.store, { before: person.name, after: name }, transaction);
    const gone = await endSessions(desk.store, { person: person.id, only: null, except: null }, transaction);
    const actor: Actor = { name, role: person.role, person: person.id };
    const entry = { action: "account.password-by-link", object: person.id, detail: { ended: gone.length } };
    await audit(desk, actor, entry, transaction);
  });
  return { mail: person.email };
}

async function behind(desk: WithStore, token: string): Promise<PersonRow> {
  const [row] = await personOfReset(desk.store, { hash: tokenHash(token) });
  const person = row && (await findPerson(desk.store, { id: row.person }));
  if (!person) throw ended();
  return person;
}

function ended(): Problem {
  return new Problem(
    410,
    "This link has ended",
    "It was used, a newer one was made, or its time is over. Ask whoever handed it to you for another one.",
  );
}
