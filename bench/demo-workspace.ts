import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { loadDemo } from "../demo/load.ts";
import { buildWhenStale } from "../scripts/build.mjs";
import { freePort, startPostgres } from "../scripts/postgres.mjs";
import { readConfig } from "../src/server/config.ts";
import { serve } from "../src/server/serve.ts";
import { ensureDatabase } from "../src/store/ground/ensure-database.ts";

/** The workspace with its demo, as a bench has it. */
export interface DemoWorkspace {
  workspace: string;
  sitePort: number;
  apiToken: string;
  stop(): Promise<void>;
}

/** Serves the built workspace with the demo on a database of its own, until it is stopped. */
export async function serveDemo(): Promise<DemoWorkspace> {
  const folder = mkdtempSync(join(tmpdir(), "maprope-bench-"));
  const postgres = await startPostgres(folder);
  const [port, sitePort, simPort] = [await freePort(), await freePort(), await freePort()];
  const buildFolder = join(process.cwd(), ".cache/test-build");
  await buildWhenStale(buildFolder);
  await ensureDatabase(postgres.url("postgres"), "bench");
  const apiToken = "a-token-for-the-bench-of-screens";
  const config = {
    ...readConfig({ MAPROPE_SECRET: "a secret of the bench" }, folder),
    databaseUrl: postgres.url("bench"),
    port,
    sitePort,
    simPort,
    dataFolder: join(folder, "data"),
    apiToken,
    demo: true,
    simulated: true,
    buildFolder,
  };
  const serving = await serve(
    config,
    config.databaseUrl,
    async (desk) => void (await loadDemo(desk, simPort, Date.now())),
  );
  return {
    workspace: `http://localhost:${port}`,
    sitePort,
    apiToken,
    async stop() {
      await serving.stop();
      postgres.stop("immediate");
      rmSync(folder, { recursive: true, force: true });
      postgres.discard();
    },
  };
}
