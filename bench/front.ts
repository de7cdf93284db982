import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { Agent, request } from "node:http";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { startPostgres } from "../scripts/postgres.mjs";
import { ensureDatabase } from "../src/store/ground/ensure-database.ts";
import { migrate } from "../src/store/ground/migrate.ts";
import { openStore, type Store } from "../src/store/ground/store.ts";
import { startProcess, type Started } from "./started.ts";
import { load, type Measured } from "./wrk.ts";
import { median } from "./median.ts";

const ROUNDS = 7;
const SECONDS = 3;
const HOST = "bench.example";
const RULES = 20;
const FIRST_BYTES = 1_000;

/**
 * Pages of 50 kB with 45 links from an origin on the same machine, their links rewritten by 20 rules, beside a bare proxy that only
 * pipes: requests a second, the first byte, and what a page of a hundred megabytes takes of memory.
 */
export async function front(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), "maprope-bench-"));
  const postgres = await startPostgres(folder);
  const started: Started[] = [];
  const start = async (args: string[]): Promise<Started> => {
    const one = await startProcess(args);
    started.push(one);
    return one;
  };
  try {
    await ensureDatabase(postgres.url("postgres"), "bench");
    const store = openStore(postgres.url("bench"));
    await migrate(store);
    const origin = await start(["bench/front-origin.ts"]);
    await siteOf(store, origin.port);
    await store.close();
    const bare = await start(["bench/bare-proxy.ts", String(origin.port)]);
    const ours = await start([
      "tests/support/delivery-process.ts",
      postgres.url("bench"),
      join(folder, "data"),
      "origins-on-loopback",
    ]);
    const { body } = await asked(ours.port, "/p/1", new Agent());
    if (!/rel="[^"]*sponsored/.test(body)) throw new Error("the pages are not rewritten");
    tell("pages that come as they came", turns(folder, bare, ours, "/p/"), " (target: at least 0.60)");
    tell("pages of which each is another", turns(folder, bare, ours, "/new/"), "");
    const [theirs, own] = await firstBytes(bare.port, ours.port);
    console.log(
      `first byte at p50: ${own.toFixed(2)} ms against ${theirs.toFixed(2)} ms, ${(own / theirs).toFixed(2)} times (target: at most 1.20)`,
    );
    keptPages(folder, ours);
    await largePage(ours);
  } finally {
    for (const { child } of started) child.kill("SIGTERM");
    await new Promise((resolve) => setTimeout(resolve, 1_500));
    postgres.stop("immediate");
    rmSync(folder, { recursive: true, force: true });
    postgres.discard();
  }
}

function tell(what: string, rounds: { bare: Measured; ours: Measured }[], target: string): void {
  const middleOf = (of: (round: (typeof rounds)[number]) => number): number => median(rounds.map(of));
  const share = middleOf((round) => round.ours.perSecond / round.bare.perSecond);
  console.log(
    `${what}, rewritten by ${RULES} rules: ${Math.round(middleOf(({ ours: one }) => one.perSecond))} a second against ${Math.round(middleOf(({ bare: one }) => one.perSecond))} of the bare proxy, ${share.toFixed(2)} of it${target}; per round ${rounds.map((round) => (round.ours.perSecond / round.bare.perSecond).toFixed(2)).join(", ")}; errors ${rounds.reduce((sum, round) => sum + round.ours.errors, 0)}`,
  );
}

// Answers that are kept, beside a page of ours of the same size.
function keptPages(folder: string, { port }: Started): void {
  const kept = Array.from({ length: 20 }, (_, at) => `/kept/${at}`);
  const run = (paths: readonly string[]): Measured => load(folder, port, HOST, paths, SECONDS);
  run(kept);
  run(["/published"]);
  const rounds = Array.from({ length: ROUNDS }, (_, round) => {
    const first = round % 2 === 0;
    const a = run(first ? kept : ["/published"]);
    const b = run(first ? ["/published"] : kept);
    return first ? { kept: a, published: b } : { kept: b, published: a };
  });
  const share = median(rounds.map((round) => round.kept.perSecond / round.published.perSecond));
  const of = (who: "kept" | "published"): number =>
    Math.round(median(rounds.map((round) => round[who].perSecond)));
  console.log(
    `kept answers: ${of("kept")} a second against ${of("published")} of a published page, ${share.toFixed(2)} of it (target: at least 0.80)`,
  );
}

