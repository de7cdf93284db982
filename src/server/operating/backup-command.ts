import { copyFile, mkdir, readdir } from "node:fs/promises";
import { join } from "node:path";
import { hasTables, rowCounts, secretMarks } from "../../store/ground/installation.ts";
import { ranMigrations } from "../../store/ground/migrate.ts";
import { reachable } from "../starting.ts";
import { versionAbove } from "../version.ts";
import { segmentOf } from "../../delivery/clicks/segment-name.ts";
import { DUMP, SPOOL, spoolFiles } from "./backup-parts.ts";
import { writeArchive } from "./archive.ts";
import { addressesOf } from "../../store/ground/connection.ts";
import { WrongUsage, type Operating } from "./operate.ts";
import { runPostgresProgram } from "./postgres-program.ts";

/**
 * Keeps an installation in one file, while it runs: its database, and the clicks that wait on this machine's disk. The secret
 * is not in it, only its mark.
 */
export async function backupCommand(
  args: readonly string[],
  { store, config, say }: Operating,
): Promise<void> {
  const [file, ...more] = args;
  if (file === undefined || more.length > 0) throw new WrongUsage("say “backup FILE”.");
  await reachable(store);
  const [secret] = (await hasTables(store)) ? await secretMarks(store) : [];
  if (!secret) throw new Error("There is nothing to keep yet: this database was never served.");
  let kept = "";
  const bytes = await writeArchive(file, async (folder) => {
    // The spool first: what is copied into the database meanwhile is marked there as copied, and is not taken twice.
    const segments = await copySpool(join(config.dataFolder, SPOOL), join(folder, SPOOL));
    const counts = await rowCounts(store);
    await runPostgresProgram("pg_dump", addressesOf(store.url).direct, [
      "--format=custom",
      "--no-owner",
      "--no-privileges",
      `--file=${join(folder, DUMP)}`,
    ]);
    const waiting = segments === 0 ? "no clicks waiting" : `${segments} files of waiting clicks`;
    kept = `${counts.sites} sites, ${counts.pages} pages, ${counts.routes} routes, ${counts.clicks} clicks, ${waiting}`;
    return {
      kind: "map-rope-backup",
      format: 1,
      version: versionAbove(import.meta.dirname),
      at: new Date().toISOString(),
      secret: secret.value,
      schema: await ranMigrations(store),
      counts: { ...counts },
    };
  });
  say(`Kept in ${file}, ${(bytes / 1e6).toFixed(1)} MB: ${kept}.`);
  say("The secret is not in it; keep a copy of it elsewhere.");
}

/** Copies the segments that are there; answers how many. */
async function copySpool(from: string, to: string): Promise<number> {
  await mkdir(to, { mode: 0o700 });
  let copied = 0;
  for (const name of await spoolFiles(from)) {
    if (await copySegment(from, name, to)) copied += 1;
  }
  return copied;
}

// A segment that ends meanwhile has another name by then; one that is gone was copied into the database whole.
async function copySegment(from: string, name: string, to: string): Promise<boolean> {
  const segment = segmentOf(name);
  for (const now of [name, `${segment}.sealed`]) {
    try {
      await copyFile(join(from, now), join(to, `${segment}.sealed`));
      return true;
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== "ENOENT") throw error;
    }
  }
  return (await readdir(from)).includes(`${segment}.sealed`) && copySegment(from, `${segment}.sealed`, to);
}
