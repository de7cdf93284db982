import {
  closeSync,
  fstatSync,
  mkdirSync,
  openSync,
  readSync,
  renameSync,
  unlinkSync,
  writeFileSync,
  writeSync,
} from "node:fs";
import { dirname, join } from "node:path";
import { randomUUID } from "node:crypto";
import { lostLine } from "../../core/clicks/spool-line.ts";

const SEGMENT_BYTES = 8 * 1024 * 1024;
const LOOK_MS = 200;
const OWNERS_ONLY = { folder: 0o700, file: 0o600 } as const;

/** Where records wait for the database: files that only grow, one line a record. */
export interface Spool {
  /**
   * Appends lines with one write, which has reached the operating system when this returns: a killed process
   * loses nothing. Answers false when the disk refused some; they are then lost, and counted in `lost`.
   */
  append(lines: string, records: number): boolean;
  /** Records that could not be written since start. */
  readonly lost: number;
  /** Records written since start. */
  readonly written: number;
  /** By this the segments that are being written are known as this spool's. */
  readonly owner: string;
  /** Ends the current segment, so that it may be cleared away once it is copied. */
  close(): void;
}

export interface SpoolOptions {
  /** The number of records written, one unsigned 64-bit number, for a thread that wants to know. */
  counter?: SharedArrayBuffer;
  /** Told once when records begin to be lost, and once, with their number, when the disk takes them again. */
  report?: (message: string, error: unknown) => void;
}

/**
 * Opens a spool in a folder that is this process's alone. Segments carry its name while they are written
 * (`….OWNER.open`) and are renamed to `….sealed` when full or when the disk is: a new one begins then, and what was
 * copied of the old one gives its room back. What is lost is written down as a record itself as soon as that can be.
 */
export function openSpool(folder: string, options: SpoolOptions = {}): Spool {
  mkdirSync(folder, { recursive: true, mode: OWNERS_ONLY.folder });
  const owner = randomUUID().slice(0, 8);
  const shared = new BigUint64Array(options.counter ?? new SharedArrayBuffer(8));
  let file = -1;
  let path = "";
  let bytes = 0;
  let lost = 0;
  let written = 0;
  /** Lost since the disk last took anything, and not written down yet. */
  let unsaid = 0;

  function begin(): void {
    mkdirSync(folder, { recursive: true, mode: OWNERS_ONLY.folder });
    path = join(folder, `${Date.now()}-${randomUUID()}.${owner}.open`);
    file = openSync(path, "a+", OWNERS_ONLY.file);
    bytes = 0;
  }
  function seal(): void {
    if (file === -1) return;
    if (bytes > 0 && fstatSync(file).nlink === 0) putBack();
    closeSync(file);
    file = -1;
    if (bytes === 0) unlinkSync(path);
    else renameSync(path, path.replace(/\.[\da-f]+\.open$/, ".sealed"));
  }
  // Looked for now and then and not with each write: what is written meanwhile is in the descriptor too, and asking
  // each time took a fifth of the redirects (`npm run bench -- redirects`).
  const looking = setInterval(() => {
    try {
      if (file !== -1 && fstatSync(file).nlink === 0) putBack();
    } catch (error) {
      lose(0, error);
    }
  }, LOOK_MS);
  looking.unref();
  // Somebody removed the file under us: what is in it is still to be had through its descriptor, and is put back.
  function putBack(): void {
    const { size } = fstatSync(file);
    const content = Buffer.alloc(size);
    readSync(file, content, 0, size, 0);
    closeSync(file);
    file = -1;
    mkdirSync(dirname(path), { recursive: true, mode: OWNERS_ONLY.folder });
    writeFileSync(path, content, { mode: OWNERS_ONLY.file, flag: "wx" });
    file = openSync(path, "a+", OWNERS_ONLY.file);
  }
  function lose(records: number, error: unknown): void {
    if (unsaid === 0 && records > 0)
      options.report?.("Clicks are being lost: the disk does not take them. Redirects go on.", error);
    lost += records;
    unsaid += records;
    try {
      // A full disk gets room back when what was copied is cleared away, which waits for the segment's end.
      seal();
    } catch {
      // It cannot be renamed either; the next start takes it for abandoned and copies it.
      file = -1;
    }
  }
  return {
    owner,
    get lost() {
      return lost;
    },
    get written() {
      return written;
    },
    append(lines, records) {
      const said = unsaid;
      let taken = 0;
      const text = said > 0 ? lostLine(Date.now(), said) + lines : lines;
      try {
        if (file === -1) begin();
        taken = writeSync(file, text);
        bytes += taken;
        if (taken < Buffer.byteLength(text)) throw new Error("the disk took only part of a write");
      } catch (error) {
        // The whole lines that fitted are kept; behind them, the torn one is ended by the end of the segment.
        const kept = linesIn(Buffer.from(text).subarray(0, taken));
        const whole = Math.max(0, kept - (said > 0 ? 1 : 0));
        if (said > 0 && kept > 0) unsaid = 0;
        written += whole;
        Atomics.store(shared, 0, BigInt(written));
        lose(records - whole, error);
        return false;
      }
      if (said > 0) {
        unsaid = 0;
        options.report?.(`The disk takes clicks again; ${said} were lost meanwhile.`, undefined);
      }
      written += records;
      Atomics.store(shared, 0, BigInt(written));
      if (bytes >= SEGMENT_BYTES) seal();
      return true;
    },
    close() {
      clearInterval(looking);
      seal();
    },
  };
}

function linesIn(text: Uint8Array): number {
  let lines = 0;
  for (const byte of text) if (byte === 0x0a) lines += 1;
  return lines;
}
