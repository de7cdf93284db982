import { readFileSync } from "node:fs";
import { join } from "node:path";
import { parseEnv } from "node:util";

/**
 * The environment with what the file `.env` of the folder adds to it; what is set outside goes before. Throws an Error
 * with one plain sentence when there is such a file and it cannot be read.
 */
export function environmentOf(
  folder: string,
  env: Readonly<Record<string, string | undefined>>,
): Record<string, string | undefined> {
  const file = join(folder, ".env");
  let text: string;
  try {
    text = readFileSync(file, "utf8");
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (code === "ENOENT") return { ...env };
    throw new Error(`The file ${file} cannot be read${code ? ` (${code})` : ""}; mend it, or take it away.`, {
      cause: error,
    });
  }
  const set = Object.fromEntries(Object.entries(env).filter(([, value]) => value !== undefined));
  return { ...parseEnv(text), ...set };
}
