import type { Actor } from "../../core/people/actor.ts";
import type { SecondFactor, SecondFactorBegun } from "../../core/people/second-factor.ts";
import * as kept from "../../store/people/second-factor.ts";
import { audited } from "../ground/audit.ts";
import type { WithSeal, WithStore } from "../ground/parts.ts";
import { invalid, notFound, Problem } from "../ground/problem.ts";
import { personOf } from "./account.ts";
import { checkPassword } from "./check-password.ts";
import { tokenHash } from "./secrets.ts";
import { countPassword } from "./throttle.ts";
import { personId } from "./tokens.ts";
import { newRecoveryCodes, newTotpSecret, plainRecovery, stepOf, totpAddress } from "./totp.ts";

/** Whether one signs in with a second factor, since when, and how many recovery codes are left. */
export async function readSecondFactor(desk: WithStore, actor: Actor): Promise<SecondFactor> {
  const [row] = await kept.secondFactorOf(desk.store, { person: personId(actor) });
  if (!row) throw notFound("Your account");
  return { since: row.since?.toISOString() ?? null, recoveryLeft: row.since ? row.left : 0 };
}

/** Begins a second factor, with one's password: the secret is in this answer and nowhere else. It counts once it is confirmed. */
export async function beginSecondFactor(
  desk: WithStore & WithSeal,
  actor: Actor,
  password: string,
): Promise<SecondFactorBegun> {
  const person = await personOf(desk, actor);
  await checkPassword(desk, person, password, "password");
  const secret = newTotpSecret();
  await audited(desk, actor, { action: "second-factor.begin", object: person.id }, async (transaction) => {
    const sealed = desk.seal.close(secret, aboutSecondFactor(person.id));
    if (!(await kept.beginSecondFactor(desk.store, { person: person.id, secret: sealed }, transaction)))
      throw new Problem(
        409,
        "There is one already",
        "You have a second factor. Remove it before you set up another.",
      );
  });
  return { secret, address: totpAddress(secret, person.email) };
}

/** Confirms it with a code that it shows; from then on it is asked for. Answers the recovery codes, once. */
export async function confirmSecondFactor(
  desk: WithStore & WithSeal,
  actor: Actor,
  code: string,
): Promise<{ recovery: string[] }> {
  const person = personId(actor);
  await countPassword(desk, person);
  const [row] = await kept.secondFactorOf(desk.store, { person });
  const step = row && stepOfRow(desk, person, row, code);
  if (step === undefined) throw invalid([{ path: "code", message: WRONG }]);
  const recovery = newRecoveryCodes();
  await audited(desk, actor, { action: "second-factor.confirm", object: person }, async (transaction) => {
    const of = { person, step: String(step), recovery: recovery.map(hashOf) };
    if (!(await kept.confirmSecondFactor(desk.store, of, transaction)))
      throw new Problem(409, "Nothing to confirm", "A second factor was confirmed, or removed, meanwhile.");
  });
  return { recovery };
}

/** New recovery codes in place of those that there are, with one's password. */
export async function renewRecovery(
  desk: WithStore,
  actor: Actor,
  password: string,
): Promise<{ recovery: string[] }> {
  const person = await personOf(desk, actor);
  await checkPassword(desk, person, password, "password");
  const [row] = await kept.secondFactorOf(desk.store, { person: person.id });
  if (!row?.since) throw notFound("A second factor of yours");
  const recovery = newRecoveryCodes();
  await audited(desk, actor, { action: "second-factor.recovery", object: person.id }, (transaction) =>
    kept.replaceRecovery(desk.store, { person: person.id, recovery: recovery.map(hashOf) }, transaction),
  );
  return { recovery };
}

/** Takes one's second factor away, with one's password. */
export async function endSecondFactor(desk: WithStore, actor: Actor, password: string): Promise<void> {
  const person = await personOf(desk, actor);
  await checkPassword(desk, person, password, "password");
  await audited(desk, actor, { action: "second-factor.end", object: person.id }, (transaction) =>
    kept.dropSecondFactor(desk.store, { person: person.id }, transaction),
  );
}

/**
 * Checks the second factor of somebody whose password is right; each code counts once. Throws a 401 at `code` where it is
 * needed and missing, or wrong.
 */
export async function passSecondFactor(
  desk: WithStore & WithSeal,
  person: string,
  code: string | undefined,
): Promise<void> {
  const [row] = await kept.secondFactorOf(desk.store, { person });
  if (!row?.since) return;
  if (code === undefined || code.trim() === "")
    throw refused("Type the code that your app shows, or one of your recovery codes.");
  const step = stepOfRow(desk, person, row, code);
  if (step !== undefined && (await kept.useStep(desk.store, { person, step: String(step) }))) return;
  if (await kept.useRecovery(desk.store, { person, hash: hashOf(code) })) return;
  throw refused(WRONG);
}

const WRONG = "That code is not the one of now, or was used already. Wait for the next one.";

function refused(message: string): Problem {
  return new Problem(401, "Second factor", message, { errors: [{ path: "code", message }] });
}

// The step of a code by the secret that is kept; undefined where there is none, or the code is none of now.
function stepOfRow(
  desk: WithSeal,
  person: string,
  { secret: sealed }: kept.SecondFactorRow,
  code: string,
): number | undefined {
  const secret = sealed === null ? undefined : desk.seal.open(sealed, aboutSecondFactor(person));
  return secret === undefined ? undefined : stepOf(secret, code, Date.now());
}

/** What a sealed second factor is bound to. */
export function aboutSecondFactor(person: string): string {
  return `second factor of ${person}`;
}

function hashOf(code: string): string {
  return tokenHash(plainRecovery(code));
}
