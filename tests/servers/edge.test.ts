import assert from "node:assert/strict";
import { spawn, type ChildProcess } from "node:child_process";
import {
  appendFileSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
  statSync,
} from "node:fs";
import { Agent } from "node:http";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { after, before, describe, test } from "node:test";
import { setTimeout as rest } from "node:timers/promises";
import { freePort } from "../../scripts/postgres.mjs";
import { writeEdge, type EdgeFolder } from "../../src/delivery/routes/edge/edge-folder.ts";
import { followEdge, type FollowedEdge } from "../../src/delivery/routes/edge/follow-edge.ts";
import { NGINX_MAPS, nginxMapOf } from "../../src/core/routes/edge/nginx-maps.ts";
import { asked, Random } from "../oracles/random.ts";
import { ask, PERSON, ROBOT, until } from "../support/ask.ts";
import { testDelivery, type TestDelivery } from "../support/delivery.ts";
import { testDesk, type TestDesk } from "../support/desk.ts";
import { operator } from "../support/operator.ts";
import { HOSTS, randomPath, randomRoute, requestFor, swapCase, WAYS } from "../support/random-routes.ts";
import { startEdgeServer, type EdgeServer } from "../support/web-servers.ts";

const SECRET = "a secret of the tests that is long enough";

let garden: TestDesk;
let delivery: TestDelivery;
let edge: FollowedEdge;
let server: EdgeServer;
let settings: EdgeFolder;
let folder: string;
const paths: string[] = [];
const ids: Record<string, string> = {};

before(async () => {
  garden = await testDesk();
  folder = mkdtempSync(join(tmpdir(), "maprope-edge-test-"));
  const random = new Random(7);
  const make = async (route: { address: string; match?: string }): Promise<boolean> => {
    const { status, body } = await garden.call("POST", "/sites/garden/routes", route);
    assert.ok(status === 201 || status === 422, JSON.stringify(body));
    if (status !== 201) return false;
    ids[route.address] = body.id;
    paths.push(requestFor(random, route.address, route.match ?? "exact"));
    return true;
  };
  await garden.call("POST", "/sites/garden/pages", {
    path: "/blog/index.html",
    title: "P",
    html: "<p>x</p>",
    publish: true,
  });
  await garden.call("POST", "/sites/garden/hosts", {
    name: "old.garden.example",
    role: "former",
    leadsTo: "garden.example",
  });
  const plain = { kind: "redirect", destination: "https://shop.example/a" };
  for (const route of [
    { ...plain, address: "/counted" },
    { ...plain, address: "/else", status: 307 },
    { ...plain, address: "/uncounted", counted: false },
    { ...plain, address: "/timed", validUntil: "2099-01-01T00:00:00Z" },
    { ...plain, address: "/over", validUntil: "2020-01-01T00:00:00Z" },
    { ...plain, address: "/piped", destination: "https://shop.example/a|b", query: "forward" },
    { kind: "short", address: "/Short", destination: "https://shop.example/s?x=1#y", query: "forward" },
    { kind: "short", address: "/both", destination: "/counted", host: null },
    {
      kind: "redirect",
      address: "/noted",
      status: 200,
      destination: "https://shop.example/n",
      notice: { text: "Now.", seconds: 5 },
    },
  ])
    assert.ok(await make(route), route.address);
  for (let made = 0, tries = 0; made < asked(90, 300) && tries < 900; tries += 1)
    if (await make(randomRoute(random))) made += 1;
  delivery = await testDelivery(garden.url);
  const port = await freePort();
  settings = {
    folder,
    nginx: "/usr/sbin/nginx",
    upstream: `http://127.0.0.1:${delivery.port}`,
    listen: [`127.0.0.1:${port}`],
    includes: [],
    log: join(folder, "clicks.log"),
  };
  edge = await followEdge(garden.store, 4601);
  await writeEdge(edge.table, settings);
  server = await startEdgeServer(join(folder, "current/maprope.conf"), port);
});
after(async () => {
  await server.stop();
  await delivery.end();
  await garden.close();
  rmSync(folder, { recursive: true, force: true });
  assert.deepEqual(garden.failures, []);
});

async function answerOf(port: number, path: string, host: string, method: string): Promise<string> {
  const { status, headers } = await ask(port, path, { host, method });
  return [status, headers.location ?? "", headers["cache-control"] ?? "", headers["x-robots-tag"] ?? ""].join(
    " ",
  );
}

