// The fast part of the tests: format, borders, lint, types, unit tests. Under a minute.
import { spawnSync } from "node:child_process";
import { installPackages, root } from "./install.mjs";

installPackages();
const { globSync } = await import("tinyglobby");
const units = globSync(
  [
    "src/core/**/*.test.ts",
    "src/contract/**/*.test.ts",
    "src/{desk,store}/**/*.unit.test.ts",
    "src/delivery/**/*.unit.test.ts",
    "src/cli/**/*.test.ts",
    "src/{ui,islands,outgoing}/**/*.unit.test.ts",
    "src/{server,incoming}/**/*.unit.test.ts",
    "scripts/**/*.test.ts",
    "tests/oracles/*.test.ts",
  ],
  { cwd: root },
);
const node = process.execPath;
const steps = [
  ["format", node, ["node_modules/prettier/bin/prettier.cjs", "--check", "--log-level", "warn", "."]],
  [
    "borders and circles",
    node,
    ["node_modules/dependency-cruiser/bin/dependency-cruise.mjs", "src", "demo", "bench", "scripts", "tests"],
  ],
  ["lint", node, ["node_modules/eslint/bin/eslint.js", "."]],
  ["types", node, ["node_modules/@astrojs/check/bin/astro-check.js", "--minimumSeverity", "warning"]],
  ["unit tests", node, ["--import", "tsx", "--test", ...units]],
];
for (const [name, command, args] of steps) {
  const began = Date.now();
  const step = spawnSync(command, args, {
    cwd: root,
    stdio: "inherit",
    env: { ...process.env, ASTRO_TELEMETRY_DISABLED: "1" },
  });
  console.log(`${step.status === 0 ? "✓" : "✗"} ${name}, ${((Date.now() - began) / 1000).toFixed(1)} s`);
  if (step.status !== 0) process.exit(step.status ?? 1);
}
