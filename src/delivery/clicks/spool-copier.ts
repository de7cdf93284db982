import { open, readdir, rename, stat, statfs, unlink } from "node:fs/promises";
import { join } from "node:path";
import { readSpoolLine } from "../../core/clicks/spool-line.ts";
import type { SpoolRecord } from "../../core/clicks/record.ts";
import { isSegment, segmentOf } from "./segment-name.ts";
import { copiedBytes, copyBatch, closeSegment, isDataFault } from "../../store/clicks/click-spool.ts";
import { hasStandby } from "../../store/ground/connection.ts";
import { serverStart } from "../../store/ground/installation.ts";
import type { Store } from "../../store/ground/store.ts";

/** How much is copied in one transaction: little while readers want the machine, much when a backlog is worked off. */
export type BatchSize = "small" | "large";

// Some 3,500 records, and a whole segment of some 110,000.
const BATCH_BYTES: Readonly<Record<BatchSize, number>> = { small: 256 * 1024, large: 9 * 1024 * 1024 };
// Two at once: while PostgreSQL counts and commits one segment's batch, the other's lines are read.
const SEGMENTS_AT_ONCE = 2;
// Longer than a standby is ever behind; and only while there is room for clicks that come.
const KEPT_MS = 300_000;
const ROOM_BYTES = 2_000_000_000;

/** A record, and where its line ends, counted from the start of the batch. */
interface Line {
  record: SpoolRecord;
  end: number;
}

interface Stretch {
  from: number;
  to: number;
  lines: readonly Line[];
  bad: number;
}

/** What waits in a spool's folder. */
export interface Waiting {
  records: number;
  /** The moment of the record that waits longest, in milliseconds since 1970; null when none waits. */
  oldest: number | null;
}

/** Copies the spool's segments to the database, each line exactly once. */
export interface SpoolCopier {
  /** Copies what is there now, at most so many batches; answers how many records. Throws when the database does not answer. */
  copy(mostBatches?: number, size?: BatchSize): Promise<number>;
  /** Bytes that waited when copying last ended. */
  readonly waitingBytes: number;
  /** How many records wait in the folder, counted in the files, and since when; the database is not asked. */
  pending(): Promise<Waiting>;
  /** Lines that could not be read: torn by a full disk, or never ours. */
  readonly unreadable: number;
}

/**
 * A copier for one folder. Any number may copy from the same folder at the same time; segments that are still written
 * by another than `owner` were left behind by a process that has ended, for the folder is one process's alone.
 */
