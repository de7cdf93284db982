import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { globSync } from "tinyglobby";
import { root } from "./install.mjs";

/** Builds the workspace into `folder`, unless what is there was built from the sources as they are now. */
export function buildWhenStale(folder: string): void {
  const stamp = join(folder, ".built-from");
  const sources = sourcesHash();
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === sources) return;
  console.log("Building the workspace…");
  const astro = spawnSync(
    process.execPath,
    [join(root, "node_modules/astro/astro.js"), "build", "--silent"],
    {
      cwd: root,
      env: { ...process.env, MAPROPE_BUILD: folder, ASTRO_TELEMETRY_DISABLED: "1", NODE_ENV: "production" },
      encoding: "utf8",
    },
  );
  if (astro.status !== 0)
    throw new Error(`the workspace could not be built:\n${astro.stdout}\n${astro.stderr}`);
  writeFileSync(stamp, sources);
}

function sourcesHash(): string {
  const hash = createHash("sha256");
  const files = globSync(
    ["src/**/*", "public/**/*", "astro.config.mjs", "package-lock.json", "tsconfig.json"],
    { cwd: root, ignore: ["**/*.test.ts"] },
  );
  for (const file of files.sort()) hash.update(file).update(readFileSync(join(root, file)));
  return hash.digest("hex");
}