test("an edge answers what we answer, whatever is asked", async () => {
  const random = new Random(11);
  const different: string[] = [];
  let answered = 0;
  for (let request = 0; request < asked(600, 3_000); request += 1) {
    const host = random.one([...HOSTS, ...HOSTS, "old.garden.example", "GARDEN.example."]);
    const base = random.below(5) === 0 ? randomPath(random) : random.one(paths);
    const path =
      (random.below(8) === 0 ? swapCase(base) : base) +
      random.one([...WAYS, "?q=a|b", "?q=%zz", '?q="', "/../counted", "/%2e"]);
    const method = random.one(["GET", "GET", "GET", "HEAD", "POST"]);
    const [ours, theirs] = await Promise.all([
      answerOf(delivery.port, path, host, method),
      answerOf(server.port, path, host, method),
    ]);
    if (ours !== theirs) different.push(`${method} ${host}${path}: ours ${ours}, the edge's ${theirs}`);
    else if (ours.startsWith("30")) answered += 1;
  }
  assert.deepEqual(different, []);
  assert.ok(answered > 120, `${answered} redirects were compared`);
});

test("what it leaves to us is told by why, and its clicks are written down without a trace of what was not counted", async () => {
  const { site } = garden;
  const counts = (await writeEdge(edge.table, settings)).counts[site.id]!;
  assert.ok(counts.routes > 20, JSON.stringify(counts));
  for (const why of ["pattern", "page", "time", "query"] as const)
    assert.ok(counts.left[why]! > 0, `${why}: ${JSON.stringify(counts.left)}`);
  const before = readFileSync(settings.log, "utf8").split("\n").length;
  for (const path of ["/counted", "/uncounted", "/timed", "/nothing-here", "/blog/index.html"])
    await ask(server.port, path);
  const lines = readFileSync(settings.log, "utf8").split("\n");
  assert.equal(lines.length, before + 1);
  assert.match(
    lines.at(-2)!,
    new RegExp(`^mr1\t\\d+\\.\\d{3}\t${site.id}\t${ids["/counted"]}\tGET\t127\\.0\\.0\\.1\t`),
  );
});

test("a change is there as soon as it was written; what nginx does not take is never in force", async () => {
  const made = await garden.call("POST", "/sites/garden/routes", {
    kind: "redirect",
    address: "/fresh",
    destination: "https://shop.example/f",
  });
  assert.equal(await edge.catchUp(), true);
  const last = await writeEdge(edge.table, settings);
  process.kill(Number(readFileSync(server.pidFile, "utf8")), "SIGHUP");
  await delivery.level();
  const isByEdge = async (): Promise<boolean> => {
    const { status, bytes } = await ask(server.port, "/fresh", { headers: { Connection: "close" } });
    assert.equal(status, 301);
    // Its redirects have a few words of their own, ours have none.
    return bytes.length > 0;
  };
  await until("nginx answers it itself", isByEdge);
  const off = { version: 1, enabled: false };
  assert.equal((await garden.call("PATCH", `/sites/garden/routes/${made.body.id}`, off)).status, 200);
  assert.equal(await edge.catchUp(), true);
  const inForce = readFileSync(join(folder, "current/maprope.conf"), "utf8");
  await assert.rejects(
    writeEdge(edge.table, { ...settings, includes: [join(folder, "nothing.conf")] }),
    /does not take.*nothing\.conf/,
  );
  assert.equal(readFileSync(join(folder, "current/maprope.conf"), "utf8"), inForce);
  assert.ok(readdirSync(join(folder, "versions")).length <= 3);
  // What could not be written then is written now, and nothing else is.
  const patched = await writeEdge(edge.table, settings, last);
  const isSame = (name: string): boolean =>
    statSync(join(last.version, `${name}.map`)).ino === statSync(join(patched.version, `${name}.map`)).ino;
  assert.deepEqual(
    NGINX_MAPS.filter((name) => !isSame(name)),
    [nginxMapOf(null, "/fresh"), nginxMapOf("garden.example", "/fresh")].filter((name) => !isSame(name)),
  );
  for (const name of NGINX_MAPS) {
    const [read, stands] = [`check/${name}.map`, `${name}.map`].map((file) =>
      readFileSync(join(patched.version, file), "utf8"),
    );
    assert.equal(read, isSame(name) ? "" : stands, `nginx reads just what is another: ${name}`);
  }
  const whole = await writeEdge(edge.table, settings);
  assert.deepEqual([patched.counts, patched.entries], [whole.counts, whole.entries]);
  for (const name of NGINX_MAPS) {
    const [one, other] = [patched, whole].map(({ version }) =>
      readFileSync(join(version, `${name}.map`), "utf8"),
    );
    assert.equal(one, other, name);
  }
  assert.doesNotMatch(readFileSync(join(whole.version, "site_15.map"), "utf8"), /"\d+\/fresh"/);
  assert.equal(await edge.catchUp(), false);
  await garden.call("POST", "/sites/garden/hosts", { name: "more.example", role: "other" });
  assert.equal(await edge.catchUp(), true, "other hosts are other answers");
});

