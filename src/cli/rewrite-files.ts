import { readFile, rename, stat, writeFile } from "node:fs/promises";
import type { Document } from "./files.ts";
import type { RefusedAddress, RewriteReport, RewrittenLink } from "../core/links/rewrite/rewrite-document.ts";
import { isUtf16 } from "../core/links/rewrite/source-bytes.ts";
import { NotText, type Place, type Rewriting } from "./rewriting.ts";
import { Unusable } from "./unusable.ts";
import type { Terminal } from "./terminal.ts";

/** What was done, or would be. */
export interface Outcome {
  links: number;
  files: { file: string; changes: RewrittenLink[]; refused: RefusedAddress[] }[];
  failed: { file: string; message: string }[];
}

/** Rewrites what comes in on standard input, piece by piece; with `check` nothing goes out. */
export async function rewriteStream(
  terminal: Terminal,
  rewriting: Rewriting,
  place: Place,
  check: boolean,
): Promise<Outcome> {
  const put = check ? () => {} : (bytes: Uint8Array): void => void terminal.stdout.write(bytes);
  try {
    const { links, changes, refused } = await rewriting.rewrite(readable(terminal.stdin), place, put);
    return { links, files: [{ file: "(standard input)", changes, refused }], failed: [] };
  } catch (error) {
    throw error instanceof NotText ? new Unusable("standard input is not text in UTF-8.") : error;
  }
}

// What has no ASCII to go by is told by its first piece.
async function* readable(
  pieces: AsyncIterable<Uint8Array | string> | Iterable<Uint8Array>,
): AsyncGenerator<Uint8Array> {
  let isFirst = true;
  for await (const piece of pieces) {
    const bytes = typeof piece === "string" ? new TextEncoder().encode(piece) : piece;
    if (isFirst && isUtf16(bytes)) throw new NotText();
    isFirst = false;
    yield bytes;
  }
}

/** How many files are on their way at once: one is read and another written while a third is worked on. */
const AT_ONCE = 16;

/** Rewrites documents in place; with `check` none is written. One that fails does not keep the others. */
export async function rewriteDocuments(
  documents: readonly Document[],
  rewriting: Rewriting,
  placeOf: (page: string | undefined) => Place,
  check: boolean,
): Promise<Outcome> {
  const done = new Array<Outcome>(documents.length);
  const waiting = documents.entries();
  const lane = async (): Promise<void> => {
    for (const [at, { file, page }] of waiting) {
      try {
        const { links, changes, refused } = await rewriteFile(file, rewriting, placeOf(page), check);
        done[at] = { links, files: [{ file, changes, refused }], failed: [] };
      } catch (error) {
        if (!(error instanceof NotText)) throw error;
        done[at] = { links: 0, files: [], failed: [{ file, message: error.message }] };
      }
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, lane));
  return {
    links: done.reduce((sum, { links }) => sum + links, 0),
    files: done.flatMap(({ files }) => files),
    failed: done.flatMap(({ failed }) => failed),
  };
}

async function rewriteFile(
  file: string,
  rewriting: Rewriting,
  place: Place,
  check: boolean,
): Promise<RewriteReport> {
  const html = await readFile(file);
  const pieces: Uint8Array[] = [];
  const report = await rewriting.rewrite(readable([html]), place, (piece) => pieces.push(piece));
  const rewritten = Buffer.concat(pieces);
  if (!check && !rewritten.equals(html)) await replaceFile(file, rewritten);
  return report;
}

// Written beside and moved into place: whoever reads the file meanwhile gets the old one or the new one, whole.
async function replaceFile(file: string, content: Uint8Array): Promise<void> {
  const beside = `${file}.maprope-${process.pid}`;
  const { mode } = await stat(file);
  await writeFile(beside, content, { mode });
  await rename(beside, file);
}
