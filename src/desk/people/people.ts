import { timingSafeEqual } from "node:crypto";
import type { z } from "zod";
import type { Role, Token, signInSchema, tokenInputSchema } from "../../core/people/person.ts";
import type { TokenRow } from "../../store/ground/models.ts";
import { forgiveAttempts, noteOwnPlace } from "../../store/people/attempts.ts";
import { invalid, notFound, Problem } from "../ground/problem.ts";
import { hashPassword, newSecret, tokenHash, verifyPassword } from "./secrets.ts";
import { countSignIn, countWrongToken, inTurn, placeOf } from "./throttle.ts";
import { audit, auditAlone, audited } from "../ground/audit.ts";
import type { WithStore } from "../ground/parts.ts";
import { actorsOfSession, actorsOfToken } from "../../store/people/people.ts";
import type { Actor } from "../../core/people/actor.ts";

const SESSION_DAYS = 14;
const NOBODY: Actor = { name: "nobody", role: "reader" };
const WRONG = "Mail address and password do not belong together.";

// Compared against when the address is unknown, so that an answer takes as long either way.
const nobody = hashPassword(newSecret());

/** Adds a person who may sign in. */
export async function addPerson(
  desk: WithStore,
  person: { email: string; name: string; role: Role; password: string },
): Promise<void> {
  const { password, ...rest } = person;
  await desk.store.people.create({ ...rest, passwordHash: await hashPassword(password) });
}

/**
 * Signs in and answers the session's token. Each attempt is counted before its password is looked at; after some that
 * failed, further ones wait (429), longer each time.
 */
export async function signIn(
  desk: WithStore,
  input: z.infer<typeof signInSchema>,
  from: string,
): Promise<{ token: string; expires: Date }> {
  const place = placeOf(from);
  const person = await desk.store.people.findOne({ where: { email: input.email } });
  const counted = await countSignIn(desk, input.email, place, person?.id);
  const expected = person?.passwordHash ?? (await nobody);
  const right = await inTurn(() => verifyPassword(input.password, expected));
  if (!person || !right) {
    await auditAlone(desk, NOBODY, { action: "sign-in.failed", object: input.email, detail: { place } });
    throw new Problem(401, "Not signed in", WRONG, { errors: [{ path: "password", message: WRONG }] });
  }
  await forgiveAttempts(desk.store, counted);
  await noteOwnPlace(desk.store, person.id, place);
  const token = newSecret();
  const expires = new Date(Date.now() + SESSION_DAYS * 86_400_000);
  const session = {
    tokenHash: tokenHash(token),
    personId: person.id,
    createdAt: new Date(),
    expiresAt: expires,
  };
  const entry = { action: "sign-in", object: person.email, detail: { place } };
  await audited(desk, { name: person.name, role: person.role }, entry, (transaction) =>
    desk.store.sessions.create(session, { transaction }),
  );
  return { token, expires };
}

/** Ends a session. */
export async function signOut(desk: WithStore, token: string): Promise<void> {
  const person = await personOfSession(desk, token);
  await desk.store.transaction(async (transaction) => {
    await desk.store.sessions.destroy({ where: { tokenHash: tokenHash(token) }, transaction });
    if (person) await audit(desk, person, { action: "sign-out", object: person.name }, transaction);
  });
}

/** The person behind a session token; undefined when it has ended. */
export async function personOfSession(desk: WithStore, token: string): Promise<Actor | undefined> {
  const [row] = await actorsOfSession(desk.store, { hash: tokenHash(token) });
  return row;
}

/** The actor behind an API token; undefined when there is no such token, or it has expired. Many wrong ones wait (429). */
export async function actorOfToken(
  desk: WithStore,
  token: string,
  ownersToken: string | undefined,
  from: string,
): Promise<Actor | undefined> {
  if (ownersToken && sameText(token, ownersToken)) return { name: "MAPROPE_API_TOKEN", role: "owner" };
  const [row] = await actorsOfToken(desk.store, { hash: tokenHash(token) });
  if (row) return row;
  const place = placeOf(from);
  await countWrongToken(desk, place);
  await auditAlone(desk, NOBODY, { action: "token.wrong", object: place });
  return undefined;
}

/** All API tokens, without what they are. */
export async function listTokens(desk: WithStore): Promise<Token[]> {
  const rows = await desk.store.tokens.findAll({ order: [["id", "DESC"]] });
  return rows.map(tokenView);
}

/** Makes an API token; its text is in this answer and nowhere else, ever. */
export async function createToken(
  desk: WithStore,
  actor: Actor,
  input: z.infer<typeof tokenInputSchema>,
): Promise<Token> {
  if (input.expiresAt && Date.parse(input.expiresAt) <= Date.now())
    throw invalid([{ path: "expiresAt", message: "That time is over; the token would never work." }]);
  const token = `mr_${newSecret()}`;
  const { name, role } = input;
  const expiresAt = input.expiresAt ? new Date(input.expiresAt) : null;
  const row = await audited(
    desk,
    actor,
    ({ id }: TokenRow) => ({ action: "token.create", object: id, detail: { name, role } }),
    (transaction) =>
      desk.store.tokens.create({ name, role, tokenHash: tokenHash(token), expiresAt }, { transaction }),
  );
  return { ...tokenView(row), token };
}

/** Ends an API token at once. */
export async function deleteToken(desk: WithStore, actor: Actor, id: string): Promise<void> {
  await audited(desk, actor, { action: "token.delete", object: id }, async (transaction) => {
    const ended = /^\d{1,18}$/.test(id) ? await desk.store.tokens.destroy({ where: { id }, transaction }) : 0;
    if (ended === 0) throw notFound("This token");
  });
}

function tokenView(row: TokenRow): Token {
  return {
    id: row.id,
    name: row.name,
    role: row.role,
    expiresAt: row.expiresAt?.toISOString() ?? null,
    lastUsedAt: row.lastUsedAt?.toISOString() ?? null,
    createdAt: row.createdAt.toISOString(),
  };
}

function sameText(a: string, b: string): boolean {
  return timingSafeEqual(Buffer.from(tokenHash(a)), Buffer.from(tokenHash(b)));
}
