import { randomUUID } from "node:crypto";
import type { z } from "zod";
import type { signInSchema } from "../../core/people/person.ts";
import { SESSION_DAYS, SESSION_IDLE_DAYS, type Role } from "../../core/people/choices.ts";
import { forgiveAttempts, noteOwnPlace } from "../../store/people/attempts.ts";
import { Problem } from "../ground/problem.ts";
import { passSecondFactor } from "./second-factor.ts";
import { hashPassword, newSecret, tokenHash, verifyPassword } from "./secrets.ts";
import { countSignIn, inTurn, placeOf } from "./throttle.ts";
import { audit, auditAlone, audited } from "../ground/audit.ts";
import type { WithSeal, WithStore } from "../ground/parts.ts";
import {
  actorsOfSession,
  endSessionOf,
  findPerson,
  insertPerson,
  insertSession,
} from "../../store/people/people.ts";
import type { Actor } from "../../core/people/actor.ts";

const NOBODY: Actor = { name: "nobody", role: null };
const WRONG = "Mail address or password is wrong.";

// Compared against when the address is unknown, so that an answer takes as long either way.
const nobody = hashPassword(newSecret());

/** Adds a person who may sign in. */
export async function addPerson(
  desk: WithStore,
  person: { email: string; name: string; role: Role | null; password: string },
): Promise<void> {
  const { password, ...rest } = person;
  await insertPerson(desk.store, { ...rest, passwordHash: await hashPassword(password) });
}

/**
 * Signs in and answers the session's token. Each attempt is counted before its password is looked at; after some that
 * failed, further ones wait (429), longer each time. Whoever has a second factor needs its code, too (401 at `code`).
 */
export async function signIn(
  desk: WithStore & WithSeal,
  input: z.infer<typeof signInSchema>,
  from: string,
  agent = "",
): Promise<{ token: string; expires: Date }> {
  const place = placeOf(from);
  const person = await findPerson(desk.store, { email: input.email });
  const counted = await countSignIn(desk, input.email, place, person?.id);
  const expected = person?.passwordHash ?? (await nobody);
  const right = await inTurn(() => verifyPassword(input.password, expected));
  if (!person || !right || person.deactivatedAt) {
    await auditAlone(desk, NOBODY, { action: "sign-in.failed", object: input.email, detail: { place } });
    throw new Problem(401, "Not signed in", WRONG, { errors: [{ path: "password", message: WRONG }] });
  }
  await passSecondFactor(desk, person.id, input.code);
  await forgiveAttempts(desk.store, counted);
  await noteOwnPlace(desk.store, person.id, place);
  const token = newSecret();
  const expires = new Date(Date.now() + SESSION_DAYS * 86_400_000);
  const session = {
    tokenHash: tokenHash(token),
    id: randomUUID(),
    personId: person.id,
    createdAt: new Date(),
    lastSeenAt: new Date(),
    expiresAt: expires,
    place,
    agent: agent.slice(0, 400),
  };
  const entry = { action: "sign-in", object: person.email, detail: { place } };
  await audited(desk, { name: person.name, role: person.role }, entry, (transaction) =>
    insertSession(desk.store, session, transaction),
  );
  return { token, expires };
}

/** Ends a session. */
export async function signOut(desk: WithStore, token: string): Promise<void> {
  const person = await personOfSession(desk, token);
  await desk.store.transaction(async (transaction) => {
    await endSessionOf(desk.store, tokenHash(token), transaction);
    if (person) await audit(desk, person, { action: "sign-out", object: person.name }, transaction);
  });
}

/** The person behind a session token; undefined when it has ended. */
export async function personOfSession(desk: WithStore, token: string): Promise<Actor | undefined> {
  const [row] = await actorsOfSession(desk.store, {
    hash: tokenHash(token),
    idleDays: SESSION_IDLE_DAYS,
  });
  return row;
}
