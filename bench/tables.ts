import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { startPostgres } from "../scripts/postgres.mjs";
import { UNWATCHED } from "../src/threads/progress.ts";
import { importRoutes } from "../src/desk/routes/transfer/import-routes.ts";
import { lintTable } from "../src/desk/routes/lint-table.ts";
import { listRoutes } from "../src/desk/routes/list-routes.ts";
import { traceAddresses } from "../src/desk/trace/trace-routes.ts";
import type { OpenSite } from "../src/desk/sites/open-site.ts";
import type { WithStore, WithDeliveryPort } from "../src/desk/ground/parts.ts";
import { routesQuery } from "../src/contract/routes/list.ts";
import { benchDesk } from "./bench-desk.ts";

const ACTOR = { name: "Bench", role: "owner" } as const;
const IMPORTED = 300_000;

/** Lint and trace against the size of the table, the table screen's first rows, and an import of 300,000 lines. */
export async function tables(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), "maprope-bench-"));
  const postgres = await startPostgres(folder);
  try {
    const growth: Record<string, string | number>[] = [];
    for (const size of [1_000, 10_000, 100_000]) {
      const { desk, site, close } = await benchDesk(postgres.url, `bench_${size}`);
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
    const { desk, site, close } = await benchDesk(postgres.url, "bench_import");
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