function turns(
  folder: string,
  bare: Started,
  ours: Started,
  start: string,
): { bare: Measured; ours: Measured }[] {
  const paths = Array.from({ length: 20 }, (_, at) => `${start}${at}`);
  const run = (port: number): Measured => load(folder, port, HOST, paths, SECONDS);
  run(bare.port);
  run(ours.port);
  return Array.from({ length: ROUNDS }, (_, round) => {
    // Who goes first changes, so that neither always runs on the warmer machine.
    const first = round % 2 === 0;
    const a = run(first ? bare.port : ours.port);
    const b = run(first ? ours.port : bare.port);
    return first ? { bare: a, ours: b } : { bare: b, ours: a };
  });
}

function asked(
  port: number,
  path: string,
  agent: Agent,
): Promise<{ body: string; firstMs: number; bytes: number }> {
  const began = performance.now();
  return new Promise((resolve, reject) => {
    let firstMs = 0;
    let bytes = 0;
    const chunks: Buffer[] = [];
    const sent = request({ host: "127.0.0.1", port, path, headers: { Host: HOST }, agent }, (answer) => {
      answer.on("data", (chunk: Buffer) => {
        firstMs ||= performance.now() - began;
        bytes += chunk.length;
        if (path !== "/large") chunks.push(chunk);
      });
      answer.on("end", () => resolve({ body: Buffer.concat(chunks).toString(), firstMs, bytes }));
      answer.on("error", reject);
    });
    sent.on("error", reject);
    sent.end();
  });
}

// Both in turns, so that what else the machine does falls on both.
async function firstBytes(bare: number, ours: number): Promise<[bare: number, ours: number]> {
  const agents = [bare, ours].map(() => new Agent({ keepAlive: true, maxSockets: 1 }));
  const took: [number[], number[]] = [[], []];
  for (let at = 0; at < FIRST_BYTES; at += 1)
    for (const [who, port] of [bare, ours].entries())
      took[who]!.push((await asked(port, `/p/${at % 20}`, agents[who]!)).firstMs);
  for (const agent of agents) agent.destroy();
  return [median(took[0]), median(took[1])];
}

async function largePage({ port, child }: Started): Promise<void> {
  const resident = (): number =>
    Number(/VmRSS:\s+(\d+) kB/.exec(readFileSync(`/proc/${child.pid}/status`, "utf8"))![1]) / 1_000;
  const before = resident();
  let most = before;
  const watching = setInterval(() => (most = Math.max(most, resident())), 20);
  const { bytes } = await asked(port, "/large", new Agent()).finally(() => clearInterval(watching));
  console.log(
    `a page of ${Math.round(bytes / 1e6)} MB: at most ${Math.round(most - before)} MB more than the ${Math.round(before)} before (target: at most 20)`,
  );
}

async function siteOf(store: Store, port: number): Promise<void> {
  await store.rows("INSERT INTO sites (key, name, origin) VALUES ('bench', 'Bench', $origin::jsonb)", {
    origin: JSON.stringify({
      address: `http://origin.example:${port}/`,
      comes: "front",
      passes: "on",
      only: [],
    }),
  });
  await store.rows("INSERT INTO hosts (site_id, name, role) VALUES (1, $host, 'primary')", { host: HOST });
  const words = "The heron stood on the sea wall while the water turned and nobody minded the fog. ";
  const html = Array.from(
    { length: 45 },
    (_, at) => `<p>${words.repeat(13)}<a href="https://shop${at % 20}.example/item/${at}">link ${at}</a></p>`,
  ).join("");
  await store.rows(
    `INSERT INTO pages (site_id, kind, path, key, title, body, html, published, published_key, published_version, published_at, version, updated_by, admitted)
     VALUES (1, 'page', '/published', '/published', 'Published', '{"type": "doc", "content": []}', $html,
       jsonb_build_object('path', '/published', 'title', 'Published', 'description', '', 'category', '', 'inNavigation', false, 'html', $html::text), '/published', 1, now(), 1, '', true)`,
    { html },
  );
  const rules = [
    {
      name: "Outside",
      enabled: true,
      match: { destination: "external" },
      set: { target: "new" },
      mode: "fill",
    },
    ...Array.from({ length: RULES - 1 }, (_, at) => ({
      name: `Shop ${at}`,
      enabled: true,
      match: { domains: [`shop${at}.example`] },
      set: { sponsored: "on", nofollow: "on" },
      mode: "overwrite",
    })),
  ];
  await store.rows(
    "INSERT INTO rule_sets (site_id, version, rules, created_by) VALUES (1, 1, $rules::jsonb, 'bench')",
    {
      rules: JSON.stringify(rules),
    },
  );
}
