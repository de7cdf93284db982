import { existsSync, readFileSync } from "node:fs";
import { dirname, join } from "node:path";

/** The version of this installation, from the package that it was installed as. Throws an Error when there is none above. */
export function versionAbove(folder: string): string {
  for (let at = folder; ; at = dirname(at)) {
    const file = join(at, "package.json");
    if (existsSync(file)) {
      const { name, version } = JSON.parse(readFileSync(file, "utf8")) as { name?: string; version?: string };
      if (name === "maprope" && version) return version;
    }
    if (at === dirname(at)) throw new Error("No package.json of Map Rope stands above this file.");
  }
}
