import { createHash } from "node:crypto";
import { accessSync, chmodSync, constants, mkdirSync, statSync } from "node:fs";
import { addressesOf, readAddress } from "../store/ground/connection.ts";
import type { Store } from "../store/ground/store.ts";
import { ping, addSecretMark, secretMarks, replaceSecretMark } from "../store/ground/installation.ts";

/**
 * Makes the data folder, for its owner alone, and tightens one that is there. Throws an Error with one plain sentence
 * when it is another user's. (PostgreSQL's own user passes through it where the server runs as root: scripts/postgres.mjs.)
 */
export function ownFolder(folder: string): void {
  try {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    accessSync(folder, constants.R_OK | constants.W_OK | constants.X_OK);
  } catch {
    throw new Error(
      `The data folder ${folder} cannot be used: it belongs to another user, or stands where this one may not write. Set MAPROPE_DATA to a folder of your own.`,
    );
  }
  const { uid, mode } = statSync(folder);
  if (uid === process.getuid?.()) chmodSync(folder, mode & 0o710);
}

/** Asks the database once; throws an Error with one plain sentence when it does not answer, or is not there. */
export async function reachable(store: Store): Promise<void> {
  try {
    await ping(store);
  } catch (error) {
    const { code } = ((error as { parent?: unknown }).parent ?? error) as { code?: string };
    const { hosts = [], database: name = "" } = readAddress(addressesOf(store.url).usual) ?? {};
    const host = hosts.map((one) => `${one.host}:${one.port}`).join(" and ");
    throw new Error(
      code === "3D000"
        ? `There is no database “${name}” on ${host}; make it first (createdb), or correct DATABASE_URL.`
        : code === "28P01" || code === "28000"
          ? `The database on ${host} does not take the name and password of DATABASE_URL.`
          : `The database on ${host} does not answer${code ? ` (${code})` : ""}; start it, or correct DATABASE_URL.`,
      { cause: error },
    );
  }
}

/** What a database keeps of its installation's secret: enough to know it again. */
export function markOf(secret: string): string {
  return createHash("sha256").update(`mark of ${secret}`).digest("base64url");
}

/**
 * Refuses to start with a secret that is not the one that this database's credentials are sealed with: what would be
 * sealed anew could not be opened by the others. The first process leaves a mark of its secret, which does not tell it.
 */
export async function knownSecret(store: Store, secrets: readonly string[]): Promise<void> {
  const marks = secrets.map(markOf);
  await addSecretMark(store, { mark: marks[0] });
  const [kept] = await secretMarks(store);
  if (kept!.value === marks[0]) return;
  if (!marks.includes(kept!.value))
    throw new Error(
      "This database belongs to an installation with another secret: set MAPROPE_SECRET to that one (it stands in the file “secret” of its data folder), or add it to MAPROPE_SECRET_BEFORE to change it.",
    );
  // The new secret takes over; what is sealed with the old one is still opened.
  await replaceSecretMark(store, {
    mark: marks[0],
  });
}