export function createSpoolCopier(store: Store, folder: string, owner?: string): SpoolCopier {
  const offsets = new Map<string, number>();
  const mayFailOver = hasStandby(store.url);
  let server: string | undefined;
  let unreadable = 0;
  let waitingBytes = 0;

  async function copySegment(name: string, budget: { batches: number; bytes: number }): Promise<number> {
    const segment = segmentOf(name);
    const size = await sizeOf(join(folder, name));
    let from = offsets.get(segment) ?? (await copiedBytes(store, segment));
    let copied = 0;
    while (from < size && budget.batches > 0) {
      budget.batches -= 1;
      const { lines, bytes, bad } = await readLines(join(folder, name), from, budget.bytes);
      if (bytes === 0) {
        // What is left of a full disk's last write is no line, and was counted as lost when it was written.
        if (name.endsWith(".sealed")) from = size;
        break;
      }
      const taken = await copyLines(segment, { from, to: from + bytes, lines, bad });
      // Another process copied this stretch: go on from where it stands.
      from = taken ? from + bytes : await copiedBytes(store, segment);
      offsets.set(segment, from);
      if (taken) {
        copied += lines.length;
        unreadable += bad;
      }
    }
    waitingBytes += Math.max(0, size - from);
    if (name.endsWith(".sealed") && from >= size && !(await staysAWhile(name))) await clear(name, segment);
    return copied;
  }

  // One line that the database refuses must not hold up those around it: halves are tried until it stands alone.
  async function copyLines(segment: string, { from, to, lines, bad }: Stretch): Promise<boolean> {
    try {
      return await copyBatch(store, {
        segment,
        from,
        to,
        records: lines.map(({ record }) => record),
        unreadable: bad,
      });
    } catch (error) {
      if (!isDataFault(error)) throw error;
      if (lines.length <= 1) {
        unreadable += lines.length;
        return copyBatch(store, { segment, from, to, records: [], unreadable: bad + lines.length });
      }
      const half = lines.length >> 1;
      const middle = from + lines[half - 1]!.end;
      const first = await copyLines(segment, { from, to: middle, lines: lines.slice(0, half), bad: 0 });
      const rest = lines.slice(half).map(({ record, end }) => ({ record, end: end - (middle - from) }));
      return first && (await copyLines(segment, { from: middle, to, lines: rest, bad }));
    }
  }

  // What a primary took and its standby had not got yet would be gone with it: it can be copied again for a while.
  async function staysAWhile(name: string): Promise<boolean> {
    if (!mayFailOver) return false;
    const age = Date.now() - ((await stat(join(folder, name)).catch(unlessGone))?.mtimeMs ?? 0);
    const { bavail, bsize } = await statfs(folder);
    return age < KEPT_MS && bavail * bsize > ROOM_BYTES;
  }

  // Another server than before may know of less: each segment's progress is asked for again.
  async function forgetOnNewServer(): Promise<void> {
    if (!mayFailOver) return;
    const now = await serverStart(store);
    if (server !== undefined && server !== now) offsets.clear();
    server = now;
  }

  async function clear(name: string, segment: string): Promise<void> {
    await unlink(join(folder, name)).catch(unlessGone);
    offsets.delete(segment);
    await closeSegment(store, segment);
  }

  // After a restart, how far a segment was copied is known to the database alone; without it, all of it is said to wait.
  async function copiedOf(segment: string): Promise<number> {
    const known = offsets.get(segment);
    if (known !== undefined) return known;
    const copied = await copiedBytes(store, segment).catch(() => undefined);
    if (copied !== undefined) offsets.set(segment, copied);
    return copied ?? 0;
  }

  return {
    async pending() {
      const waiting: Waiting = { records: 0, oldest: null };
      for (const name of (await readdir(folder).catch(unlessGone)) ?? []) {
        if (!isSegment(name)) continue;
        const { lines, first } = await countLines(join(folder, name), await copiedOf(segmentOf(name)));
        waiting.records += lines;
        if (first !== undefined) waiting.oldest = Math.min(first, waiting.oldest ?? Infinity);
      }
      return waiting;
    },
    get unreadable() {
      return unreadable;
    },
    get waitingBytes() {
      return waitingBytes;
    },
    async copy(mostBatches = Infinity, size = "large") {
      const budget = { batches: mostBatches, bytes: BATCH_BYTES[size] };
      await forgetOnNewServer();
      waitingBytes = 0;
      let copied = 0;
      const names = (await readdir(folder)).filter(isSegment).sort();
      const copyNext = async (): Promise<void> => {
        for (let name = names.shift(); name !== undefined; name = names.shift()) {
          const records = await copySegment(await sealedIfAbandoned(folder, name, owner), budget);
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

// A segment whose process has ended will not grow any more.
async function sealedIfAbandoned(folder: string, name: string, owner: string | undefined): Promise<string> {
  const writer = /\.([\da-f]+)\.open$/.exec(name)?.[1];
  if (!writer || writer === owner) return name;
  const sealed = name.replace(/\.[\da-f]+\.open$/, ".sealed");
  await rename(join(folder, name), join(folder, sealed)).catch(unlessGone);
  return sealed;
}

async function readLines(
  path: string,
  from: number,
  most: number,
): Promise<{ lines: Line[]; bytes: number; bad: number }> {
  const file = await open(path, "r").catch(unlessGone);
  if (!file) return { lines: [], bytes: 0, bad: 0 };
  try {
    const buffer = Buffer.allocUnsafe(most);
    const { bytesRead } = await file.read(buffer, 0, most, from);
    const end = buffer.subarray(0, bytesRead).lastIndexOf(10) + 1;
    const lines: Line[] = [];
    let bad = 0;
    let at = 0;
    const text = buffer.toString("utf8", 0, end);
    // Nearly all lines are of ASCII alone; of others the bytes have to be counted.
    const isPlain = text.length === end;
    for (const line of text.split("\n")) {
      at += (isPlain ? line.length : Buffer.byteLength(line)) + 1;
      const record = line === "" ? undefined : readSpoolLine(line);
      if (record) lines.push({ record, end: at });
      else if (line !== "") bad += 1;
    }
    return { lines, bytes: end, bad };
  } finally {
    await file.close();
  }
}

/** The lines behind a place in a file, and the moment that the first of them tells. */
async function countLines(path: string, from: number): Promise<{ lines: number; first?: number }> {
  const file = await open(path, "r").catch(unlessGone);
  if (!file) return { lines: 0 };
  try {
    const buffer = Buffer.allocUnsafe(BATCH_BYTES.small);
    let lines = 0;
    let first: number | undefined;
    for (let at = from; ;) {
      const { bytesRead } = await file.read(buffer, 0, buffer.length, at);
      if (bytesRead === 0) return first === undefined ? { lines } : { lines, first };
      for (
        let byte = buffer.indexOf(10);
        byte !== -1 && byte < bytesRead;
        byte = buffer.indexOf(10, byte + 1)
      ) {
        if (lines === 0) first = readSpoolLine(buffer.toString("utf8", 0, byte))?.at;
        lines += 1;
      }
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
