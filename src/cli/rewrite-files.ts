import { readdir, readFile, rename, stat, writeFile } from "node:fs/promises";
import { extname, join, relative, sep } from "node:path";
import type { RefusedAddress, RewrittenLink } from "../core/links/rewrite-document.ts";
import type { Terminal } from "./maprope.ts";
import type { Place, Rewriting } from "./rewriting.ts";
import { Unusable } from "./unusable.ts";

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
  const put = check ? () => {} : (text: string): void => void terminal.stdout.write(text);
  const { links, changes, refused } = await rewriting.rewrite(textOf(terminal.stdin), place, put);
  return { links, files: [{ file: "(standard input)", changes, refused }], failed: [] };
}

// Characters may be cut in two between pieces; the decoder keeps their first half.
async function* textOf(pieces: AsyncIterable<Uint8Array | string>): AsyncGenerator<string> {
  const decoder = new TextDecoder("utf-8", { fatal: true, ignoreBOM: true });
  try {
    for await (const piece of pieces)
      yield typeof piece === "string" ? piece : decoder.decode(piece, { stream: true });
    yield decoder.decode();
  } catch (error) {
    if (!(error instanceof TypeError)) throw error;
    throw new Unusable("standard input is not text in UTF-8.");
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
      const html = decoded(await readFile(file));
      if (html === undefined) {
        outcome.failed.push({ file, message: "This is not text in UTF-8; it was left as it is." });
        continue;
      }
      let rewritten = "";
      const page = place.page ?? pathOf(root, file);
      const { links, changes, refused } = await rewriting.rewrite([html], { ...place, page }, (text) => (rewritten += text)); // prettier-ignore
      if (!check && rewritten !== html) await replaceFile(file, rewritten);
      outcome.links += links;
      outcome.files.push({ file, changes, refused });
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
  return inside === "" ? undefined : `/${inside.replace(/(?:^|\/)index\.x?html?$/i, "").replace(/\.x?html?$/i, "")}`; // prettier-ignore
}

function decoded(bytes: Uint8Array): string | undefined {
  try {
    return new TextDecoder("utf-8", { fatal: true, ignoreBOM: true }).decode(bytes);
  } catch {
    // Told to the person by whoever asked: the file is named, and left.
    return undefined;
  }
}

// Written beside and moved into place: whoever reads the file meanwhile gets the old one or the new one, whole.
async function replaceFile(file: string, text: string): Promise<void> {
  const beside = `${file}.maprope-${process.pid}`;
  const { mode } = await stat(file);
  await writeFile(beside, text, { mode });
  await rename(beside, file);
}
