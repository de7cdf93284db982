import type { ChildProcess } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { startPostgres } from "../scripts/postgres.mjs";
import { ensureDatabase } from "../src/store/ground/ensure-database.ts";
import { migrate } from "../src/store/ground/migrate.ts";
import { openStore, type Store } from "../src/store/ground/store.ts";
import { startProcess, type Started } from "./started.ts";
import { load, type Measured } from "./wrk.ts";

const ROUTES = 1_000_000;
const WILDCARDS = 10_000;
const PATTERNS = 1_000;
const ROUNDS = 9;
const SECONDS = 3;

/**
 * The delivery listener with a million exact routes, 10,000 prefixes and wildcards, 1,000 patterns and click
 * recording on, against a bare constant 302, taken in turns; then misses against the same; and what the table takes.
 */
export async function redirects(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), "maprope-bench-"));
  const postgres = await startPostgres(folder);
  const children: ChildProcess[] = [];
  try {
    await ensureDatabase(postgres.url("postgres"), "bench");
    const store = openStore(postgres.url("bench"));
    await migrate(store);
    await siteOf(store);
    const bare = await start(children, ["bench/bare-server.ts"]);
    const empty = await start(children, [
      "tests/support/delivery-process.ts",
      postgres.url("bench"),
      join(folder, "e"),
    ]);
    const emptySeconds = empty.seconds;
    const emptyBytes = await residentBytes(empty);
    empty.child.kill("SIGTERM");
    await fill(store);
    const ours = await start(children, [
      "tests/support/delivery-process.ts",
      postgres.url("bench"),
      join(folder, "data"),
    ]);
    const total = ROUTES + WILDCARDS + PATTERNS;
    const ready = ((ours.seconds - emptySeconds) / total) * 1_000_000;
    const taken = (await residentBytes(ours)) - emptyBytes;
    console.log(
      `${total.toLocaleString("en")} routes: ready ${ours.seconds.toFixed(1)} s after the start of the process, ${ready.toFixed(1)} s a million over an empty one (target: at most 15); ${Math.round(taken / 1e6)} MB over the empty process's ${Math.round(emptyBytes / 1e6)} (target: at most 350)`,
    );
    const exact = Array.from({ length: 1000 }, (_, n) => `/r${Math.floor((n * ROUTES) / 1000)}`);
    const only = process.argv[3];
    if (!only || only === "redirects")
      await turns("redirects", folder, store, bare, ours, exact, { throughput: 0.85, tail: 1.5 });
    const patterns = Array.from({ length: 500 }, (_, n) => [
      `/old-${n * 20}/page-${n}`,
      `/archive-${n}/2019/note`,
    ]).flat();
    if (!only || only === "patterns")
      await turns("wildcards and patterns", folder, store, bare, ours, patterns, {});
    const misses = Array.from({ length: 1000 }, (_, n) => `/nothing/at/all-${n}`);
    if (!only || only === "misses")
      await turns("misses", folder, store, bare, ours, misses, { throughput: 0.7 });
    await store.close();
  } finally {
    for (const child of children) child.kill("SIGTERM");
    await new Promise((resolve) => setTimeout(resolve, 1500));
    postgres.stop("immediate");
    rmSync(folder, { recursive: true, force: true });
    postgres.discard();
  }
}

async function turns(
  what: string,
  folder: string,
  store: Store,
  bare: Started,
  ours: Started,
  paths: readonly string[],
  target: { throughput?: number; tail?: number },
): Promise<void> {
  const before = await recorded(store);
  const run = async (port: number): Promise<Measured> => {
    // What the round before left on the spool is copied first: it must slow down neither of the two.
    await drained(ours.port);
    return load(folder, port, "bench.example", paths, SECONDS);
  };
  await run(bare.port);
  await run(ours.port);
  const rounds: { bare: Measured; ours: Measured }[] = [];
  for (let round = 0; round < ROUNDS; round += 1) {
    // Who goes first changes, so that neither always runs on the warmer machine.
    const first = round % 2 === 0;
    const a = await run(first ? bare.port : ours.port);
    const b = await run(first ? ours.port : bare.port);
    rounds.push(first ? { bare: a, ours: b } : { bare: b, ours: a });
  }
  report(what, rounds, target);
  await arrived(store, ours.port, rounds, before);
}

// After the collector has had its time: what loading left behind is not what the table takes.
async function residentBytes(started: Started): Promise<number> {
  await new Promise((resolve) => setTimeout(resolve, 12_000));
  const status = readFileSync(`/proc/${started.child.pid}/status`, "utf8");
  return Number(/VmRSS:\s+(\d+) kB/.exec(status)![1]) * 1024;
}

