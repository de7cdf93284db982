import { textsHere } from "../src/desk/pages/texts/read-text.ts";
import { sealWith } from "../src/desk/ground/seal.ts";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { startPostgres } from "../scripts/postgres.mjs";
import type { Desk } from "../src/desk/desk.ts";
import { UNWATCHED } from "../src/threads/progress.ts";
import { createJobs } from "../src/desk/jobs/jobs.ts";
import { importRoutes } from "../src/desk/routes/transfer/import-routes.ts";
import { lintTable } from "../src/desk/routes/lint-table.ts";
import { listRoutes } from "../src/desk/routes/list-routes.ts";
import { traceAddresses } from "../src/desk/trace/trace-routes.ts";
import { createSite } from "../src/desk/sites/sites.ts";
import { ensureDatabase } from "../src/store/ground/ensure-database.ts";
import { migrate } from "../src/store/ground/migrate.ts";
import { openStore } from "../src/store/ground/store.ts";
import { openSite, type OpenSite } from "../src/desk/sites/open-site.ts";
import type { WithStore, WithDeliveryPort } from "../src/desk/ground/parts.ts";
import { routesQuery } from "../src/contract/routes/list.ts";

const ACTOR = { name: "Bench", role: "owner" } as const;
const IMPORTED = 300_000;

/** Lint and trace against the size of the table, the table screen's first rows, and an import of 300,000 lines. */
export async function tables(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), "maprope-bench-"));
  const postgres = await startPostgres(folder);
  try {
    const growth: Record<string, string | number>[] = [];
    for (const size of [1_000, 10_000, 100_000]) {
      const { desk, site, close } = await siteOf(postgres.url, `bench_${size}`);
      await bring(desk, site, table(size));
      const lint = await timed(() => lintTable(desk, site));
      const addresses = Array.from({ length: 10_000 }, (_, n) => `/c${(n * 7) % size}`);
      const trace = await timed(() => traceAddresses(desk, site, { addresses, outside: false }));
      growth.push({
        routes: size,
        "lint ms": Math.round(lint),
        "lint µs a route": ((lint * 1000) / size).toFixed(1),
        "trace of 10,000 ms": Math.round(trace),
      });
      if (size === 100_000) await rows(desk, site);
      await close();
    }
    console.log("Lint and trace against the size of the table, with chains and circles:");
    console.table(growth);
    const { desk, site, close } = await siteOf(postgres.url, "bench_import");
    const lines = table(IMPORTED);
    const dry = await timed(() => bring(desk, site, lines, true));
    const real = await timed(() => bring(desk, site, lines));
    const again = await timed(() => bring(desk, site, lines));
    console.log(
      `Import of ${IMPORTED.toLocaleString("en")} lines: tried in ${seconds(dry)}, taken in in ${seconds(real)}, the same again in ${seconds(again)}`,
    );
    await close();
  } finally {
    postgres.stop("immediate");
    rmSync(folder, { recursive: true, force: true });
    postgres.discard();
  }
}

async function siteOf(
  url: (name: string) => string,
  name: string,
): Promise<{ desk: Desk; site: OpenSite; close(): Promise<void> }> {
  await ensureDatabase(url("postgres"), name);
  const store = openStore(url(name));
  await migrate(store);
  const desk: Desk = {
    store,
    outgoing: {
      visit: async () => ({ ok: false, reason: "is not asked here", ms: 0 }),
      read: async () => ({ ok: false, reason: "has no address" }),
      fetch: async () => ({ ok: false, reason: "has no address" }),
    },
    texts: textsHere,
    seal: sealWith(["nothing is sealed here"]),
    thread: { run: () => Promise.reject(new Error("nobody asks")), end: async () => {} },
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

// Chains of ten, a circle in every hundred (made by way of a later line, which imports refuse: so they are few), the rest outside.
function table(size: number): string {
  const lines = ["kind,address,destination,title,tags"];
  for (let n = 0; n < size; n += 1) {
    const to =
      n % 10 === 9 || n + 1 === size ? `https://shop.example/item/${n}?partner=LL-2291` : `/c${n + 1}`;
    lines.push(`redirect,/c${n},${to},Number ${n},tag${n % 20}`);
  }
  return lines.join("\n");
}

async function bring(desk: WithStore, site: OpenSite, text: string, dry = false): Promise<void> {
  const bytes = new TextEncoder().encode(text);
  const { refused } = await importRoutes(
    desk,
    ACTOR,
    site,
    { bytes, json: false },
    { dryRun: dry ? "1" : "0" },
    UNWATCHED,
  );
  if (refused.length > 0) throw new Error(`refused: ${JSON.stringify(refused.slice(0, 3))}`);
}

async function rows(desk: WithStore & WithDeliveryPort, site: OpenSite): Promise<void> {
  await desk.store.sequelize.query("ANALYZE");
  const shown: Record<string, string>[] = [];
  const queries: readonly Record<string, string>[] = [
    {},
    { sort: "address" },
    { sort: "-clicks" },
    { q: "item/777" },
    { tag: "tag7", sort: "title" },
    { unused: "30" },
    { cursor: Buffer.from("90000").toString("base64url") },
  ];
  for (const query of queries) {
    const asked = routesQuery.parse({ limit: "200", ...query });
    const times: number[] = [];
    for (let n = 0; n < 5; n += 1) times.push(await timed(() => listRoutes(desk, site, asked)));
    shown.push({ query: JSON.stringify(query), ms: times.sort((a, b) => a - b)[2]!.toFixed(0) });
  }
  console.log("First 200 rows of the table at 100,000 routes (medians of five):");
  console.table(shown);
}

async function timed(work: () => Promise<unknown>): Promise<number> {
  const began = performance.now();
  await work();
  return performance.now() - began;
}

function seconds(ms: number): string {
  return `${(ms / 1000).toFixed(1)} s`;
}
