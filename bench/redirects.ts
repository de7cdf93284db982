import { spawn, type ChildProcess } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { startPostgres } from "../scripts/postgres.mjs";
import { ensureDatabase } from "../src/store/ensure-database.ts";
import { migrate } from "../src/store/migrate.ts";
import { openStore, type Store } from "../src/store/store.ts";
import { load, type Measured } from "./wrk.ts";

const ROUTES = 100_000;
const ROUNDS = 11;
const SECONDS = 3;

/** The delivery listener with 100,000 routes and click recording on, against a bare constant 302, taken in turns. */
export async function redirects(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), "maprope-bench-"));
  const postgres = await startPostgres(folder);
  const children: ChildProcess[] = [];
  try {
    await ensureDatabase(postgres.url("postgres"), "bench");
    const store = openStore(postgres.url("bench"));
    await migrate(store.sequelize);
    await fill(store);
    const bare = await start(children, ["bench/bare-server.ts"]);
    const began = performance.now();
    const ours = await start(children, [
      "tests/support/delivery-process.ts",
      postgres.url("bench"),
      join(folder, "data"),
    ]);
    console.log(
      `${ROUTES.toLocaleString("en")} routes; delivery ready after ${((performance.now() - began) / 1000).toFixed(1)} s (its process start included)`,
    );

    const paths = Array.from({ length: 1000 }, (_, n) => `/r${Math.floor((n * ROUTES) / 1000)}`);
    const run = async (port: number): Promise<Measured> => {
      // What the round before left on the spool is copied first: it must slow down neither of the two.
      await drained(ours);
      return load(folder, port, "bench.example", paths, SECONDS);
    };
    await run(bare);
    await run(ours);
    const rounds: { bare: Measured; ours: Measured }[] = [];
    for (let round = 0; round < ROUNDS; round += 1) {
      // Who goes first changes, so that neither always runs on the warmer machine.
      const first = round % 2 === 0;
      const a = await run(first ? bare : ours);
      const b = await run(first ? ours : bare);
      rounds.push(first ? { bare: a, ours: b } : { bare: b, ours: a });
    }
    report(rounds);
    await arrived(store, ours, rounds);
    await store.close();
  } finally {
    for (const child of children) child.kill("SIGTERM");
    await new Promise((resolve) => setTimeout(resolve, 1500));
    postgres.stop("immediate");
    rmSync(folder, { recursive: true, force: true });
    postgres.discard();
  }
}

async function drained(port: number): Promise<void> {
  for (let waited = 0; waited < 120; waited += 1) {
    // A connection of its own: while wrk runs, nobody here notices that the listener closed an idle one.
    const answer = await fetch(`http://127.0.0.1:${port}/healthz`, { headers: { Connection: "close" } });
    const health = (await answer.json()) as { pendingClicks: number };
    if (health.pendingClicks === 0) return;
    await new Promise((resolve) => setTimeout(resolve, 500));
  }
  throw new Error("a minute after the load there are still clicks on the spool");
}

async function fill(store: Store): Promise<void> {
  await store.rows("INSERT INTO sites (key, name) VALUES ('bench', 'Bench')");
  await store.rows("INSERT INTO hosts (site_id, name, role) VALUES (1, 'bench.example', 'primary')");
  await store.rows(
    `INSERT INTO routes (site_id, kind, address, destination, status)
     SELECT 1, 'short', '/r' || n, 'https://shop.example/item/' || n || '?partner=LL-2291', 302 FROM generate_series(0, $last::int) AS n`,
    { last: ROUTES - 1 },
  );
  await store.rows(
    "INSERT INTO route_addresses (site_id, host, key, route_id) SELECT 1, '*', address, id FROM routes",
  );
}

function start(children: ChildProcess[], args: string[]): Promise<number> {
  const child = spawn(process.execPath, ["--import", "tsx", ...args], {
    stdio: ["ignore", "pipe", "inherit"],
  });
  children.push(child);
  return new Promise((resolve, reject) => {
    child.stdout!.on("data", (chunk) => {
      const ready = /ready on (\d+)/.exec(String(chunk));
      if (ready) resolve(Number(ready[1]));
    });
    child.once("exit", (code) => reject(new Error(`${args[0]} ended with ${code}`)));
  });
}

function report(rounds: readonly { bare: Measured; ours: Measured }[]): void {
  const median = (values: number[]): number => values.sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
  const row = (name: string, key: "bare" | "ours"): Record<string, string | number> => ({
    listener: name,
    "requests/s": Math.round(median(rounds.map((round) => round[key].perSecond))),
    "p50 ms": median(rounds.map((round) => round[key].p50)).toFixed(2),
    "p99 ms": median(rounds.map((round) => round[key].p99)).toFixed(2),
    errors: rounds.reduce((sum, round) => sum + round[key].errors, 0),
  });
  console.table([row("bare node:http, constant 302", "bare"), row("Map Rope delivery", "ours")]);
  const ratio = median(rounds.map(({ bare, ours }) => ours.perSecond / bare.perSecond));
  const tail = median(rounds.map(({ bare, ours }) => ours.p99 / bare.p99));
  console.log(
    `throughput ${ratio.toFixed(2)} of the bare server (target: at least 0.80), p99 ${tail.toFixed(2)} times its (target: at most 1.50)`,
  );
  console.log(
    `per round: ${rounds.map(({ bare, ours }) => (ours.perSecond / bare.perSecond).toFixed(2)).join(", ")}; medians of ${rounds.length} rounds of ${SECONDS} s each`,
  );
}

// A fast answer that loses its click would not count.
async function arrived(store: Store, port: number, rounds: readonly { ours: Measured }[]): Promise<void> {
  const answered = rounds.reduce((sum, { ours }) => sum + ours.perSecond * SECONDS, 0);
  await drained(port);
  const [row] = await store.rows<{ n: string }>("SELECT count(*)::text AS n FROM clicks");
  const clicks = Number(row!.n);
  console.log(
    `clicks in the database: ${clicks.toLocaleString("en")}, for about ${Math.round(answered).toLocaleString("en")} answered (warm-up comes on top)`,
  );
  if (clicks < answered) throw new Error("clicks are missing");
}
