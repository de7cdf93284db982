import {
  chmodSync,
  existsSync,
  mkdtempSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { basename, dirname, join, resolve } from "node:path";
import { create, extract } from "tar";
import { z } from "zod";

/** What a backup says of itself. */
export const manifestSchema = z.object({
  kind: z.literal("map-rope-backup"),
  format: z.literal(1),
  /** Of the application that made it. */
  version: z.string(),
  at: z.iso.datetime(),
  /** The mark of the secret that its credentials are sealed with. */
  secret: z.string(),
  /** The steps of the schema that its database has. */
  schema: z.array(z.string()),
  /** How many rows some tables have, to be compared after it was restored. */
  counts: z.record(z.string(), z.int()),
});
export type Manifest = z.infer<typeof manifestSchema>;

const MANIFEST = "manifest.json";

/** Makes an archive of what `fill` puts into a folder, and of its manifest; readable for its owner alone. Answers its bytes. */
export async function writeArchive(
  file: string,
  fill: (folder: string) => Promise<Manifest>,
): Promise<number> {
  const path = resolve(file);
  if (existsSync(path)) throw new Error(`There is a file ${file} already; name another.`);
  const folder = stagingIn(dirname(path), file);
  try {
    const manifest = await fill(folder);
    writeFileSync(join(folder, MANIFEST), JSON.stringify(manifest, null, 2), { mode: 0o600 });
    const part = join(folder, "..", `${basename(folder)}.tar`);
    try {
      await create({ file: part, cwd: folder, portable: true, mode: 0o600 }, ["."]);
      chmodSync(part, 0o600);
      renameSync(part, path);
    } finally {
      rmSync(part, { force: true });
    }
    return statSync(path).size;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Opens an archive into a folder beside `beside`, for as long as `work` takes. Throws an Error when it is not a backup. */
export async function readArchive(
  file: string,
  beside: string,
  work: (folder: string, manifest: Manifest) => Promise<void>,
): Promise<void> {
  if (!existsSync(file)) throw new Error(`There is no file ${file}.`);
  const folder = stagingIn(beside, beside);
  try {
    await extract({ file, cwd: folder, strict: true }).catch((error: unknown) => {
      throw new Error(`${file} cannot be opened: it is no backup, or only a part of one.`, { cause: error });
    });
    await work(folder, manifestIn(folder, file));
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

function manifestIn(folder: string, file: string): Manifest {
  const path = join(folder, MANIFEST);
  const read = existsSync(path)
    ? manifestSchema.safeParse(JSON.parse(readFileSync(path, "utf8")))
    : undefined;
  if (!read?.success) throw new Error(`${file} is no backup that this version can read.`);
  return read.data;
}

// Of the same disk as what is made: a rename, and nobody else's folder for what is secret.
function stagingIn(folder: string, named: string): string {
  try {
    return mkdtempSync(join(folder, ".maprope-backup-"));
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    throw new Error(`Nothing can be written beside ${named}${code ? ` (${code})` : ""}.`, { cause: error });
  }
}
