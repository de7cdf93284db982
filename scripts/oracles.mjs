// What is computed, held against references that nobody here wrote, on far more cases than the tests take.
import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { installDebian, installPackages, root } from "./install.mjs";
import { postgresFolder, startPostgres } from "./postgres.mjs";

installPackages();
installDebian(["postgresql"], () => postgresFolder() !== undefined, "PostgreSQL");
const { globSync } = await import("tinyglobby");
const oracles = globSync(["tests/oracles/*.test.ts", "tests/servers/random-*.test.ts"], { cwd: root });
const folder = mkdtempSync(join(tmpdir(), "maprope-oracles-"));
const postgres = await startPostgres(folder, { fsync: "off" });
const { status } = spawnSync(process.execPath, ["--import", "tsx", "--test", ...oracles], {
  cwd: root,
  stdio: "inherit",
  env: { ...process.env, ORACLES: "all", TEST_POSTGRES_URL: postgres.url("postgres") },
});
postgres.stop("immediate");
postgres.discard();
rmSync(folder, { recursive: true, force: true });
process.exit(status ?? 1);
