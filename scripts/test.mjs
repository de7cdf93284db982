// Everything: the fast check, then store, desk and delivery on a PostgreSQL of its own, then the browser.
import { spawnSync } from "node:child_process";
import { existsSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { CHROMIUM } from "./chromium.mjs";
import { installDebian, installPackages, root } from "./install.mjs";
import { postgresFolder, startPostgres } from "./postgres.mjs";

installPackages();
installDebian(["postgresql"], () => postgresFolder() !== undefined, "PostgreSQL");
installDebian(["chromium"], () => existsSync(CHROMIUM.executablePath), "Chromium");
const { globSync } = await import("tinyglobby");

const folder = mkdtempSync(join(tmpdir(), "maprope-test-"));
let postgres;
function cleanUp() {
  postgres?.stop("immediate");
  postgres?.discard();
  rmSync(folder, { recursive: true, force: true });
}
for (const signal of ["SIGINT", "SIGTERM"]) {
  process.on(signal, () => {
    cleanUp();
    process.exit(1);
  });
}

function step(name, args, env = {}) {
  const began = Date.now();
  const { status } = spawnSync(process.execPath, args, {
    cwd: root,
    stdio: "inherit",
    env: { ...process.env, ...env },
  });
  console.log(`${status === 0 ? "✓" : "✗"} ${name}, ${((Date.now() - began) / 1000).toFixed(1)} s\n`);
  return status === 0;
}

let passed = false;
try {
  passed = step("check", ["scripts/check.mjs"]);
  if (passed) {
    postgres = await startPostgres(folder, { fsync: "off", max_connections: "200" });
    const env = {
      TEST_POSTGRES_URL: postgres.url("postgres"),
      COVERED_CALLS: join(folder, "covered-calls"),
    };
    const ignore = ["**/*.unit.test.ts"];
    const served = globSync(
      ["src/{store,desk,delivery,outgoing,server}/**/*.test.ts", "tests/servers/*.test.ts"],
      {
        cwd: root,
        ignore,
      },
    );
    const browser = globSync(["tests/browser/*.test.ts"], { cwd: root });
    // A file that never ends fails by its name, long before a machine that runs it gives up.
    const runner = ["--import", "tsx", "--test", "--test-concurrency=2", "--test-timeout=1200000"];
    passed = step("store, desk and delivery on PostgreSQL", [...runner, ...served], env);
    passed =
      passed &&
      step("every call of the API answered as its document says", [...runner, "tests/covered-calls.ts"], env);
    passed = passed && step("build", ["scripts/build-for-tests.mjs"]);
    passed = passed && step("packed and installed", [...runner, "tests/packed/packed.test.ts"], env);
    passed = passed && step("in the browser", [...runner, ...browser], env);
  }
} catch (error) {
  console.error(`The tests could not run: ${error instanceof Error ? error.message : error}`);
  passed = false;
} finally {
  cleanUp();
}
process.exit(passed ? 0 : 1);
