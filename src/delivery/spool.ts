import { closeSync, mkdirSync, openSync, renameSync, writeSync } from "node:fs";
import { join } from "node:path";
import { randomUUID } from "node:crypto";

const SEGMENT_BYTES = 8 * 1024 * 1024;

/** Where records wait for the database: files that only grow, one line a record. */
export interface Spool {
  /**
   * Appends lines with one write, which has reached the operating system when this returns: a killed process
   * loses nothing. Answers false when the disk refused; the lines are then lost, and counted in `lost`.
   */
  append(lines: string, records: number): boolean;
  /** Records that could not be written since start. */
  readonly lost: number;
  /** Records written since start. */
  readonly written: number;
  /** Ends the current segment, so that it may be cleared away once it is copied. */
  close(): void;
}

/**
 * Opens a spool in a folder. Segments carry the process id while they are written (`….123.open`) and are
 * renamed to `….sealed` when full; a new one begins then. Several processes may share the folder. The number of
 * records written stands in `counter` too, one unsigned 64-bit number, for a thread that wants to know.
 */
export function openSpool(folder: string, counter = new SharedArrayBuffer(8)): Spool {
  mkdirSync(folder, { recursive: true });
  let file = -1;
  let path = "";
  let bytes = 0;
  let torn = false;
  let lost = 0;
  let written = 0;
  const shared = new BigUint64Array(counter);

  function begin(): void {
    path = join(folder, `${Date.now()}-${randomUUID()}.${process.pid}.open`);
    file = openSync(path, "a");
    bytes = 0;
    torn = false;
  }
  function seal(): void {
    if (file === -1) return;
    closeSync(file);
    file = -1;
    renameSync(path, path.replace(/\.\d+\.open$/, ".sealed"));
  }
  return {
    get lost() {
      return lost;
    },
    get written() {
      return written;
    },
    append(lines, records) {
      try {
        if (file === -1) begin();
        // A write that the disk took only half of left a torn line: the next one starts on a line of its own.
        const text = torn ? `\n${lines}` : lines;
        const taken = writeSync(file, text);
        bytes += taken;
        torn = taken < Buffer.byteLength(text);
        if (torn) throw new Error("the disk took only part of a write");
        written += records;
        Atomics.store(shared, 0, BigInt(written));
        if (bytes >= SEGMENT_BYTES) seal();
        return true;
      } catch {
        lost += records; // told by /healthz and on the clicks screen; the redirect goes on
        return false;
      }
    },
    close: seal,
  };
}
