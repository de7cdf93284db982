import { readdir } from "node:fs/promises";
import { isSegment } from "../../delivery/clicks/segment-name.ts";

/** Where a backup has the database, as pg_dump's custom format. */
export const DUMP = "database.dump";
/** Where it, and a data folder, has the clicks that wait. */
export const SPOOL = "spool";

/** The files of a spool's folder; none where there is no folder yet. */
export async function spoolFiles(folder: string): Promise<string[]> {
  try {
    return (await readdir(folder)).filter(isSegment).sort();
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === "ENOENT") return [];
    throw error;
  }
}
