import { installDebian, giveUp } from "./install.mjs";
import { readConfig } from "../src/server/config.ts";
import { serve, type Serving } from "../src/server/serve.ts";
import { ownFolder } from "../src/server/starting.ts";
import { startSim } from "../src/sim/server.ts";
import { ensureDatabase } from "../src/store/ground/ensure-database.ts";
import { loadDemo } from "../demo/load.ts";
import { DEMO_SIGN_IN, takeDemoPeople } from "../demo/people.ts";
import { firstOwner } from "../src/desk/people/first-owner.ts";
import { environmentOf } from "../src/server/environment.ts";
import { isStill, startersOf } from "./starters.ts";
import { postgresFolder, startPostgres } from "./postgres.mjs";

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

async function start(root: string): Promise<Serving> {
  const config = readConfig(environmentOf(root, process.env), root);
  let databaseUrl = config.databaseUrl;
  ownFolder(config.dataFolder);
  if (!databaseUrl) {
    installDebian(["postgresql"], () => postgresFolder() !== undefined, "PostgreSQL");
    const postgres = await startPostgres(config.dataFolder);
    // One that ran already may be serving another start: it is left alone if this one gets no further.
    stops.push(() => (postgres.reused && !served ? undefined : postgres.stop()));
    databaseUrl = postgres.url("maprope");
    await ensureDatabase(postgres.url("postgres"), "maprope");
  }
  if (config.demo) {
    const sim = await startSim(config.simPort, config.simPort + 1);
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
  Mail        http://mail.localhost:${config.simPort}/   (what was sent)
  Sign in     ${DEMO_SIGN_IN.email}   ${DEMO_SIGN_IN.password}`);
  }
  for (const note of notes) console.log(`  ${note}`);
  console.log("\n  Ctrl-C stops everything.\n");
  return serving;
}

/** Starts everything with the demo, below this folder; a start that goes wrong is told in plain sentences. */
export function startApp(root: string): void {
  start(root).catch(async (error: unknown) => {
    for (const stop of stops.reverse()) await stop();
    giveUp(error instanceof Error ? error.message : String(error));
  });
}
