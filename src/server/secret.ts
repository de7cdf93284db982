import { randomBytes } from "node:crypto";
import { copyFileSync, existsSync, readFileSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import type { Config } from "./config.ts";

/** The secret of a data folder, made at the first start. */
export function keptSecret(dataFolder: string): string {
  const file = join(dataFolder, "secret");
  try {
    writeFileSync(file, newSecret(), { mode: 0o600, flag: "wx" });
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== "EEXIST") throw error;
  }
  return readFileSync(file, "utf8");
}

/**
 * The secrets that are known here, the newest first: the one that the settings name, or else the data folder's, then those
 * before it. None where neither is there; nothing is made.
 */
export function knownSecrets({
  secret,
  secretsBefore,
  dataFolder,
}: Pick<Config, "secret" | "secretsBefore" | "dataFolder">): string[] {
  const kept =
    secret === undefined ? [contentOf(dataFolder, "secret"), contentOf(dataFolder, BEFORE)] : [secret];
  return [...kept.filter((one) => one !== undefined), ...secretsBefore];
}

const BEFORE = "secret.before";

/**
 * Gives a data folder a new secret. The one before stays beside it until `forgetSecretBefore`: whatever stops the work between
 * the two, each start knows both, and the next change goes on with the secret that was begun.
 */
export function changeKeptSecret(dataFolder: string): void {
  const [file, before] = [join(dataFolder, "secret"), join(dataFolder, BEFORE)];
  if (existsSync(before)) return;
  writeFileSync(`${file}.next`, newSecret(), { mode: 0o600 });
  copyFileSync(file, before);
  renameSync(`${file}.next`, file);
}

/** Takes the secret before away: nothing is sealed with it any more. */
export function forgetSecretBefore(dataFolder: string): void {
  rmSync(join(dataFolder, BEFORE), { force: true });
}

/** A secret that nobody guesses: 256 random bits. */
export function newSecret(): string {
  return randomBytes(32).toString("base64url");
}

function contentOf(folder: string, name: string): string | undefined {
  const file = join(folder, name);
  return existsSync(file) ? readFileSync(file, "utf8") : undefined;
}
