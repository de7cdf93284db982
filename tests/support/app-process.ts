import { loadDemo } from "../../demo/load.ts";
import { readConfig } from "../../src/server/config.ts";
import { serve } from "../../src/server/serve.ts";
import { startSim } from "../../src/sim/server.ts";
import type { DemoPorts } from "./demo-database.ts";

/** What a process of the application is told when it starts. */
export interface AppSettings extends DemoPorts {
  databaseUrl: string;
  port: number;
  dataFolder: string;
  buildFolder: string;
  demo: boolean;
}

// Built as an installation is, and started by the tests: it serves until the one who started it lets go of it.
async function run(settings: AppSettings): Promise<void> {
  const sim = await startSim(settings.simPort);
  const config = {
    ...readConfig({ MAPROPE_SECRET: "a secret of the tests" }, settings.dataFolder),
    ...settings,
    apiToken: "a-token-for-the-tests-of-the-api",
    simulated: true,
  };
  const serving = await serve(config, settings.databaseUrl, async (desk) => {
    if (settings.demo) await loadDemo(desk, settings.simPort, Date.now());
  });
  process.once("disconnect", () => {
    void Promise.all([serving.stop(), sim.stop()]).then(() => process.exit(0));
  });
  process.send!("ready");
}

process.once("message", (settings: AppSettings) => void run(settings));
