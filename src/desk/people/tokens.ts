import { timingSafeEqual } from "node:crypto";
import type { z } from "zod";
import type { Actor } from "../../core/people/actor.ts";
import { ofToken, roleOn } from "../../core/people/roles.ts";
import type { Token, tokenInputSchema } from "../../core/people/token.ts";
import type { TokenRow } from "../../store/ground/models.ts";
import { endToken, insertToken, tokensOf, useToken } from "../../store/people/tokens.ts";
import { allSites } from "../../store/sites/sites.ts";
import { auditAlone, audited } from "../ground/audit.ts";
import type { WithStore } from "../ground/parts.ts";
import { invalid, notFound, Problem } from "../ground/problem.ts";
import { newSecret, tokenHash } from "./secrets.ts";
import { countWrongToken, placeOf } from "./throttle.ts";

const NOBODY: Actor = { name: "nobody", role: null };

/** The actor behind an API token; undefined when there is no such token, or it has expired. Many wrong ones wait (429). */
export async function actorOfToken(
  desk: WithStore,
  token: string,
  ownersToken: string | undefined,
  from: string,
): Promise<Actor | undefined> {
  if (ownersToken && sameText(token, ownersToken)) return { name: "MAPROPE_API_TOKEN", role: "owner" };
  const place = placeOf(from);
  const [row] = await useToken(desk.store, { hash: tokenHash(token), place });
  if (row) {
    const { id, role, siteIds: sites } = row;
    if (row.person === null)
      return { name: `token ${row.name}`, token: id, ...ofToken({ role: "owner" }, { role, sites }) };
    const person = { role: row.personRole, sites: row.personSites };
    return { name: `${row.personName}, token ${row.name}`, token: id, ...ofToken(person, { role, sites }) };
  }
  await countWrongToken(desk, place);
  await auditAlone(desk, NOBODY, { action: "token.wrong", object: place });
  return undefined;
}

/** The API tokens of the installation (null) or of a person, without what they are. */
export async function listTokens(desk: WithStore, personId: string | null): Promise<Token[]> {
  return (await tokensOf(desk.store, personId)).map(tokenView);
}

/** Makes an API token of the installation (null) or of a person; its text is in this answer and nowhere else, ever. */
export async function createToken(
  desk: WithStore,
  actor: Actor,
  personId: string | null,
  { name, role, expiresAt, sites }: z.infer<typeof tokenInputSchema>,
): Promise<Token> {
  if (expiresAt && Date.parse(expiresAt) <= Date.now())
    throw invalid([{ path: "expiresAt", message: "That time is over; the token would never work." }]);
  const siteIds = sites ? await idsOfSites(desk, actor, sites) : null;
  const token = `mr_${newSecret()}`;
  const row = await audited(
    desk,
    actor,
    ({ id }: TokenRow) => ({ action: "token.create", object: id, detail: { name, role, sites } }),
    (transaction) =>
      insertToken(
        desk.store,
        {
          name,
          role,
          tokenHash: tokenHash(token),
          expiresAt: expiresAt ? new Date(expiresAt) : null,
          personId,
          siteIds,
        },
        transaction,
      ),
  );
  return { ...tokenView(row), token };
}

/** Ends an API token of the installation (null) or of a person at once. */
export async function deleteToken(
  desk: WithStore,
  actor: Actor,
  personId: string | null,
  id: string,
): Promise<void> {
  await audited(desk, actor, { action: "token.delete", object: id }, async (transaction) => {
    if (!(await endToken(desk.store, { id, personId }, transaction))) throw notFound("This token");
  });
}

/**
 * The ids of sites that are named by id or key. Throws a 422 at `path` for one that there is not, or into which the actor
 * may not come.
 */
export async function idsOfSites(
  desk: WithStore,
  actor: Actor,
  named: readonly string[],
  path = "sites",
): Promise<string[]> {
  const all = named.length === 0 ? [] : await allSites(desk.store);
  return named.map((name, at) => {
    const site = all.find(({ id, key }) => id === name || key === name);
    if (!site || roleOn(actor, site.id) === null)
      throw invalid([{ path: `${path}.${at}`, message: `There is no site ${name}.` }]);
    return site.id;
  });
}

/** The id of whoever is signed in. Throws a 403 for a token: it is nobody. */
export function personId({ person }: Actor): string {
  if (person === undefined)
    throw new Problem(403, "No account", "A token has no account: sign in as the person whose it is.");
  return person;
}

function tokenView(row: TokenRow): Token {
  return {
    id: row.id,
    name: row.name,
    role: row.role,
    expiresAt: row.expiresAt?.toISOString() ?? null,
    lastUsedAt: row.lastUsedAt?.toISOString() ?? null,
    lastUsedFrom: row.lastUsedFrom,
    sites: row.siteIds,
    createdAt: row.createdAt.toISOString(),
  };
}

function sameText(one: string, other: string): boolean {
  const [a, b] = [Buffer.from(tokenHash(one)), Buffer.from(tokenHash(other))];
  return timingSafeEqual(a, b);
}