async function drained(port: number): Promise<void> {
  for (let waited = 0; waited < 360; waited += 1) {
    // A connection of its own: while wrk runs, nobody here notices that the listener closed an idle one.
    const answer = await fetch(`http://127.0.0.1:${port}/healthz`, { headers: { Connection: "close" } });
    const health = (await answer.json()) as { pendingClicks: number };
    if (health.pendingClicks === 0) return;
    await new Promise((resolve) => setTimeout(resolve, 500));
  }
  throw new Error("three minutes after the load there are still clicks on the spool");
}

async function siteOf(store: Store): Promise<void> {
  await store.rows("INSERT INTO sites (key, name) VALUES ('bench', 'Bench')");
  await store.rows("INSERT INTO hosts (site_id, name, role) VALUES (1, 'bench.example', 'primary')");
}

async function fill(store: Store): Promise<void> {
  const insert = (
    count: number,
    kind: string,
    match: string,
    address: string,
    destination: string,
  ): Promise<unknown> =>
    store.rows(
      `INSERT INTO routes (site_id, kind, match, address, destination, status)
       SELECT 1, '${kind}', '${match}', ${address}, ${destination}, 302 FROM generate_series(0, $last::int) AS n`,
      { last: count - 1 },
    );
  await insert(
    ROUTES,
    "short",
    "exact",
    "'/r' || n",
    "'https://shop.example/item/' || n || '?partner=LL-2291'",
  );
  await insert(
    WILDCARDS / 2,
    "redirect",
    "wildcard",
    "'/old-' || n * 2 || '/*'",
    "'/new-' || n || '/' || chr(36) || '1'",
  );
  await insert(
    WILDCARDS / 2,
    "redirect",
    "prefix",
    "'/below-' || n",
    "'/under-' || n || '/' || chr(36) || '1'",
  );
  await insert(
    PATTERNS,
    "redirect",
    "pattern",
    "'/archive-' || n || '/(\\d{4})/([a-z-]+)'",
    "'/notes/' || chr(36) || '2-' || chr(36) || '1'",
  );
  await store.rows(
    `INSERT INTO route_addresses (site_id, host, key, route_id)
     SELECT 1, '*', CASE WHEN match = 'exact' THEN address ELSE match || ':' || address END, id FROM routes`,
  );
  await store.sequelize.query("ANALYZE");
}

async function start(children: ChildProcess[], args: string[]): Promise<Started> {
  const started = await startProcess(args);
  children.push(started.child);
  return started;
}

function report(
  what: string,
  rounds: readonly { bare: Measured; ours: Measured }[],
  target: { throughput?: number; tail?: number },
): void {
  const median = (values: number[]): number => values.sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
  const row = (name: string, key: "bare" | "ours"): Record<string, string | number> => ({
    listener: name,
    "requests/s": Math.round(median(rounds.map((round) => round[key].perSecond))),
    "p50 ms": median(rounds.map((round) => round[key].p50)).toFixed(2),
    "p99 ms": median(rounds.map((round) => round[key].p99)).toFixed(2),
    errors: rounds.reduce((sum, round) => sum + round[key].errors, 0),
  });
  console.table([row("bare node:http, constant 302", "bare"), row(`Map Rope, ${what}`, "ours")]);
  const ratio = median(rounds.map(({ bare, ours }) => ours.perSecond / bare.perSecond));
  const tail = median(rounds.map(({ bare, ours }) => ours.p99 / bare.p99));
  const wanted = (value: number | undefined, word: string): string =>
    value ? ` (target: ${word} ${value.toFixed(2)})` : "";
  console.log(
    `${what}: throughput ${ratio.toFixed(2)} of the bare server${wanted(target.throughput, "at least")}, p99 ${tail.toFixed(2)} times its${wanted(target.tail, "at most")}`,
  );
  console.log(
    `per round: ${rounds.map(({ bare, ours }) => (ours.perSecond / bare.perSecond).toFixed(2)).join(", ")}; medians of ${rounds.length} rounds of ${SECONDS} s each`,
  );
}

// A fast answer that loses its record would not count.
async function arrived(
  store: Store,
  port: number,
  rounds: readonly { ours: Measured }[],
  before: number,
): Promise<void> {
  const answered = rounds.reduce((sum, { ours }) => sum + ours.perSecond * SECONDS, 0);
  await drained(port);
  const records = (await recorded(store)) - before;
  console.log(
    `records in the database: ${records.toLocaleString("en")}, for about ${Math.round(answered).toLocaleString("en")} answered (warm-up comes on top)\n`,
  );
  if (records < answered) throw new Error("records are missing");
}

async function recorded(store: Store): Promise<number> {
  const [row] = await store.rows<{ n: string }>(
    "SELECT ((SELECT count(*) FROM clicks) + (SELECT coalesce(sum(times + bots), 0) FROM misses))::text AS n",
  );
  return Number(row!.n);
}
