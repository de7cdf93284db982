import { readFile } from "node:fs/promises";
import { dirname, resolve } from "node:path";
import { z } from "zod";
import { pageMatches } from "../core/rules/resolve/match.ts";
import { Unusable } from "./unusable.ts";

/** The file of settings that is read where a command is run, if it is there. */
export const SETTINGS_FILE = "maprope.config.json";

const text = (what: string) => z.string(`${what} is text.`).min(1, `${what} is missing.`);
const texts = (what: string) => z.array(text(what), `${what} is a list of texts.`);

/** What the file of settings may say; what a command is told goes before it. */
const settingsSchema = z.strictObject({
  rules: text("rules").optional(),
  hosts: texts("hosts").optional(),
  site: text("site").optional(),
  url: text("url").optional(),
  files: texts("files").optional(),
  exclude: texts("exclude").optional(),
  categories: z
    .record(z.string(), text("A category"), "categories is an object: from paths to categories.")
    .optional(),
  report: z.enum(["text", "json", "none"], "report is text, json or none.").optional(),
});
export type Settings = z.infer<typeof settingsSchema>;

/**
 * Reads the file of settings: the one that is named, or the one of the folder, where there is one. Its paths are of its
 * own folder. Throws Unusable with what is wrong in it.
 */
export async function readSettings(named: string | undefined, folder: string): Promise<Settings> {
  const file = resolve(folder, named ?? SETTINGS_FILE);
  let content: string;
  try {
    content = await readFile(file, "utf8");
  } catch (error) {
    if (named === undefined && (error as NodeJS.ErrnoException).code === "ENOENT") return {};
    throw new Unusable(`the settings could not be read from ${file}.`);
  }
  let json: unknown;
  try {
    json = JSON.parse(content);
  } catch {
    throw new Unusable(`${file} is not JSON.`);
  }
  const read = settingsSchema.safeParse(json);
  if (!read.success) {
    const [issue] = read.error.issues;
    const what =
      issue!.code === "unrecognized_keys" ? `there is no setting “${issue!.keys[0]}”` : issue!.message;
    throw new Unusable(`${file}: ${[...issue!.path, what].join(": ")}`);
  }
  const from = (path: string): string => resolve(dirname(file), path);
  const { rules, files, ...others } = read.data;
  return {
    ...others,
    ...(rules ? { rules: from(rules) } : {}),
    ...(files ? { files: files.map(from) } : {}),
  };
}

/** The category that settings give to a page: of the first pattern of paths (as rules name them) that has it. */
export function categoryOf(categories: Settings["categories"], page: string | undefined): string | undefined {
  if (page === undefined) return undefined;
  return Object.entries(categories ?? {}).find(
    ([pattern]) => pattern === page || (pattern.includes("*") && pageMatches(pattern, page)),
  )?.[1];
}
