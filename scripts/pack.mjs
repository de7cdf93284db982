// Plain JavaScript: packs the built application, to be installed with `npm ci --omit=dev` on a machine without its sources.
import { spawnSync } from "node:child_process";
import { cpSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { buildWhenStale } from "./build.mjs";
import { root } from "./install.mjs";

const PAPERS = ["README.md", "CHANGELOG.md", "THIRD-PARTY.md"];

/** Packs what is built in `built` into a file of the folder `into`; answers its path. Throws an Error that says why not. */
export async function pack(into, built) {
  const staging = mkdtempSync(join(tmpdir(), "maprope-pack-"));
  try {
    for (const part of ["app", "server", "client"])
      cpSync(join(built, part), join(staging, "dist", part), { recursive: true });
    for (const paper of PAPERS) cpSync(join(root, paper), join(staging, paper));
    cpSync(join(root, ".npmrc"), join(staging, ".npmrc"));
    writeFileSync(join(staging, "package.json"), JSON.stringify(packedPackage(), null, 2));
    // The versions of our lock file, without what only development needs.
    cpSync(join(root, "package-lock.json"), join(staging, "package-lock.json"));
    npm(staging, "install", "--package-lock-only", "--ignore-scripts");
    npm(staging, "shrinkwrap");
    return packed(staging, into);
  } finally {
    rmSync(staging, { recursive: true, force: true });
  }
}

/** Packs the command for scripts by itself: it stands on nothing else. Answers the path of its file. */
export async function packCommand(into, built) {
  const staging = mkdtempSync(join(tmpdir(), "maprope-pack-"));
  try {
    for (const file of readdirSync(join(built, "command")))
      if (!file.endsWith(".map")) cpSync(join(built, "command", file), join(staging, file));
    cpSync(join(root, "THIRD-PARTY.md"), join(staging, "THIRD-PARTY.md"));
    const { version, license, engines } = ownPackage();
    const manifest = {
      name: "maprope-command",
      version,
      private: true,
      license,
      description: "Applies the rules of a Map Rope to HTML",
      type: "module",
      engines,
      bin: { maprope: "maprope.mjs" },
      files: ["*.mjs", "THIRD-PARTY.md"],
    };
    writeFileSync(join(staging, "package.json"), JSON.stringify(manifest, null, 2));
    return packed(staging, into);
  } finally {
    rmSync(staging, { recursive: true, force: true });
  }
}

function packed(staging, into) {
  mkdirSync(into, { recursive: true });
  const [{ filename }] = JSON.parse(
    npm(staging, "pack", "--json", "--ignore-scripts", "--pack-destination", into),
  );
  return resolve(into, filename);
}

function ownPackage() {
  return JSON.parse(readFileSync(join(root, "package.json"), "utf8"));
}

function packedPackage() {
  const { name, version, license, description, engines, dependencies } = ownPackage();
  return {
    name,
    version,
    private: true,
    license,
    description,
    type: "module",
    engines,
    bin: { maprope: "dist/app/maprope.mjs" },
    files: ["dist", "npm-shrinkwrap.json", ...PAPERS],
    dependencies,
  };
}

function npm(cwd, ...args) {
  const { status, stdout, stderr } = spawnSync(
    "npm",
    [...args, "--no-audit", "--no-fund", "--loglevel=error"],
    {
      cwd,
      encoding: "utf8",
    },
  );
  if (status !== 0) throw new Error(`npm ${args[0]} failed:\n${stdout}\n${stderr}`);
  return stdout;
}

if (process.argv[1] === import.meta.filename) {
  const built = join(root, "dist");
  await buildWhenStale(built);
  const [first, ...others] = process.argv.slice(2);
  const isCommand = first === "--command";
  const [into = "."] = isCommand ? others : [first];
  console.log(await (isCommand ? packCommand : pack)(into, built));
}
