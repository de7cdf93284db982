import { readFileSync, renameSync, writeFileSync } from "node:fs";
import { z } from "zod";

const stateSchema = z.object({
  /** How far each file of the log was read, by device and inode. */
  read: z.record(z.string(), z.int().nonnegative()),
  /** The last segment that was made, which may not have come into the spool yet. */
  segment: z.string().nullable(),
  collected: z.int().nonnegative(),
  unreadable: z.int().nonnegative(),
});

/** How far the collecting of an edge's log has come. */
export type CollectState = z.infer<typeof stateSchema>;

/** Reads it; a fresh one where none was kept. Throws an Error when it is damaged: to begin anew would count twice. */
export function readState(path: string): CollectState {
  let text: string;
  try {
    text = readFileSync(path, "utf8");
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== "ENOENT") throw error;
    return { read: {}, segment: null, collected: 0, unreadable: 0 };
  }
  try {
    return stateSchema.parse(JSON.parse(text));
  } catch (error) {
    throw new Error(
      `${path} is damaged: how far the log was read is not known. Take the log away, or this file to read all of it again.`,
      { cause: error },
    );
  }
}

/** Keeps it, as a whole or not at all. */
export function writeState(path: string, state: CollectState): void {
  writeFileSync(`${path}.new`, JSON.stringify(state), { mode: 0o600, flush: true });
  renameSync(`${path}.new`, path);
}
