import pg from "pg";
import { freePort } from "../../scripts/postgres.mjs";
import { adminUrl, createDatabase, type TestDatabase } from "./database.ts";

/** What the demo's addresses carry: where delivery listens, and what plays the outside. */
export interface DemoPorts {
  sitePort: number;
  simPort: number;
}

// The files of one run share what is loaded; the sources of another run may be others.
const RUN = process.ppid;

/**
 * A database with the demo in it, and the ports that its addresses carry. `load` fills an empty one, once for each
 * lane in which files run at the same time; every file gets a copy. `drop` leaves the lane to the next file.
 */
export async function demoDatabase(
  load: (url: string, ports: DemoPorts) => Promise<void>,
): Promise<TestDatabase & { ports: DemoPorts }> {
  const lane = new pg.Client({ connectionString: adminUrl() });
  await lane.connect();
  const start = `demo_${RUN}_${await freeLane(lane)}_`;
  let template = await nameThatStarts(lane, start);
  if (template === undefined) {
    const ports = { sitePort: await freePort(), simPort: await freePort() };
    const loading = await createDatabase(`loading_${start}`);
    await load(loading.url, ports);
    template = `${start}${ports.sitePort}_${ports.simPort}`;
    await lane.query(`ALTER DATABASE loading_${start} RENAME TO ${template}`);
  }
  const [sitePort, simPort] = template.slice(start.length).split("_").map(Number);
  const copy = await createDatabase(undefined, template);
  return {
    url: copy.url,
    ports: { sitePort: sitePort!, simPort: simPort! },
    async drop() {
      await copy.drop();
      await lane.end();
    },
  };
}

// A lane is held by a lock of the connection, and free again when that ends, however it ends.
async function freeLane(client: pg.Client): Promise<number> {
  for (let lane = 1; ; lane += 1) {
    const { rows } = await client.query("SELECT pg_try_advisory_lock($1, $2) AS taken", [RUN, lane]);
    if (rows[0].taken) return lane;
  }
}

async function nameThatStarts(client: pg.Client, start: string): Promise<string | undefined> {
  const { rows } = await client.query("SELECT datname FROM pg_database WHERE starts_with(datname, $1)", [
    start,
  ]);
  return rows[0]?.datname;
}
