import { open, readdir, readlink, stat } from "node:fs/promises";
import { basename, dirname, join } from "node:path";

/** A file of an edge's log: the one that is written, or one that was put aside. */
export interface LogFile {
  path: string;
  /** Device and inode: whatever it is called. */
  identity: string;
  size: number;
  changedAt: number;
  /** We put it aside ourselves, and take it away when it was read. */
  isOurs: boolean;
}

/** What a file is called that was put aside by us. */
export function asideName(log: string, now: number): string {
  return `${log}.aside-${now}`;
}

/** The files of a log, the oldest first: put aside by us, by whoever rotates logs on that machine, and the one that is written. */
export async function logFiles(log: string): Promise<LogFile[]> {
  const [folder, name] = [dirname(log), basename(log)];
  const files: LogFile[] = [];
  for (const file of await readdir(folder)) {
    const rest = file.startsWith(name) ? file.slice(name.length) : undefined;
    if (rest === undefined || !/^(?:\.aside-\d+|[.-]\d+)?$/.test(rest)) continue;
    const path = join(folder, file);
    const found = await stat(path).catch(unlessGone);
    if (!found?.isFile()) continue;
    const { dev, ino, size, mtimeMs } = found;
    files.push({
      path,
      identity: `${dev}:${ino}`,
      size,
      changedAt: mtimeMs,
      isOurs: rest.startsWith(".aside-"),
    });
  }
  return files.sort((a, b) => Number(a.path === log) - Number(b.path === log) || a.changedAt - b.changedAt);
}

/** Whole lines behind a place in a file, at most so many bytes; undefined where there is none yet. */
export async function linesBehind(path: string, from: number, most: number): Promise<Buffer | undefined> {
  const file = await open(path, "r").catch(unlessGone);
  if (!file) return undefined;
  try {
    const buffer = Buffer.allocUnsafe(most);
    const { bytesRead } = await file.read(buffer, 0, most, from);
    const end = buffer.subarray(0, bytesRead).lastIndexOf(10) + 1;
    // A line that is longer than all that was read is none of ours: it is passed over, piece by piece.
    if (end === 0) return bytesRead === most ? buffer : undefined;
    return buffer.subarray(0, end);
  } finally {
    await file.close();
  }
}

/**
 * True while some process has the file open. Throws an EACCES where that cannot be seen of the process with this number,
 * which writes it.
 */
export async function isOpen(path: string, writer: number | undefined): Promise<boolean> {
  if (writer !== undefined) await readdir(`/proc/${writer}/fd`).catch(unlessGone);
  for (const process of await readdir("/proc")) {
    if (!/^\d+$/.test(process)) continue;
    const folder = `/proc/${process}/fd`;
    for (const one of await readdir(folder).catch(() => [])) {
      const to = await readlink(join(folder, one)).catch(() => "");
      if (to === path) return true;
    }
  }
  return false;
}

function unlessGone(error: NodeJS.ErrnoException): undefined {
  if (error.code !== "ENOENT") throw error;
}
