import type { Desk } from "../src/desk/desk.ts";
import { sealWith } from "../src/desk/ground/seal.ts";
import { createJobs } from "../src/desk/jobs/jobs.ts";
import { textsHere } from "../src/desk/pages/texts/read-text.ts";
import { openSite, type OpenSite } from "../src/desk/sites/open-site.ts";
import { createSite } from "../src/desk/sites/sites.ts";
import { runTask } from "../src/desk/tasks.ts";
import { ensureDatabase } from "../src/store/ground/ensure-database.ts";
import { migrate } from "../src/store/ground/migrate.ts";
import { NOBODY_OUTSIDE } from "../tests/support/desk.ts";
import { openStore } from "../src/store/ground/store.ts";

const ACTOR = { name: "Bench", role: "owner" } as const;

/** A desk on a database of its own, with one site, that asks nobody outside. */
export async function benchDesk(
  url: (name: string) => string,
  name: string,
): Promise<{ desk: Desk; site: OpenSite; close(): Promise<void> }> {
  await ensureDatabase(url("postgres"), name);
  const store = openStore(url(name));
  await migrate(store);
  const desk: Desk = {
    store,
    outgoing: NOBODY_OUTSIDE,
    texts: textsHere,
    seal: sealWith(["nothing is sealed here"]),
    thread: {
      run: ({ name: task }, siteId, input, progress) =>
        runTask(desk, { task, siteId, input }, progress) as never,
      end: async () => {},
    },
    report: (message, error) => console.error(message, error),
    jobs: createJobs(store),
    deliveryPort: 4601,
    workspaceHosts: [],
    health: async () => ({}),
    preview: () => undefined,
    proof: () => "",
    mailer: undefined,
    workspaceUrl: "",
  };
  const { id } = await createSite(desk, ACTOR, {
    key: "bench",
    name: "Bench",
    hosts: [{ name: "bench.example", role: "primary" }],
  });
  return { desk, site: await openSite(desk, id), close: () => store.close() };
}
