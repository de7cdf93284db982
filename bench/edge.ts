import { spawn } from "node:child_process";
import {
  createReadStream,
  createWriteStream,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
} from "node:fs";
import { once } from "node:events";
import { request } from "node:http";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { createInterface } from "node:readline";
import { finished } from "node:stream/promises";
import { EdgeTable } from "../src/core/routes/edge/edge-table.ts";
import { createCollector } from "../src/delivery/clicks/collect/collector.ts";
import { createSpoolText } from "../src/delivery/clicks/collect/spool-text.ts";
import { createVisitorKeys } from "../src/delivery/clicks/visitor-key.ts";
import type { EdgeRoute } from "../src/core/routes/edge/edge-route.ts";
import { writeEdge, type EdgeFolder, type WrittenEdge } from "../src/delivery/routes/edge/edge-folder.ts";
import { NO_PROXY } from "../src/incoming/proxy-trust.ts";
import { freePort } from "../scripts/postgres.mjs";
import { startProcess } from "./started.ts";
import { load, type Measured } from "./wrk.ts";
import { median } from "./median.ts";

const ROUTES = 1_000_000;
const ROUNDS = 7;
const SECONDS = 3;
const LINES = 1_000_000;
const HOST = "bench.example";

/**
 * nginx with our configuration of a million routes and with its log, beside the same without log and the bare server, in turns;
 * what writing that configuration takes; and how many lines a second are collected (`edge collecting`: that alone).
 */
export async function edge(only?: string): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), "maprope-bench-"));
  const ends: (() => void)[] = [];
  try {
    if (only === "collecting") return await collecting(folder);
    const table = tableOf(ROUTES);
    const log = join(folder, "clicks.log");
    const logged = await edgeServer(table, folder, "logged", log, ends);
    const silent = await edgeServer(table, folder, "silent", undefined, ends);
    const bare = await startProcess(["bench/bare-server.ts"]);
    ends.push(() => void bare.child.kill("SIGTERM"));
    const paths = Array.from({ length: 1000 }, (_, n) => `/r${Math.floor((n * ROUTES) / 1000)}`);
    const run = (port: number): Measured => {
      const measured = load(folder, port, HOST, paths, SECONDS);
      truncateSync(log);
      return measured;
    };
    for (const port of [logged, silent, bare.port]) run(port);
    const rounds = Array.from({ length: ROUNDS }, (_, round) => {
      // Who goes first changes, so that none always runs on the warmer machine.
      const ports = { logged, silent, bare: bare.port };
      const order = Object.entries(ports);
      const turned = [...order.slice(round % 3), ...order.slice(0, round % 3)];
      return Object.fromEntries(turned.map(([who, port]) => [who, run(port)])) as Record<
        keyof typeof ports,
        Measured
      >;
    });
    const of = (who: "logged" | "silent" | "bare"): number =>
      median(rounds.map((round) => round[who].perSecond));
    const share = median(rounds.map((round) => round.logged.perSecond / round.silent.perSecond));
    console.log(
      `an edge with ${ROUTES.toLocaleString("en")} routes: ${Math.round(of("logged"))} redirects a second with its log, ${Math.round(of("silent"))} without (${share.toFixed(2)} of it; target: at least 0.90), ${Math.round(of("bare"))} of the bare Node server; errors ${rounds.reduce((sum, round) => sum + round.logged.errors, 0)}`,
    );
    await collecting(folder);
  } finally {
    for (const end of ends) end();
    await new Promise((resolve) => setTimeout(resolve, 1_500));
    rmSync(folder, { recursive: true, force: true });
  }
}

function tableOf(routes: number): EdgeTable {
  const table = new EdgeTable(4601);
  table.putSite({ id: "1", primary: HOST, hosts: [HOST], former: [] });
  for (let n = 0; n < routes; n += 1)
    table.putRoute(String(n + 1), routeOf(n, `https://shop.example/item/${n}?partner=LL-2291`));
  return table;
}

function routeOf(n: number, destination: string): EdgeRoute {
  return {
    id: String(n + 1),
    siteId: "1",
    host: HOST,
    keys: [`/r${n}`],
    caseInsensitive: true,
    destination,
    status: 302,
    counted: true,
    more: null,
  };
}