describe("collecting", () => {
  const clicksOf = async (address: string, by: string): Promise<number> => {
    const [row] = await garden.store.rows<{ n: number }>(
      `SELECT count(*)::int AS n FROM clicks WHERE route_id = $id::bigint AND class = $by`,
      { id: ids[address]!, by },
    );
    return row!.n;
  };
  const env = (): Record<string, string> => ({
    DATABASE_URL: garden.url,
    MAPROPE_SECRET: SECRET,
    MAPROPE_DATA: join(folder, "data"),
  });
  const args = (): string[] => ["collect", settings.log, "--name", "quay", "--pid", server.pidFile];
  const once = async (): Promise<void> => {
    const said = await operator(folder, env(), "collect", ...args().slice(1), "--once");
    assert.deepEqual([said.status, said.error], [0, ""], said.out);
  };

  test("brings each click in as we would have counted it", async () => {
    const from = "http://garden.example/blog/index.html?x";
    for (let turn = 0; turn < 5; turn += 1) await ask(server.port, "/else", { headers: { Referer: from } });
    await ask(server.port, "/else", { headers: { "User-Agent": ROBOT } });
    await ask(server.port, "/else", { headers: { "User-Agent": `odd "quoted" \\ \t é` } });
    await ask(server.port, "/else", { headers: { "Sec-Purpose": "prefetch" } });
    await ask(server.port, "/else", { method: "HEAD" });
    await once();
    const rows = await garden.store.rows<{
      class: string;
      referrer: string;
      page: string;
      visitors: number;
      n: number;
    }>(
      `SELECT class, referrer, page, count(DISTINCT visitor)::int AS visitors, count(*)::int AS n FROM clicks
       WHERE route_id = $id::bigint AND (referrer <> '' OR class <> 'person') GROUP BY 1, 2, 3 ORDER BY 1, 2`,
      { id: ids["/else"]! },
    );
    const had = rows.map(({ class: by, referrer, page, n }) => `${by} ${referrer} ${page} ${n}`);
    assert.ok(had.includes("person garden.example /blog/index.html 5"), had.join("\n"));
    for (const by of ["bot", "head", "prefetch"])
      assert.ok(
        had.some((one) => one.startsWith(`${by} `)),
        `${by}: ${had.join("\n")}`,
      );
    const before = await clicksOf("/else", "person");
    await once();
    assert.equal(await clicksOf("/else", "person"), before, "nothing is counted twice");
  });

  test("a line of another format is told, one that is cut waits for its end, and what was emptied is read anew", async () => {
    const now = (Date.now() / 1000).toFixed(3);
    const line = [
      "mr1",
      now,
      garden.site.id,
      ids["/else"],
      "GET",
      "192.0.2.9",
      "",
      "",
      "",
      "",
      "",
      PERSON,
    ].join("\t");
    const before = await clicksOf("/else", "person");
    appendFileSync(settings.log, `127.0.0.1 - - "GET / HTTP/1.1" 200\n${line}\n${line.slice(0, 60)}`);
    const said = await operator(folder, env(), "collect", ...args().slice(1), "--once");
    assert.match(said.out, /1 lines of .* could not be read/);
    assert.equal(await clicksOf("/else", "person"), before + 1);
    appendFileSync(settings.log, `${line.slice(60)}\n`);
    await once();
    assert.equal(await clicksOf("/else", "person"), before + 2);
    writeFileSync(settings.log, "");
    await once();
    appendFileSync(settings.log, `${line}\n`);
    await once();
    assert.equal(await clicksOf("/else", "person"), before + 3);
  });

  test("while edge and collector are killed, reloaded and rotated under load, each answer is counted once", async () => {
    const began = { person: await clicksOf("/counted", "person"), done: false };
    let received = 0;
    let failed = 0;
    const reader = async (): Promise<void> => {
      const agent = new Agent({ keepAlive: true });
      while (!began.done) {
        const answer = await ask(server.port, "/counted", { agent }).catch(() => undefined);
        if (answer?.status === 301) received += 1;
        else failed += 1;
      }
      agent.destroy();
    };
    const readers = Array.from({ length: 6 }, reader);
    let collector: ChildProcess | undefined;
    const begin = (): void => {
      collector = spawn(process.execPath, ["bin/maprope.mjs", ...args()], {
        env: { ...process.env, ...env() },
        stdio: "ignore",
      });
    };
    for (let round = 0; round < 3; round += 1) {
      begin();
      await rest(2_500);
      process.kill(Number(readFileSync(server.pidFile, "utf8")), "SIGHUP");
      await rest(300);
      if (round === 1) server.killWorkers();
      // As whoever rotates logs on that machine does.
      renameSync(settings.log, `${settings.log}.${round + 1}`);
      process.kill(Number(readFileSync(server.pidFile, "utf8")), "SIGUSR1");
      await rest(400);
      collector!.kill("SIGKILL");
      await new Promise((resolve) => collector!.once("exit", resolve));
    }
    began.done = true;
    await Promise.all(readers);
    await once();
    const counted = (await clicksOf("/counted", "person")) - began.person;
    assert.ok(received > 500, `${received} were received`);
    assert.ok(
      counted >= received && counted <= received + failed,
      `${received} received, ${failed} failed, ${counted} counted`,
    );
    const { body } = await garden.call("GET", "/sites/garden/edges");
    assert.deepEqual(
      body.items.map(({ name }: { name: string }) => name),
      ["quay"],
    );
    assert.ok(body.items[0].collected >= counted);
  });

  test("without the secret of the installation, or without what it needs, it says so", async () => {
    const { MAPROPE_SECRET: _secret, ...bare } = env();
    const said = await operator(
      folder,
      { ...bare, MAPROPE_DATA: join(folder, "else") },
      "collect",
      ...args().slice(1),
      "--once",
    );
    assert.deepEqual([said.status, /no secret here/.test(said.error)], [1, true], said.error);
    for (const wrong of [
      ["collect"],
      ["collect", "x"],
      ["collect", "x", "--name", "A B"],
      ["edge", "nginx"],
      ["edge", "nginx", "x", "--name", "y", "--upstream", "ftp://x"],
    ])
      assert.equal((await operator(folder, env(), wrong[0]!, ...wrong.slice(1))).status, 2, wrong.join(" "));
  });
});

