import { copyFile, mkdir, stat } from "node:fs/promises";
import { join } from "node:path";
import { copiedBytes } from "../../store/clicks/click-spool.ts";
import { lockFolder } from "../../delivery/clicks/folder-lock.ts";
import { hasTables, rowCounts } from "../../store/ground/installation.ts";
import { migrate, MIGRATIONS } from "../../store/ground/migrate.ts";
import type { Store } from "../../store/ground/store.ts";
import type { Config } from "../config.ts";
import { knownSecrets } from "../secret.ts";
import { markOf, ownFolder, reachable } from "../starting.ts";
import { readArchive, type Manifest } from "./archive.ts";
import { segmentOf } from "../../delivery/clicks/segment-name.ts";
import { DUMP, SPOOL, spoolFiles } from "./backup-parts.ts";
import { addressesOf } from "../../store/ground/connection.ts";
import { WrongUsage, type Operating } from "./operate.ts";
import { runPostgresProgram } from "./postgres-program.ts";

/** Makes an empty database and an unused data folder what they were when a backup was made; its secret must be here already. */
export async function restoreCommand(
  args: readonly string[],
  { store, config, say }: Operating,
): Promise<void> {
  const [file, ...more] = args;
  if (file === undefined || more.length > 0) throw new WrongUsage("say “restore FILE”.");
  ownFolder(config.dataFolder);
  const lock = await lockFolder(config.dataFolder);
  try {
    await refuseUsed(store, config);
    await readArchive(file, config.dataFolder, async (folder, manifest) => {
      refuseUnfit(manifest, config);
      await runPostgresProgram("pg_restore", addressesOf(store.url).direct, [
        "--no-owner",
        "--no-privileges",
        "--exit-on-error",
        "--single-transaction",
        join(folder, DUMP),
      ]);
      const waiting = await putSpool(store, join(folder, SPOOL), join(config.dataFolder, SPOOL));
      const { ran } = await migrate(store);
      const counts = await rowCounts(store);
      say(`Restored as of ${manifest.at}, made by version ${manifest.version}:`);
      for (const [table, rows] of Object.entries(counts)) {
        const then = manifest.counts[table];
        say(`  ${table}  ${rows}${then === undefined || then === rows ? "" : ` (${then} when it began)`}`);
      }
      say(`  files of waiting clicks  ${waiting}`);
      if (ran.length > 0) say(`The schema was brought up to date by ${ran.length} steps.`);
    });
  } finally {
    lock.release();
  }
}

async function refuseUsed(store: Store, { dataFolder }: Config): Promise<void> {
  await reachable(store);
  if (await hasTables(store))
    throw new Error("This database is in use already; a backup is restored into an empty one.");
  if ((await spoolFiles(join(dataFolder, SPOOL))).length > 0)
    throw new Error(
      `Clicks of another installation wait in ${dataFolder}; a backup is restored into an unused data folder.`,
    );
}

function refuseUnfit({ secret, schema, version }: Manifest, config: Config): void {
  if (!knownSecrets(config).map(markOf).includes(secret))
    throw new Error(
      `What is sealed in this backup needs the secret of then: put it into the file “secret” of ${config.dataFolder}, or into MAPROPE_SECRET.`,
    );
  const known = new Set(MIGRATIONS.map(({ name }) => name));
  if (schema.some((name) => !known.has(name)))
    throw new Error(`This backup was made by a newer version, ${version}; install that one first.`);
}

// What was copied into the database before it was dumped is not put back: it would be counted twice.
async function putSpool(store: Store, from: string, to: string): Promise<number> {
  await mkdir(to, { recursive: true, mode: 0o700 });
  let put = 0;
  for (const name of await spoolFiles(from)) {
    const { size } = await stat(join(from, name));
    if ((await copiedBytes(store, segmentOf(name))) >= size) continue;
    await copyFile(join(from, name), join(to, name));
    put += 1;
  }
  return put;
}
