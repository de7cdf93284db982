// What is computed, held against references that nobody here wrote, on far more cases than the tests take.
import { spawnSync } from "node:child_process";
import { installPackages, root } from "./install.mjs";

installPackages();
const { globSync } = await import("tinyglobby");
const oracles = globSync(["tests/oracles/*.test.ts"], { cwd: root });
const { status } = spawnSync(process.execPath, ["--import", "tsx", "--test", ...oracles], {
  cwd: root,
  stdio: "inherit",
  env: { ...process.env, ORACLES: "all" },
});
process.exit(status ?? 1);