test("the command writes an edge's folder, tells who asks how it is, and forgets it", async () => {
  const env = { DATABASE_URL: garden.url, MAPROPE_SECRET: SECRET, MAPROPE_DATA: join(folder, "data") };
  const said = await operator(
    folder,
    env,
    "edge",
    "nginx",
    join(folder, "second"),
    "--name",
    "pier",
    "--upstream",
    settings.upstream,
    "--nginx",
    "/usr/sbin/nginx",
    "--pid",
    join(folder, "none"),
    "--once",
  );
  assert.equal(said.status, 0, said.error);
  assert.match(said.out, /^\d+ routes are answered by pier; nginx is not running/);
  assert.match((await operator(folder, env, "edge", "list")).out, /^pier {2}\d+ routes, written 2/m);
  const { body } = await garden.call("GET", "/sites/garden/edges");
  const pier = body.items.find(({ name }: { name: string }) => name === "pier");
  assert.ok(
    pier.routes > 20 &&
      pier.left.some(({ why, routes }: { why: string; routes: number }) => why === "time" && routes > 0),
  );
  assert.equal(pier.isBehind, false);
  const live = join(folder, "live");
  const words = ["bin/maprope.mjs", "edge", "nginx", live, "--name", "pier", "--upstream", settings.upstream];
  const more = ["--nginx", "/usr/sbin/nginx", "--pid", join(folder, "none")];
  const child = spawn(process.execPath, [...words, ...more], {
    env: { ...process.env, ...env },
    stdio: "ignore",
  });
  const map = (): string => {
    try {
      return NGINX_MAPS.map((name) => readFileSync(join(live, "current", `${name}.map`), "utf8")).join("");
    } catch {
      return ""; // it is not written yet
    }
  };
  await until("it is written", () => map() !== "");
  const soon = { kind: "redirect", address: "/soon", destination: "https://shop.example/soon" };
  assert.equal((await garden.call("POST", "/sites/garden/routes", soon)).status, 201);
  await until("a change is written", () => map().includes("https://shop.example/soon"));
  child.kill("SIGTERM");
  const code = await new Promise((resolve) => child.once("exit", resolve));
  assert.equal(code, 0);
  assert.equal((await operator(folder, env, "edge", "forget", "pier")).status, 0);
  assert.equal((await operator(folder, env, "edge", "forget", "pier")).status, 1);
});
