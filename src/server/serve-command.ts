import { takeDemoPeople } from "../../demo/people.ts";
import { firstOwner } from "../desk/people/first-owner.ts";
import { readConfig, type Config } from "./config.ts";
import { databaseOf, type Ends } from "./database.ts";
import { environmentOf } from "./environment.ts";
import { serve } from "./serve.ts";

/**
 * Runs an installation until it is told to stop: no demo, on the database that `DATABASE_URL` names or on a PostgreSQL of
 * its own. Answers the exit status: 0 when it was stopped, 1 when it cannot start, which is told in plain sentences.
 */
export async function serveCommand(
  folder: string,
  buildFolder: string,
  env: Readonly<Record<string, string | undefined>>,
): Promise<number> {
  // Packages that have a slower form for those who develop are asked for the other one.
  process.env.NODE_ENV ??= "production";
  const ends: Ends = [];
  const told = toldToStop();
  try {
    const settings = { MAPROPE_BUILD: buildFolder, ...environmentOf(folder, env), MAPROPE_DEMO: "0" };
    await begin(readConfig(settings, folder), ends);
    await told;
    return 0;
  } catch (error) {
    for (const line of (error instanceof Error ? error.message : String(error)).split("\n"))
      console.error(`Map Rope cannot start: ${line}`);
    return 1;
  } finally {
    for (const end of ends.reverse()) await end();
  }
}

async function begin(config: Config, ends: Ends): Promise<void> {
  const notes: string[] = [];
  const serving = await serve(config, await databaseOf(config, ends), async (desk) => {
    if ((await takeDemoPeople(desk)) > 0)
      notes.push("The people of the demo, whose passwords everybody knows, were taken away.");
    notes.push(...(await firstOwner(desk)));
  });
  ends.push(() => serving.stop());
  console.log(
    ["", `Workspace   ${serving.workspaceUrl}/`, `Delivery    ${serving.deliveryUrl}`, ...notes, ""].join(
      "\n  ",
    ),
  );
}

// SIGHUP is a terminal that closes.
function toldToStop(): Promise<void> {
  return new Promise((resolve) => {
    for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"] as const) process.on(signal, () => resolve());
  });
}
