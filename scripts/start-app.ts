import { readConfig } from "../src/server/config.ts";
import { serve, type Serving } from "../src/server/serve.ts";
import { ownFolder } from "../src/server/starting.ts";
import { startSim } from "../src/sim/server.ts";
import { ensureDatabase } from "../src/store/ground/ensure-database.ts";
import { DEMO_SIGN_IN, loadDemo, takeDemoPeople } from "../demo/load.ts";
import { buildWhenStale } from "./build.ts";
import { firstOwner } from "./first-owner.ts";
import { giveUp, root } from "./install.mjs";
import { isStill, startersOf } from "./starters.ts";
import { startPostgres } from "./postgres.mjs";

const stops: (() => unknown)[] = [];
let stopping = false;
let served = false;

async function stopAll(code: number): Promise<void> {
  if (stopping) return;
  stopping = true;
  for (const stop of stops.reverse()) await stop();
  process.exit(code);
}
for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"] as const) {
  process.on(signal, () => {
    console.log("\nStopping…");
    void stopAll(0);
  });
}

// npm ends at once when it is told to, and leaves what it started alone: whoever it was started by is watched instead.
const starters = startersOf(process.ppid);
setInterval(() => {
  if (stopping || starters.every(isStill)) return;
  console.log("\nWhoever started this has ended. Stopping…");
  void stopAll(0);
}, 500).unref();

async function start(): Promise<Serving> {
  const config = readConfig(process.env, root);
  let databaseUrl = config.databaseUrl;
  ownFolder(config.dataFolder);
  if (!databaseUrl) {
    const postgres = await startPostgres(config.dataFolder);
    // One that ran already may be serving another start: it is left alone if this one gets no further.
    stops.push(() => (postgres.reused && !served ? undefined : postgres.stop()));
    databaseUrl = postgres.url("maprope");
    await ensureDatabase(postgres.url("postgres"), "maprope");
  }
  buildWhenStale(config.buildFolder);
  if (config.demo) {
    const sim = await startSim(config.simPort);
    stops.push(() => sim.stop());
  }
  const notes: string[] = [];
  let isDemo = false;
  const serving = await serve(config, databaseUrl, async (desk) => {
    if (config.demo) isDemo = await loadDemo(desk, config.simPort, Date.now());
    else if ((await takeDemoPeople(desk)) > 0)
      notes.push("The people of the demo, whose passwords everybody knows, were taken away.");
    if (!isDemo) notes.push(...(await firstOwner(desk)));
  });
  stops.push(() => serving.stop());
  served = true;
  console.log(`
  Workspace   http://localhost:${config.port}/
  Delivery    ${serving.deliveryUrl}`);
  if (isDemo) {
    console.log(`  Site        http://lowlantern.localhost:${config.sitePort}/
  Outside     http://harbour-optics.localhost:${config.simPort}/   (simulated)
  Sign in     ${DEMO_SIGN_IN.email}   ${DEMO_SIGN_IN.password}`);
  }
  for (const note of notes) console.log(`  ${note}`);
  console.log("\n  Ctrl-C stops everything.\n");
  return serving;
}

start().catch(async (error: unknown) => {
  for (const stop of stops.reverse()) await stop();
  giveUp(error instanceof Error ? error.message : String(error));
});
