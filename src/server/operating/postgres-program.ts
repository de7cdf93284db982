import { spawn } from "node:child_process";
import { once } from "node:events";
import { join } from "node:path";
import { readAddress } from "../../store/ground/connection.ts";
import { postgresFolder } from "../../../scripts/postgres.mjs";

/**
 * Runs one of PostgreSQL's own programs on a database. The password goes by the environment: a command line can be read by
 * everybody on the machine. Throws an Error with what the program said when it fails, or when it is not installed.
 */
export async function runPostgresProgram(
  name: "pg_dump" | "pg_restore",
  databaseUrl: string,
  args: readonly string[],
): Promise<void> {
  const { address, password } = withoutPassword(writable(databaseUrl));
  const folder = postgresFolder();
  const program = folder ? join(folder, name) : name;
  const child = spawn(program, ["--no-password", `--dbname=${address}`, ...args], {
    stdio: ["ignore", "ignore", "pipe"],
    env: { ...process.env, ...(password === undefined ? {} : { PGPASSWORD: password }) },
  });
  let said = "";
  child.stderr.on("data", (part) => (said += String(part)));
  const [status] = (await once(child, "close").catch((error: NodeJS.ErrnoException) => {
    if (error.code !== "ENOENT") throw error;
    throw new Error(`The program ${name} is missing; install postgresql-client.`, { cause: error });
  })) as [number | null];
  if (status !== 0) throw new Error(`${name} could not do it: ${said.trim().split("\n").at(-1)}`);
}

// Of several hosts, libpq looks for the primary itself.
function writable(address: string): string {
  return (readAddress(address)?.hosts.length ?? 1) < 2
    ? address
    : `${address}${address.includes("?") ? "&" : "?"}target_session_attrs=read-write`;
}

/** A database's address without its password, which may name several hosts (libpq, section 34.1.1.2). */
export function withoutPassword(databaseUrl: string): { address: string; password: string | undefined } {
  const found = /^(postgres(?:ql)?:\/\/[^/@:]*):([^/@]*)(@.*)$/i.exec(databaseUrl);
  if (!found) return { address: databaseUrl, password: undefined };
  const [, user, password, rest] = found;
  return { address: `${user}${rest}`, password: decodeURIComponent(password!) };
}
