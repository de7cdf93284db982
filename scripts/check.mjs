// The fast part of the tests: what needs neither database nor browser, by two at a time for two processors.
import { spawn } from "node:child_process";
import { installPackages, root } from "./install.mjs";

installPackages();
const { globSync } = await import("tinyglobby");
const units = globSync(
  [
    "src/{core,contract,cli}/**/*.test.ts",
    "src/{store,desk,delivery,server,incoming,outgoing,ui,islands}/**/*.unit.test.ts",
    "scripts/**/*.test.ts",
    "tests/oracles/*.test.ts",
  ],
  { cwd: root },
);
const OURS = ["src", "demo", "bench", "scripts", "tests"];
const STEPS = [
  // One process for many files: each alone would load the same modules again (docs/decisions/036).
  ["unit tests", "../scripts/run-units.mjs", units.filter((file) => file.startsWith("src/"))],
  ["unit tests of the tools", "../scripts/run-units.mjs", units.filter((file) => !file.startsWith("src/"))],
  [
    "types of screens",
    "@astrojs/check/bin/astro-check.js",
    ["--minimumSeverity", "warning", "--tsconfig", "tsconfig.astro.json"],
  ],
  ["types", "typescript-native/bin/tsc", ["--noEmit"]],
  ["lint with types", "oxlint/bin/oxlint", ["--type-aware", "src", "demo"]],
  ["borders and circles", "dependency-cruiser/bin/dependency-cruise.mjs", OURS],
  [
    "format",
    "prettier/bin/prettier.cjs",
    ["--check", "--log-level", "warn", "--cache", "--cache-location", ".cache/prettier", "."],
  ],
  [
    "lint",
    "eslint/bin/eslint.js",
    [".", "--cache", "--cache-strategy", "content", "--cache-location", ".cache/eslint/"],
  ],
  ["unused code and packages", "knip/bin/knip.js", ["--no-progress"]],
  ["third-party notices", "../scripts/third-party.mjs", ["--check"]],
];

/** Runs one step; what it says is shown when it fails. Resolves to whether it passed. */
function run([name, program, args]) {
  const began = Date.now();
  const child = spawn(process.execPath, [`node_modules/${program}`, ...args], {
    cwd: root,
    env: { ...process.env, ASTRO_TELEMETRY_DISABLED: "1" },
  });
  let said = "";
  child.stdout.on("data", (text) => (said += text));
  child.stderr.on("data", (text) => (said += text));
  return new Promise((resolve) => {
    child.on("close", (status) => {
      if (status !== 0) console.log(said);
      console.log(`${status === 0 ? "✓" : "✗"} ${name}, ${((Date.now() - began) / 1000).toFixed(1)} s`);
      resolve(status === 0);
    });
  });
}

const began = Date.now();
const waiting = [...STEPS];
async function lane() {
  let fine = true;
  for (let step = waiting.shift(); step; step = waiting.shift()) fine = (await run(step)) && fine;
  return fine;
}
const passed = await Promise.all([lane(), lane()]);
console.log(`${passed.every(Boolean) ? "✓" : "✗"} check, ${((Date.now() - began) / 1000).toFixed(1)} s`);
process.exit(passed.every(Boolean) ? 0 : 1);