async function edgeServer(
  table: EdgeTable,
  folder: string,
  name: string,
  log: string | undefined,
  ends: (() => void)[],
): Promise<number> {
  const port = await freePort();
  const own = join(folder, name);
  mkdirSync(own);
  const began = performance.now();
  const settings = {
    folder: own,
    nginx: "/usr/sbin/nginx",
    upstream: "http://127.0.0.1:9",
    listen: [`127.0.0.1:${port}`],
    includes: [],
    log: log ?? join(own, "none.log"),
  };
  const last = await writeEdge(table, settings);
  const first = performance.now();
  const conf = join(own, "current/maprope.conf");
  if (log === undefined)
    writeFileSync(conf, readFileSync(conf, "utf8").replace(/access_log .*;/, "access_log off;"));
  writeFileSync(
    join(own, "nginx.conf"),
    `user root; daemon off; worker_processes 1; pid ${own}/pid; error_log ${own}/error.log;
events { worker_connections 1024; }
http { access_log off; client_body_temp_path ${own}/b; proxy_temp_path ${own}/p; fastcgi_temp_path ${own}/f; uwsgi_temp_path ${own}/u; scgi_temp_path ${own}/s; include ${conf}; }
`,
  );
  const child = spawn("/usr/sbin/nginx", ["-p", own, "-c", join(own, "nginx.conf")], { stdio: "inherit" });
  ends.push(() => void child.kill("SIGTERM"));
  await answering(port);
  if (log !== undefined) {
    console.log(
      `its configuration: written and checked in ${((first - began) / 1000).toFixed(1)} s, read by nginx in ${((performance.now() - first) / 1000).toFixed(1)} s`,
    );
    await change(table, settings, last, port, Number(readFileSync(join(own, "pid"), "utf8")));
  }
  return port;
}

// A route is another: until nginx answers so.
async function change(
  table: EdgeTable,
  settings: EdgeFolder,
  last: WrittenEdge,
  port: number,
  nginx: number,
): Promise<void> {
  const began = performance.now();
  table.putRoute("2", routeOf(1, "https://elsewhere.example/"));
  await writeEdge(table, settings, last);
  const written = performance.now();
  process.kill(nginx, "SIGHUP");
  await answering(port, "https://elsewhere.example/");
  const ended = performance.now();
  console.log(
    `a change of one route: written and checked in ${((written - began) / 1000).toFixed(1)} s, answered by nginx after ${((ended - began) / 1000).toFixed(1)} s (target: 5)`,
  );
}

async function answering(port: number, to = "https://"): Promise<void> {
  for (let tries = 0; tries < 1_200; tries += 1) {
    if ((await locationOf(port)).startsWith(to)) return;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error("nginx does not answer");
}

// Each time over a connection of its own: one that is kept is answered by whom it was made to.
function locationOf(port: number): Promise<string> {
  return new Promise((resolve) => {
    const asked = request({ host: "127.0.0.1", port, path: "/r1", headers: { Host: HOST }, agent: false });
    asked.on("response", (answer) => {
      answer.resume();
      resolve(answer.headers.location ?? "");
    });
    asked.on("error", () => resolve(""));
    asked.end();
  });
}

async function collecting(folder: string): Promise<void> {
  const log = join(folder, "collected.log");
  const lines = createWriteStream(log);
  for (let n = 0; n < LINES; n += 1) {
    const agent = `Mozilla/5.0 (X11; Linux x86_64; rv:${100 + (n % 40)}.0) Gecko/20100101 Firefox/${100 + (n % 40)}.0`;
    const line = `mr1\t${Math.floor(Date.now() / 1000)}.${String(n % 1000).padStart(3, "0")}\t1\t${(n % ROUTES) + 1}\tGET\t10.${(n >> 8) % 200}.${n % 250}.7\t\t\t\t\thttps://www.bench.example/p/${n % 3000}\t${agent}\n`;
    if (!lines.write(line)) await once(lines, "drain");
  }
  lines.end();
  await finished(lines);
  const visitors = createVisitorKeys("a secret of the bench", async (_now, fresh) => fresh, {
    read: () => undefined,
    write: () => undefined,
  });
  const spool = join(folder, "spool");
  const collector = createCollector({
    log,
    spool,
    state: join(folder, "collected.json"),
    pidFile: join(folder, "nobody"),
    toSpool: createSpoolText({
      visitors,
      hostsOf: () => [HOST, `www.${HOST}`],
      plainAddress: (address) => NO_PROXY.address(address, ""),
    }),
    report: (message) => console.error(message),
  });
  const bytes = statSync(log).size;
  const began = performance.now();
  const { collected } = await collector.turn(Date.now());
  const seconds = (performance.now() - began) / 1000;
  visitors.stop();
  let there = 0;
  for (const name of readdirSync(spool))
    for await (const _line of createInterface(createReadStream(join(spool, name)))) there += 1;
  if (there !== LINES || collected !== LINES)
    throw new Error(`${collected} were collected, ${there} are there`);
  console.log(
    `collecting: ${Math.round(LINES / seconds).toLocaleString("en")} lines a second, ${(bytes / seconds / 1e6).toFixed(0)} MB (target: at least 100,000)`,
  );
}
