import { spawnSync } from "node:child_process";
import { chownSync, mkdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { postgresFolder, startPostgres } from "../../scripts/postgres.mjs";

type Server = Awaited<ReturnType<typeof startPostgres>>;

/** A primary and its streaming standby, each on a port of its own. */
export interface Pair {
  primary: Server;
  standby: Server;
  /** The address of a database that names both of them. */
  url(database: string): string;
  /** Ends the primary as a crash would. */
  kill(): void;
  /** Makes the standby the primary. */
  promote(): void;
  stop(): void;
}

/** Starts a primary in a folder, copies it, and lets the copy follow it (PostgreSQL, section 27.2.5). */
export async function startPair(folder: string): Promise<Pair> {
  const settings = { fsync: "off", max_connections: "100", wal_level: "replica", max_wal_senders: "4" };
  const [first, second] = [join(folder, "one"), join(folder, "two")];
  const primary = await startPostgres(first, settings);
  const password = readFileSync(join(first, "postgres-password"), "utf8");
  const copy = await emptyBeside(second);
  writeFileSync(join(second, "postgres-password"), password, { mode: 0o600 });
  const from = `host=127.0.0.1 port=${primary.port} user=maprope password=${password}`;
  asPostgres(copy, "pg_basebackup", ["-d", from, "-D", copy, "-X", "stream", "-c", "fast", "-R"]);
  const standby = await startPostgres(second, settings);
  return {
    primary,
    standby,
    url: (database) =>
      primary
        .url(database)
        .replace(`127.0.0.1:${primary.port}`, `127.0.0.1:${primary.port},127.0.0.1:${standby.port}`),
    kill: () => primary.stop("immediate"),
    promote: () => asPostgres(copy, "pg_ctl", ["promote", "-w", "-t", "30", "-D", copy]),
    stop() {
      for (const server of [primary, standby]) {
        server.stop("immediate");
        server.discard();
      }
    },
  };
}

// Where a server of ours would have its data, made for the copy as it is made for a new one.
async function emptyBeside(folder: string): Promise<string> {
  const made = await startPostgres(folder, {});
  made.stop("immediate");
  const { uid, gid } = statSync(made.data);
  made.discard();
  mkdirSync(dirname(made.data), { recursive: true });
  mkdirSync(made.data, { mode: 0o700 });
  chownSync(made.data, uid, gid);
  return made.data;
}

function asPostgres(data: string, program: string, args: readonly string[]): void {
  const path = join(postgresFolder()!, program);
  const isRoot = process.getuid?.() === 0;
  const [command, list] = isRoot ? ["runuser", ["-u", "postgres", "--", path, ...args]] : [path, args];
  const { status, stderr } = spawnSync(command, list as string[], { cwd: dirname(data), encoding: "utf8" });
  if (status !== 0) throw new Error(`${program} failed: ${stderr}`);
}
