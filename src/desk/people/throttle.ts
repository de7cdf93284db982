import { createHash } from "node:crypto";
import ipaddr from "ipaddr.js";
import pLimit from "p-limit";
import {
  clearOldAttempts,
  countAttempt,
  isOwnPlace,
  type AttemptCount,
} from "../../store/people/attempts.ts";
import { Problem } from "../ground/problem.ts";
import type { WithStore } from "../ground/parts.ts";

/** Attempts that pass before the next has to wait. */
const FREE = { pair: 6, place: 30, mail: 20, token: 20, reset: 3 } as const;
/** Passwords that are hashed at the same time, each with 32 MB, and how many may wait for that. */
const MAX_HASHED = 2;
const MAX_WAITING = 30;

const hashing = pLimit(MAX_HASHED);

/**
 * Where an attempt comes from: an IPv4 address, or the network of an IPv6 one, of which a household has as many
 * addresses as it likes.
 */
export function placeOf(address: string): string {
  if (!ipaddr.isValid(address)) return address === "" ? "nowhere" : `other ${digest(address)}`;
  const read = ipaddr.process(address);
  return read.kind() === "ipv4"
    ? read.toString()
    : `${read.toNormalizedString().split(":").slice(0, 4).join(":")}::/64`;
}

/**
 * Counts an attempt to sign in before its password is looked at; throws a 429 while it has to wait. The wait grows by
 * mail address and place together. What strangers try from many places is counted for the mail address too, but not
 * against the places where its person usually signs in: nobody can be locked out from there by others.
 */
export async function countSignIn(
  desk: WithStore,
  mail: string,
  place: string,
  personId: string | undefined,
): Promise<string[]> {
  const counts: AttemptCount[] = [
    { who: `pair ${digest(`${mail} ${place}`)}`, free: FREE.pair },
    { who: `place ${place}`, free: FREE.place },
  ];
  const isOwn = personId !== undefined && (await isOwnPlace(desk.store, personId, place));
  if (!isOwn) counts.push({ who: `mail ${digest(mail)}`, free: FREE.mail });
  await count(desk, counts);
  return counts.map(({ who }) => who);
}

/** Counts an API token that is none; throws a 429 while its place has to wait. */
export function countWrongToken(desk: WithStore, place: string): Promise<void> {
  return count(desk, [{ who: `token ${place}`, free: FREE.token }]);
}

/** Counts an attempt to tell one's password where one is signed in already; throws a 429 while it has to wait. */
export async function countPassword(desk: WithStore, personId: string): Promise<string[]> {
  const who = `password ${personId}`;
  await count(desk, [{ who, free: FREE.pair }]);
  return [who];
}

/** Counts a wish for a mail with a new password; throws a 429 where the mail address, or the place, has to wait. */
export function countReset(desk: WithStore, mail: string, place: string): Promise<void> {
  return count(desk, [
    { who: `reset ${digest(mail)}`, free: FREE.reset },
    { who: `reset at ${place}`, free: FREE.place },
  ]);
}

/** Hashes a password when its turn has come; throws a 429 when too many wait already. */
export async function inTurn<T>(hash: () => Promise<T>): Promise<T> {
  if (hashing.pendingCount >= MAX_WAITING) throw tooMany(2);
  return hashing(hash);
}

async function count(desk: WithStore, counts: readonly AttemptCount[]): Promise<void> {
  const seconds = await countAttempt(desk.store, counts);
  if (seconds === 0) return;
  await clearOldAttempts(desk.store);
  throw tooMany(seconds);
}

function tooMany(seconds: number): Problem {
  const wait = seconds < 90 ? `${seconds} seconds` : `${Math.ceil(seconds / 60)} minutes`;
  return new Problem(429, "Too many attempts", `Too many failed attempts. Try again in ${wait}.`, {
    headers: { "Retry-After": String(seconds) },
  });
}

function digest(text: string): string {
  return createHash("sha256").update(text).digest("base64url").slice(0, 22);
}
