// The fast part of the tests: what needs neither database nor browser, in two lanes for two processors.
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
const LANES = [
  [
    [
      "types",
      "typescript/bin/tsc",
      ["--noEmit", "--incremental", "--tsBuildInfoFile", ".cache/types.tsbuildinfo"],
    ],
    [
      "types of screens",
      "@astrojs/check/bin/astro-check.js",
      ["--minimumSeverity", "warning", "--tsconfig", "tsconfig.astro.json"],
    ],
    [
      "unit tests",
      "tsx/dist/cli.mjs",
      ["--test", "--test-concurrency=1", ...units.filter((_, at) => at % 2 === 0)],
    ],
  ],
  [
    [
      "format",
      "prettier/bin/prettier.cjs",
      ["--check", "--log-level", "warn", "--cache", "--cache-location", ".cache/prettier", "."],
    ],
    ["borders and circles", "dependency-cruiser/bin/dependency-cruise.mjs", OURS],
    [
      "lint",
      "eslint/bin/eslint.js",
      [".", "--cache", "--cache-strategy", "content", "--cache-location", ".cache/eslint/"],
    ],
    ["third-party notices", "../scripts/third-party.mjs", ["--check"]],
    ["unused code and packages", "knip/bin/knip.js", ["--no-progress"]],
    [
      "unit tests, the other half",
      "tsx/dist/cli.mjs",
      ["--test", "--test-concurrency=1", ...units.filter((_, at) => at % 2 === 1)],
    ],
  ],
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
const passed = await Promise.all(
  LANES.map(async (steps) => {
    let fine = true;
    for (const step of steps) fine = (await run(step)) && fine;
    return fine;
  }),
);
console.log(`${passed.every(Boolean) ? "✓" : "✗"} check, ${((Date.now() - began) / 1000).toFixed(1)} s`);
process.exit(passed.every(Boolean) ? 0 : 1);
