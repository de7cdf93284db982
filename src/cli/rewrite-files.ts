import { readdir, readFile, rename, stat, writeFile } from "node:fs/promises";
import { extname, join, relative, sep } from "node:path";
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

const ENDINGS: ReadonlySet<string> = new Set([".html", ".htm", ".xhtml"]);

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

/** Rewrites files, and all HTML files of folders, in place; with `check` none is written. One that fails does not keep the others. */
export async function rewriteFolder(
  where: readonly string[],
  rewriting: Rewriting,
  place: Place,
  check: boolean,
): Promise<Outcome> {
  const outcome: Outcome = { links: 0, files: [], failed: [] };
  for (const root of where)
    for (const file of await htmlFiles(root)) {
      const page = place.page ?? pathOf(root, file);
      try {
        const { links, changes, refused } = await rewriteFile(file, rewriting, { ...place, page }, check);
        outcome.links += links;
        outcome.files.push({ file, changes, refused });
      } catch (error) {
        if (!(error instanceof NotText)) throw error;
        outcome.failed.push({ file, message: error.message });
      }
    }
  return outcome;
}

async function htmlFiles(root: string): Promise<string[]> {
  const about = await stat(root).catch(() => {
    throw new Unusable(`there is no file or folder ${root}.`);
  });
  if (about.isFile()) return [root];
  const entries = await readdir(root, { recursive: true, withFileTypes: true });
  return entries
    .filter((entry) => entry.isFile() && ENDINGS.has(extname(entry.name).toLowerCase()))
    .map((entry) => join(entry.parentPath, entry.name))
    .sort();
}

/** The path that a file of a folder has on a site that serves the folder as it is. */
export function pathOf(root: string, file: string): string | undefined {
  const inside = relative(root, file).split(sep).join("/");
  return inside === ""
    ? undefined
    : `/${inside.replace(/(?:^|\/)index\.x?html?$/i, "").replace(/\.x?html?$/i, "")}`;
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
