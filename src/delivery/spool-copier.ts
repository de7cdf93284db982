import { open, readdir, rename, stat, unlink } from "node:fs/promises";
import { join } from "node:path";
import { readSpoolLine } from "../core/clicks/spool-line.ts";
import type { SpoolRecord } from "../core/clicks/record.ts";
import { copiedBytes, copyBatch, closeSegment } from "../store/click-spool.ts";
import type { Store } from "../store/store.ts";

/** How much is copied in one transaction: little while readers want the machine, much when a backlog is worked off. */
export type BatchSize = "small" | "large";

// Some 3,500 records, and a whole segment of some 110,000.
const BATCH_BYTES: Readonly<Record<BatchSize, number>> = { small: 256 * 1024, large: 9 * 1024 * 1024 };
// Two at once: while PostgreSQL counts and commits one segment's batch, the other's lines are read.
const SEGMENTS_AT_ONCE = 2;
const SEGMENT = /\.(?:\d+\.open|sealed)$/;

/** Copies the spool's segments to the database, each line exactly once. */
export interface SpoolCopier {
  /** Copies what is there now, at most so many batches; answers how many records. Throws when the database does not answer. */
  copy(mostBatches?: number, size?: BatchSize): Promise<number>;
  /** Bytes that waited when copying last ended. */
  readonly waitingBytes: number;
  /** How many records wait in the folder, counted in the files; the database is not asked. */
  pending(): Promise<number>;
  /** Lines that could not be read: torn by a full disk, or never ours. */
  readonly unreadable: number;
}

/** A copier for one folder. Any number of processes may copy from the same folder at the same time. */
export function createSpoolCopier(store: Store, folder: string): SpoolCopier {
  const offsets = new Map<string, number>();
  let unreadable = 0;
  let waitingBytes = 0;

  async function copySegment(name: string, budget: { batches: number; bytes: number }): Promise<number> {
    const segment = name.replace(SEGMENT, "");
    const size = await sizeOf(join(folder, name));
    let from = offsets.get(segment) ?? (await copiedBytes(store, segment));
    let copied = 0;
    while (from < size && budget.batches > 0) {
      budget.batches -= 1;
      const { records, bytes, bad } = await readLines(join(folder, name), from, budget.bytes);
      if (bytes === 0) break;
      const taken = await copyBatch(store, { segment, from, to: from + bytes, records });
      // Another process copied this stretch: go on from where it stands.
      from = taken ? from + bytes : await copiedBytes(store, segment);
      offsets.set(segment, from);
      if (taken) {
        copied += records.length;
        unreadable += bad;
      }
    }
    waitingBytes += Math.max(0, size - from);
    if (name.endsWith(".sealed") && from >= size) await clear(name, segment);
    return copied;
  }

  async function clear(name: string, segment: string): Promise<void> {
    await unlink(join(folder, name)).catch(unlessGone);
    offsets.delete(segment);
    await closeSegment(store, segment);
  }

  return {
    async pending() {
      let records = 0;
      for (const name of (await readdir(folder).catch(unlessGone)) ?? []) {
        if (SEGMENT.test(name))
          records += await countLines(join(folder, name), offsets.get(name.replace(SEGMENT, "")) ?? 0);
      }
      return records;
    },
    get unreadable() {
      return unreadable;
    },
    get waitingBytes() {
      return waitingBytes;
    },
    async copy(mostBatches = Infinity, size = "large") {
      const budget = { batches: mostBatches, bytes: BATCH_BYTES[size] };
      waitingBytes = 0;
      let copied = 0;
      const names = (await readdir(folder)).filter((name) => SEGMENT.test(name)).sort();
      const copyNext = async (): Promise<void> => {
        for (let name = names.shift(); name !== undefined; name = names.shift()) {
          const records = await copySegment(await sealedIfAbandoned(folder, name), budget);
          copied += records;
        }
      };
      // All have ended before a failure is told: none goes on behind a caller that has given up.
      const ends = await Promise.allSettled(Array.from({ length: SEGMENTS_AT_ONCE }, copyNext));
      for (const end of ends) if (end.status === "rejected") throw end.reason;
      return copied;
    },
  };
}

async function sizeOf(path: string): Promise<number> {
  return (await stat(path).catch(unlessGone))?.size ?? 0;
}

// A segment whose process has died will not grow any more.
async function sealedIfAbandoned(folder: string, name: string): Promise<string> {
  const owner = /\.(\d+)\.open$/.exec(name)?.[1];
  if (!owner || Number(owner) === process.pid || isAlive(Number(owner))) return name;
  const sealed = name.replace(/\.\d+\.open$/, ".sealed");
  await rename(join(folder, name), join(folder, sealed)).catch(unlessGone);
  return sealed;
}

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === "EPERM";
  }
}

async function readLines(
  path: string,
  from: number,
  most: number,
): Promise<{ records: SpoolRecord[]; bytes: number; bad: number }> {
  const file = await open(path, "r").catch(unlessGone);
  if (!file) return { records: [], bytes: 0, bad: 0 };
  try {
    const buffer = Buffer.allocUnsafe(most);
    const { bytesRead } = await file.read(buffer, 0, most, from);
    const end = buffer.subarray(0, bytesRead).lastIndexOf(10) + 1;
    const records: SpoolRecord[] = [];
    let bad = 0;
    for (const line of buffer.toString("utf8", 0, end).split("\n")) {
      const record = line === "" ? undefined : readSpoolLine(line);
      if (record) records.push(record);
      else if (line !== "") bad += 1;
    }
    return { records, bytes: end, bad };
  } finally {
    await file.close();
  }
}

async function countLines(path: string, from: number): Promise<number> {
  const file = await open(path, "r").catch(unlessGone);
  if (!file) return 0;
  try {
    const buffer = Buffer.allocUnsafe(BATCH_BYTES.small);
    let lines = 0;
    for (let at = from; ;) {
      const { bytesRead } = await file.read(buffer, 0, buffer.length, at);
      if (bytesRead === 0) return lines;
      for (
        let byte = buffer.indexOf(10);
        byte !== -1 && byte < bytesRead;
        byte = buffer.indexOf(10, byte + 1)
      )
        lines += 1;
      at += bytesRead;
    }
  } finally {
    await file.close();
  }
}

// Another process that shares the folder may seal or clear a segment at any moment.
function unlessGone(error: NodeJS.ErrnoException): undefined {
  if (error.code !== "ENOENT" && error.code !== "ENOTDIR") throw error;
}
