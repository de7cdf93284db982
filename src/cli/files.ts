import { stat } from "node:fs/promises";
import { extname, join, relative, sep } from "node:path";
import { glob, isDynamicPattern } from "tinyglobby";
import { Unusable } from "./unusable.ts";

/** A file to be rewritten, and the path that it has on a site that serves its folder as it is. */
export interface Document {
  file: string;
  page: string | undefined;
}

const ENDINGS: ReadonlySet<string> = new Set([".html", ".htm", ".xhtml"]);
/** What nobody means when they name a folder. */
const NEVER = ["**/node_modules/**", "**/.git/**"];

/**
 * The documents that files, folders and patterns name (`public/**\/*.html`), without what `excluded` patterns leave out,
 * in the order of their names. Throws Unusable for what is not there.
 */
export async function documentsIn(
  where: readonly string[],
  excluded: readonly string[],
): Promise<Document[]> {
  const found = new Map<string, Document>();
  for (const one of where)
    for (const document of await documentsOf(one, excluded)) found.set(document.file, document);
  return [...found.values()];
}

async function documentsOf(where: string, excluded: readonly string[]): Promise<Document[]> {
  const about = await stat(where).catch(() => undefined);
  if (about?.isFile()) return [{ file: where, page: undefined }];
  if (about) return filesBelow(where, "**/*", excluded);
  if (!isDynamicPattern(where)) throw new Unusable(`there is no file or folder ${where}.`);
  const { root, pattern } = splitPattern(where);
  const documents = await filesBelow(root, pattern, excluded);
  if (documents.length === 0) throw new Unusable(`no HTML file is named by ${where}.`);
  return documents;
}

async function filesBelow(root: string, pattern: string, excluded: readonly string[]): Promise<Document[]> {
  const files = await glob(pattern, {
    cwd: root,
    ignore: [...NEVER, ...excluded.flatMap((one) => [one, `${one.replace(/\/$/, "")}/**`, `**/${one}`])],
    expandDirectories: false,
    dot: true,
  });
  return files
    .filter((name) => ENDINGS.has(extname(name).toLowerCase()))
    .sort()
    .map((name) => ({ file: join(root, name), page: pathOf(root, join(root, name)) }));
}

// The folders in front of the first sign of a pattern are where its pages begin.
function splitPattern(where: string): { root: string; pattern: string } {
  const parts = where.split("/");
  const first = parts.findIndex((part) => isDynamicPattern(part));
  return {
    root: parts.slice(0, first).join("/") || (where.startsWith("/") ? "/" : "."),
    pattern: parts.slice(first).join("/"),
  };
}

/** The path that a file of a folder has on a site that serves the folder as it is. */
export function pathOf(root: string, file: string): string | undefined {
  const inside = relative(root, file).split(sep).join("/");
  return inside === ""
    ? undefined
    : `/${inside.replace(/(?:^|\/)index\.x?html?$/i, "").replace(/\.x?html?$/i, "")}`;
}
