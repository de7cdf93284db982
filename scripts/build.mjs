// Plain JavaScript: builds what runs without a compiler. The workspace by Astro, the server by esbuild.
import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { cpSync, existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { join } from "node:path";
import { promisify } from "node:util";
import { brotliCompress, constants, gzip } from "node:zlib";
import { root } from "./install.mjs";

/** Files of the server that it starts in threads of their own; each is told by its name alone. */
const THREADS = {
  "desk-worker": "src/desk/desk-worker.ts",
  "text-worker": "src/desk/pages/texts/text-worker.ts",
  "copy-worker": "src/delivery/clicks/copy-worker.ts",
};
/** Files that are read beside the code that names them. */
const ASSETS = { "site.css": "src/delivery/pages/theme/site.css" };
/**
 * Packages that are read from `node_modules`: with machine code, with files or threads of their own, or named only when
 * they are wanted. All others go into the bundle, whose few large files are read in half the time.
 */
const EXTERNAL = ["pg", "pg-native", "pg-hstore", "pino", "piscina", "prom-client", "sharp", "typescript"];
const STAMP = ".built-from";
const DEMO_ASSETS = { pictures: "demo/pictures" };

/**
 * Builds all of it into `folder`, unless what is there was built from the sources as they are now: `client` and
 * `server` are the workspace, `app` is what an installation runs, `demo` is what `npm start` runs, `tests` what tests do,
 * `command` is the command for scripts alone.
 */
export async function buildWhenStale(folder, tests = {}) {
  const stamp = join(folder, STAMP);
  const sources = await sourcesHash(Object.values(tests));
  if (wasBuiltFrom(folder, sources)) return;
  console.log("Building…");
  rmSync(stamp, { force: true });
  buildWorkspace(folder);
  await compressFiles(join(folder, "client"));
  await bundleServer(join(folder, "app"), { maprope: "src/main.ts" });
  await bundleServer(join(folder, "demo"), { start: "scripts/start-app.ts" }, DEMO_ASSETS);
  if (Object.keys(tests).length > 0) await bundleServer(join(folder, "tests"), tests, DEMO_ASSETS);
  await bundle(join(folder, "command"), { maprope: "src/command.ts" });
  // Its own process would stay beside whatever is started behind this.
  await (await import("esbuild")).stop();
  writeFileSync(stamp, sources);
}

/** Whether what is in `folder` was built, with these tests, from the sources as they are now. */
export async function isBuilt(folder, tests = {}) {
  return wasBuiltFrom(folder, await sourcesHash(Object.values(tests)));
}

function wasBuiltFrom(folder, sources) {
  const stamp = join(folder, STAMP);
  return existsSync(stamp) && readFileSync(stamp, "utf8") === sources;
}

function buildWorkspace(folder) {
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
}

// What browsers fetch lies there compressed, so that it costs nothing to send; pictures and fonts are as they are.
async function compressFiles(folder) {
  const { globSync } = await import("tinyglobby");
  const codings = { br: promisify(brotliCompress), gz: promisify(gzip) };
  const options = { params: { [constants.BROTLI_PARAM_QUALITY]: 9 }, level: 9 };
  const files = globSync(["**/*.{js,mjs,css,html,svg,json,txt,xml}"], { cwd: folder, absolute: true });
  await Promise.all(
    files.flatMap((file) => {
      const content = readFileSync(file);
      if (content.length < 1_000) return [];
      return Object.entries(codings).map(async ([ending, compress]) =>
        writeFileSync(`${file}.${ending}`, await compress(content, options)),
      );
    }),
  );
}

const REQUIRE =
  'import { createRequire as requireOf } from "node:module"; const require = requireOf(import.meta.url);';

// All in one folder: what a module says of its neighbours (`new URL("./…", import.meta.url)`) is there in every chunk.
async function bundleServer(into, entries, assets = {}) {
  await bundle(into, { ...entries, ...THREADS });
  for (const [name, from] of Object.entries({ ...ASSETS, ...assets }))
    cpSync(join(root, from), join(into, name), { recursive: true });
}

async function bundle(into, entries) {
  const { build } = await import("esbuild");
  rmSync(into, { recursive: true, force: true });
  mkdirSync(into, { recursive: true });
  await build({
    absWorkingDir: root,
    entryPoints: entries,
    outdir: into,
    bundle: true,
    splitting: true,
    platform: "node",
    format: "esm",
    target: "node20",
    external: EXTERNAL,
    define: { "process.env.NODE_ENV": '"production"' },
    minifySyntax: true,
    minifyWhitespace: true,
    // Packages of the older kind ask for Node's own modules in this way.
    banner: { js: REQUIRE },
    plugins: [
      { name: "of-astro", setup: ofAstro },
      { name: "when-wanted", setup: whenWanted },
    ],
    outExtension: { ".js": ".mjs" },
    chunkNames: "[name]-[hash]",
    sourcemap: true,
    sourcesContent: false,
    logLevel: "error",
  });
}

// The scripts that Astro puts into pages are read for their hashes; Astro itself is not needed to run.
function ofAstro(build) {
  const { resolve } = createRequire(import.meta.url);
  build.onResolve({ filter: /^astro\/runtime\// }, ({ path }) => ({ path: resolve(path) }));
}

// What is imported when it is wanted is read from `node_modules`: a package of the older kind, bundled as a file of its
// own, would come without the names of what it exports.
function whenWanted(build) {
  build.onResolve({ filter: /^[^./]/ }, ({ path, kind, resolveDir }) =>
    kind === "dynamic-import" && !resolveDir.includes("node_modules") ? { path, external: true } : undefined,
  );
}

async function sourcesHash(more) {
  const { globSync } = await import("tinyglobby");
  const hash = createHash("sha256");
  const files = globSync(
    [
      "src/**/*",
      "demo/**/*",
      "public/**/*",
      "scripts/*",
      "astro.config.mjs",
      "package-lock.json",
      "tsconfig.json",
      ...more,
    ],
    { cwd: root, ignore: ["**/*.test.ts"] },
  );
  for (const file of files.sort()) hash.update(file).update(readFileSync(join(root, file)));
  return hash.digest("hex");
}

if (process.argv[1] === import.meta.filename) await buildWhenStale(join(root, "dist"));
