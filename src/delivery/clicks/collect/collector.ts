import { randomUUID } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, unlinkSync } from "node:fs";
import { rename, unlink, writeFile } from "node:fs/promises";
import { join } from "node:path";
import { readState, writeState } from "./collect-state.ts";
import { asideName, isOpen, linesBehind, logFiles, type LogFile } from "./log-files.ts";
import type { createSpoolText } from "./spool-text.ts";

const PIECE_BYTES = 8 * 1024 * 1024;
/** The log is put aside after so long, or when it is so large: then nothing of its readers is left soon after. */
const ASIDE_AFTER_MS = 20_000;
const ASIDE_BYTES = 64 * 1024 * 1024;
/** What was put aside is taken away when nobody has written to it for so long. */
const STILL_MS = 3_000;

export interface CollectorParts {
  /** The file that the edge's nginx writes. */
  log: string;
  /** The spool's folder, and the file in which is kept how far the log was read. */
  spool: string;
  state: string;
  /** Where nginx keeps the number of its process. */
  pidFile: string;
  toSpool: ReturnType<typeof createSpoolText>;
  report(message: string, error: unknown): void;
}

/** What collecting has come to. */
export interface Collected {
  collected: number;
  unreadable: number;
  /** Bytes of the log that wait to be read. */
  waitingBytes: number;
  /** What keeps it from going on; empty where nothing does. */
  fault: string;
}

/** Brings an edge's log into the spool. */
export interface Collector {
  /** Reads what is there now, and puts the log aside when it is time. */
  turn(now: number): Promise<Collected>;
}

/**
 * Each line comes into the spool exactly once, whoever is killed when: a piece of the log becomes a segment under a name that
 * is no segment's yet; then how far the log was read is kept, together with that name, in one step; then the segment gets its own.
 * What was made and not kept is made again, what was kept and not named is named at the next start.
 */
export function createCollector({
  log,
  spool,
  state: statePath,
  pidFile,
  toSpool,
  report,
}: CollectorParts): Collector {
  mkdirSync(spool, { recursive: true, mode: 0o700 });
  let state = readState(statePath);
  const partOf = (segment: string): string => join(spool, `${segment}.part`);
  const sealedOf = (segment: string): string => join(spool, `${segment}.sealed`);
  if (state.segment !== null && existsSync(partOf(state.segment)))
    renameSync(partOf(state.segment), sealedOf(state.segment));
  for (const name of readdirSync(spool)) if (name.endsWith(".part")) unlinkSync(join(spool, name));

  let asideAt = Date.now();
  let told = "";

  async function read(file: LogFile, now: number): Promise<number> {
    const { path, identity, size } = file;
    let from = state.read[identity] ?? 0;
    // It was emptied, and is written anew.
    if (from > size) from = 0;
    let keeping: Promise<void> = Promise.resolve();
    try {
      while (from < size) {
        const bytes = await linesBehind(path, from, PIECE_BYTES);
        if (!bytes) break;
        const piece = toSpool(bytes, now);
        from += bytes.length;
        // A piece is read while the one before is written; they are kept in their order, and none after one that could not be.
        await keeping;
        keeping = keep(piece, { path, identity, from, now });
        // It is waited for below, whatever comes in between.
        keeping.catch(() => undefined);
      }
    } finally {
      await keeping;
    }
    return Math.max(0, size - from);
  }

  async function keep(
    { lines, clicks, unreadable }: ReturnType<typeof toSpool>,
    { path, identity, from, now }: { path: string; identity: string; from: number; now: number },
  ): Promise<void> {
    const segment = `${now}-${randomUUID()}`;
    if (clicks > 0) await writeFile(partOf(segment), lines, { mode: 0o600, flush: true });
    const next = {
      read: { ...state.read, [identity]: from },
      segment: clicks > 0 ? segment : null,
      collected: state.collected + clicks,
      unreadable: state.unreadable + unreadable,
    };
    writeState(statePath, next);
    state = next;
    if (clicks > 0) renameSync(partOf(segment), sealedOf(segment));
    if (unreadable > 0)
      report(
        `${unreadable} lines of ${path} could not be read: they are of another format, or damaged.`,
        undefined,
      );
  }

  // The number of a file that is gone may be another one's tomorrow.
  function forgetGone(files: readonly LogFile[]): void {
    const there = new Set(files.map(({ identity }) => identity));
    const read = Object.entries(state.read).filter(([identity]) => there.has(identity));
    if (read.length === Object.keys(state.read).length) return;
    state = { ...state, read: Object.fromEntries(read) };
    writeState(statePath, state);
  }

  async function putAside(now: number): Promise<void> {
    await rename(log, asideName(log, now));
    asideAt = now;
    // Whoever writes it goes on in a new file; where nobody does, the next nginx begins one.
    const nginx = writer();
    if (nginx !== undefined) process.kill(nginx, "SIGUSR1");
  }

  function writer(): number | undefined {
    return existsSync(pidFile) ? Number(readFileSync(pidFile, "utf8")) : undefined;
  }

  async function takeAway(file: LogFile, now: number): Promise<void> {
    if (now - file.changedAt < STILL_MS || now - asideAt < STILL_MS || (await isOpen(file.path, writer())))
      return;
    await unlink(file.path);
    forgetGone((await logFiles(log)).filter(({ path }) => path !== file.path));
  }

  return {
    async turn(now) {
      let waitingBytes = 0;
      let fault = "";
      try {
        const files = await logFiles(log);
        forgetGone(files);
        for (const file of files) {
          const waiting = await read(file, now);
          waitingBytes += waiting;
          if (file.isOurs && waiting === 0) await takeAway(file, now);
        }
        const live = files.find(({ path }) => path === log);
        if (live && live.size > 0 && (now - asideAt >= ASIDE_AFTER_MS || live.size >= ASIDE_BYTES))
          await putAside(now);
      } catch (error) {
        fault = wordsOf(error as NodeJS.ErrnoException, log);
        if (fault !== told) report(fault, error);
      }
      told = fault;
      const { collected, unreadable } = state;
      return { collected, unreadable, waitingBytes, fault };
    },
  };
}

function wordsOf({ code, message }: NodeJS.ErrnoException, log: string): string {
  if (code === "ENOSPC")
    return "The disk is full: clicks wait in the log, and none is lost while nginx can write there.";
  if (code === "ENOENT") return `The folder of ${log} is not there.`;
  if (code === "EACCES" || code === "EPERM")
    return `${log} may not be read, put aside or signalled of by this user.`;
  if (code === "ESRCH") return "The process that nginx's pid file names is gone.";
  return `The log could not be collected: ${message}`;
}
