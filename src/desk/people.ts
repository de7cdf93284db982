import { timingSafeEqual } from "node:crypto";
import type { z } from "zod";
import type { Role, Token, signInSchema, tokenInputSchema } from "../core/objects/person.ts";
import type { TokenRow } from "../store/models.ts";
import { audit, type Actor, type Desk } from "./desk.ts";
import { notFound, Problem } from "./problem.ts";
import { hashPassword, newSecret, tokenHash, verifyPassword } from "./secrets.ts";

const SESSION_DAYS = 14;
const MOST_FAILURES = { mail: 6, place: 30 };
const FAILURE_MINUTES = 15;
const WRONG = "Mail address and password do not belong together.";

// Compared against when the address is unknown, so that an answer takes as long either way.
const nobody = hashPassword(newSecret());

/** Adds a person who may sign in. */
export async function addPerson(
  desk: Desk,
  person: { email: string; name: string; role: Role; password: string },
): Promise<void> {
  const { password, ...rest } = person;
  await desk.store.people.create({ ...rest, passwordHash: await hashPassword(password) });
}

/**
 * Signs in and answers the session's token. After six failures for the mail address, or thirty from the
 * place, within a quarter of an hour, further attempts wait (429).
 */
export async function signIn(
  desk: Desk,
  input: z.infer<typeof signInSchema>,
  from: string,
): Promise<{ token: string; expires: Date }> {
  const keys = [`mail ${input.email}`, `from ${from}`];
  await throttle(desk, keys);
  const person = await desk.store.people.findOne({ where: { email: input.email } });
  const right = await verifyPassword(input.password, person?.passwordHash ?? (await nobody));
  if (!person || !right) {
    await desk.store.rows("INSERT INTO sign_in_failures (who) SELECT unnest($keys::text[])", { keys });
    throw new Problem(401, "Not signed in", WRONG, { errors: [{ path: "password", message: WRONG }] });
  }
  await desk.store.rows("DELETE FROM sign_in_failures WHERE who = $who", { who: keys[0] });
  const token = newSecret();
  const expires = new Date(Date.now() + SESSION_DAYS * 86_400_000);
  await desk.store.sessions.create({
    tokenHash: tokenHash(token),
    personId: person.id,
    createdAt: new Date(),
    expiresAt: expires,
  });
  await audit(desk, { name: person.name, role: person.role }, { action: "sign-in", object: person.email });
  return { token, expires };
}

/** Ends a session. */
export async function signOut(desk: Desk, token: string): Promise<void> {
  await desk.store.sessions.destroy({ where: { tokenHash: tokenHash(token) } });
}

/** The person behind a session token; undefined when it has ended. */
export async function personOfSession(desk: Desk, token: string): Promise<Actor | undefined> {
  const [row] = await desk.store.rows<Actor>(
    `SELECT p.name, p.role FROM sessions s JOIN people p ON p.id = s.person_id WHERE s.token_hash = $hash AND s.expires_at > now()`,
    { hash: tokenHash(token) },
  );
  return row;
}

/** The actor behind an API token; undefined when there is no such token, or it has expired. */
export async function actorOfToken(
  desk: Desk,
  token: string,
  ownersToken: string | undefined,
): Promise<Actor | undefined> {
  if (ownersToken && sameText(token, ownersToken)) return { name: "MAPROPE_API_TOKEN", role: "owner" };
  const [row] = await desk.store.rows<Actor>(
    `WITH used AS (UPDATE tokens SET last_used_at = now() WHERE token_hash = $hash AND (expires_at IS NULL OR expires_at > now())
       RETURNING name, role) SELECT 'token ' || name AS name, role FROM used`,
    { hash: tokenHash(token) },
  );
  return row;
}

/** All API tokens, without what they are. */
export async function listTokens(desk: Desk): Promise<Token[]> {
  const rows = await desk.store.tokens.findAll({ order: [["id", "DESC"]] });
  return rows.map(tokenView);
}

/** Makes an API token; its text is in this answer and nowhere else, ever. */
export async function createToken(
  desk: Desk,
  actor: Actor,
  input: z.infer<typeof tokenInputSchema>,
): Promise<Token> {
  const token = `mr_${newSecret()}`;
  const row = await desk.store.tokens.create({
    name: input.name,
    role: input.role,
    tokenHash: tokenHash(token),
    expiresAt: input.expiresAt ? new Date(input.expiresAt) : null,
  });
  await audit(desk, actor, {
    action: "token.create",
    object: row.id,
    detail: { name: input.name, role: input.role },
  });
  return { ...tokenView(row), token };
}

/** Ends an API token at once. */
export async function deleteToken(desk: Desk, actor: Actor, id: string): Promise<void> {
  const ended = /^\d{1,18}$/.test(id) ? await desk.store.tokens.destroy({ where: { id } }) : 0;
  if (ended === 0) throw notFound("This token");
  await audit(desk, actor, { action: "token.delete", object: id });
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

async function throttle(desk: Desk, keys: readonly string[]): Promise<void> {
  await desk.store.rows(
    `DELETE FROM sign_in_failures WHERE at < now() - interval '${FAILURE_MINUTES} minutes'`,
  );
  const [worst] = await desk.store.rows<{ wait: number }>(
    `SELECT ceil(extract(epoch FROM min(at) + interval '${FAILURE_MINUTES} minutes' - now()))::int AS wait
     FROM sign_in_failures WHERE who = ANY($keys::text[]) GROUP BY who 
     HAVING count(*) >= CASE WHEN who LIKE 'mail %' THEN ${MOST_FAILURES.mail} ELSE ${MOST_FAILURES.place} END ORDER BY 1 DESC LIMIT 1`,
    { keys },
  );
  if (!worst) return;
  const seconds = Math.max(1, worst.wait);
  throw new Problem(
    429,
    "Too many attempts",
    `Too many failed attempts. Try again in ${Math.ceil(seconds / 60)} minutes.`,
    {
      headers: { "Retry-After": String(seconds) },
    },
  );
}

function sameText(a: string, b: string): boolean {
  return timingSafeEqual(Buffer.from(tokenHash(a)), Buffer.from(tokenHash(b)));
}
