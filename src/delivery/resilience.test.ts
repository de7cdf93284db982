import assert from "node:assert/strict";
import { spawn, spawnSync, type ChildProcess } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { Agent } from "node:http";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { after, before, describe, test } from "node:test";
import { startPostgres, type OwnPostgres } from "../../scripts/postgres.mjs";
import { ask, until } from "../../tests/support/ask.ts";
import { testDelivery } from "../../tests/support/delivery.ts";
import { testDesk, type TestDesk } from "../../tests/support/desk.ts";
import { noteChange } from "../store/changes.ts";
import { ensureDatabase } from "../store/ensure-database.ts";
import { migrate } from "../store/migrate.ts";
import { openStore } from "../store/store.ts";
import { createSpoolCopier } from "./spool-copier.ts";
import { closed } from "../listening.ts";
import { openSpool } from "./spool.ts";

const ROUTE = { kind: "redirect", address: "/old", destination: "https://shop.example/" };

interface OtherProcess {
  child: ChildProcess;
  port: number;
}

// A second process, as a second server would be: only the database is shared.
async function startProcess(databaseUrl: string, folder: string): Promise<OtherProcess> {
  const child = spawn(
    process.execPath,
    ["--import", "tsx", "tests/support/delivery-process.ts", databaseUrl, folder],
    { stdio: ["ignore", "pipe", "inherit"] },
  );
  const port = await new Promise<number>((resolve, reject) => {
    let text = "";
    child.stdout!.on("data", (chunk) => {
      text += chunk;
      const ready = /ready on (\d+)/.exec(text);
      if (ready) resolve(Number(ready[1]));
    });
    child.once("exit", (code) => reject(new Error(`the process ended with ${code} before it was ready`)));
  });
  return { child, port };
}

async function ended({ child }: OtherProcess, signal: NodeJS.Signals): Promise<void> {
  const exit = new Promise((resolve) => child.once("exit", resolve));
  child.kill(signal);
  await exit;
}

const countClicks = async (store: TestDesk["store"]): Promise<number> =>
  Number((await store.rows<{ n: string }>("SELECT count(*)::text AS n FROM clicks"))[0]!.n);

describe("several processes on one database", () => {
  let garden: TestDesk;
  let folder: string;
  before(async () => {
    garden = await testDesk();
    folder = mkdtempSync(join(tmpdir(), "maprope-two-"));
  });
  after(async () => {
    await garden.close();
    rmSync(folder, { recursive: true, force: true });
  });

  test("a change made through one is answered by the others", async () => {
    const [one, other] = await Promise.all([
      startProcess(garden.url, join(folder, "a")),
      startProcess(garden.url, join(folder, "b")),
    ]);
    try {
      await garden.call("POST", "/sites/garden/routes", ROUTE);
      for (const { port } of [one, other])
        await until("both answer the new route", async () => (await ask(port, "/old")).status === 301);
      await until("the clicks of both arrive", async () => (await countClicks(garden.store)) >= 2);
      // Many at once: imported through a third, switched off together, and put back.
      const many = ["address,destination", ...Array.from({ length: 7000 }, (_, n) => `/many/${n},/to/${n}`)];
      await garden.call("POST", "/sites/garden/routes/import", undefined, {
        raw: many.join("\n"),
        headers: { "Content-Type": "text/csv" },
      });
      const last = (port: number) => ask(port, "/many/6999").then(({ status }) => status);
      for (const { port } of [one, other])
        await until("both answer the last of them", async () => (await last(port)) === 301);
      const off = { filter: { q: "/many/" }, action: { do: "switch", on: false } };
      const { body } = await garden.call("POST", "/sites/garden/routes/bulk", off);
      assert.equal(body.changed, 7000);
      for (const { port } of [one, other])
        await until("both have let go of them", async () => (await last(port)) === 404);
      await garden.call("POST", `/sites/garden/routes/bulk/${body.batch}/undo`);
      for (const { port } of [one, other])
        await until("both answer them again", async () => (await last(port)) === 301);
    } finally {
      await Promise.all([ended(one, "SIGTERM"), ended(other, "SIGTERM")]);
    }
  });

  test("killed under load, a process loses no click whose response was sent", async () => {
    const before = await countClicks(garden.store);
    const killed = await startProcess(garden.url, join(folder, "c"));
    const agent = new Agent({ keepAlive: true, maxSockets: 32 });
    let sent = 0;
    let answered = 0;
    let running = true;
    const client = async (): Promise<void> => {
      while (running && sent < 20_000) {
        sent += 1;
        const status = await ask(killed.port, "/old", { agent }).then(
          ({ status: seen }) => seen,
          () => 0,
        );
        if (status === 301) answered += 1;
      }
    };
    const clients = Array.from({ length: 32 }, client);
    await until("there is load", () => answered > 1500);
    await ended(killed, "SIGKILL");
    running = false;
    await Promise.all(clients);
    agent.destroy();

    // Two copiers at once, as two surviving processes would: each line still arrives once.
    const copiers = [1, 2].map(() => createSpoolCopier(garden.store, join(folder, "c", "spool")));
    for (let round = 0; round < 3; round += 1) await Promise.all(copiers.map((copier) => copier.copy()));
    const arrived = (await countClicks(garden.store)) - before;
    assert.ok(arrived >= answered, `${answered} were answered, ${arrived} arrived`);
    assert.ok(arrived <= sent, `${sent} were sent, ${arrived} arrived`);
    await createSpoolCopier(garden.store, join(folder, "c", "spool")).copy();
    assert.equal((await countClicks(garden.store)) - before, arrived, "copying again adds nothing");
    assert.deepEqual(readdirSync(join(folder, "c", "spool")), [], "what was copied whole is cleared away");
  });
});

describe("the database gone, and back", () => {
  let postgres: OwnPostgres;
  let folder: string;
  before(async () => {
    folder = mkdtempSync(join(tmpdir(), "maprope-gone-"));
    postgres = await startPostgres(folder, { fsync: "off" });
    await ensureDatabase(postgres.url("postgres"), "garden");
    const store = openStore(postgres.url("garden"));
    await migrate(store.sequelize);
    await store.close();
  });
  after(() => {
    postgres.stop();
    rmSync(folder, { recursive: true, force: true });
    postgres.discard();
  });

  test("redirects and cached pages go on, clicks wait, and arrive once; changes are caught up", async () => {
    const store = openStore(postgres.url("garden"), 3);
    await store.rows("INSERT INTO sites (key, name) VALUES ('garden', 'Garden')");
    await store.rows("INSERT INTO hosts (site_id, name, role) VALUES (1, 'garden.example', 'primary')");
    await store.rows(
      "INSERT INTO routes (site_id, kind, address, destination, status) VALUES (1, 'redirect', '/old', 'https://shop.example/', 301)",
    );
    await store.rows("INSERT INTO route_addresses (site_id, host, key, route_id) VALUES (1, '*', '/old', 1)");
    const page = {
      path: "/",
      title: "Front",
      description: "",
      category: "",
      inNavigation: false,
      html: "<p>Welcome</p>",
    };
    await store.rows(
      "INSERT INTO pages (site_id, path, key, title, body, html, published, published_key, published_version) VALUES (1, '/', '/', 'Front', '{}', '', $page::jsonb, '/', 1)",
      { page: JSON.stringify(page) },
    );
    const delivery = await testDelivery(postgres.url("garden"));
    const health = async () =>
      JSON.parse((await ask(delivery.port, "/healthz")).body) as {
        status: string;
        database: string;
        pendingClicks: number;
      };
    try {
      assert.match((await ask(delivery.port, "/")).body, /Welcome/);
      assert.equal((await health()).status, "ok");

      postgres.stop("immediate");
      await until("health says so", async () => (await health()).status === "degraded");
      for (let n = 0; n < 25; n += 1) assert.equal((await ask(delivery.port, "/old")).status, 301);
      assert.match((await ask(delivery.port, "/")).body, /Welcome/);
      assert.deepEqual([(await health()).database, (await health()).pendingClicks], ["down", 25]);

      postgres.restart();
      await until("the database is back", () =>
        store.rows("SELECT 1 AS one").then(
          () => true,
          () => false,
        ),
      );
      await store.rows("UPDATE routes SET destination = 'https://shop.example/new' WHERE id = 1");
      await store.transaction((transaction) =>
        noteChange(store, transaction, { siteId: "1", kind: "route", objectId: "1" }),
      );
      await until(
        "the change is caught up",
        async () =>
          (await ask(delivery.port, "/old", { method: "HEAD" })).headers.location ===
          "https://shop.example/new",
      );
      await until("every click has arrived", async () => {
        const rows = await store.rows<{ n: string }>(
          "SELECT count(*)::text AS n FROM clicks WHERE class = 'person'",
        );
        return rows[0]!.n === "25" && (await health()).pendingClicks === 0;
      });
      assert.equal((await health()).status, "ok");
    } finally {
      await delivery.end();
      await store.close();
    }
  });
});

describe("a spool that cannot be written", () => {
  test("redirects go on, and the loss is counted and told", async () => {
    const garden = await testDesk();
    await garden.call("POST", "/sites/garden/routes", ROUTE);
    const delivery = await testDelivery(garden.url);
    try {
      await delivery.stop();
      rmSync(join(delivery.folder, "spool"), { recursive: true });
      writeFileSync(join(delivery.folder, "spool"), "no folder any more");
      for (let n = 0; n < 3; n += 1) assert.equal((await ask(delivery.port, "/old")).status, 301);
      const health = JSON.parse((await ask(delivery.port, "/healthz")).body);
      assert.deepEqual([health.status, health.lostClicks], ["degraded", 3]);
      rmSync(join(delivery.folder, "spool"));
    } finally {
      await closed(delivery.server);
      await garden.close();
    }
  });

  test("a disk that is really full: the whole lines that fitted are kept, the rest is counted as lost", (context) => {
    const folder = mkdtempSync(join(tmpdir(), "maprope-tmpfs-"));
    const mounted = spawnSync("mount", ["-t", "tmpfs", "-o", "size=64k", "tmpfs", folder]);
    if (mounted.status !== 0) return context.skip("only root may make a small disk");
    try {
      const spool = openSpool(folder);
      const line = `c\t${Date.now()}\t1\tperson\tdesktop\tv\t\t\n`;
      for (let n = 0; n < 100; n += 1) spool.append(line.repeat(40), 40);
      assert.ok(spool.lost > 0 && spool.written > 0);
      assert.equal(spool.lost + spool.written, 4_000);
      spool.close();
      const [name] = readdirSync(folder);
      const lines = readFileSync(join(folder, name!), "utf8").split("\n");
      const whole = lines.filter((one) => `${one}\n` === line).length;
      assert.ok(whole >= spool.written, "what was told as written is there");
    } finally {
      spawnSync("umount", [folder]);
      rmSync(folder, { recursive: true, force: true });
    }
  });

  test("lost records are counted, and writing goes on when the disk does", () => {
    const folder = mkdtempSync(join(tmpdir(), "maprope-full-"));
    const spool = openSpool(folder);
    rmSync(folder, { recursive: true });
    assert.equal(spool.append("a\nb\n", 2), false);
    assert.deepEqual([spool.lost, spool.written], [2, 0]);
    openSpool(folder).close();
    assert.equal(spool.append("c\n", 1), true);
    assert.deepEqual([spool.lost, spool.written], [2, 1]);
    spool.close();
    assert.equal(readdirSync(folder).filter((name) => name.endsWith(".sealed")).length, 1);
    rmSync(folder, { recursive: true });
  });
});

describe("a spool segment that was torn", () => {
  test("whole lines are copied, the torn one is counted and left", async () => {
    const garden = await testDesk();
    const folder = mkdtempSync(join(tmpdir(), "maprope-torn-"));
    try {
      const line = `c\t${Date.now()}\t1\tperson\tdesktop\tv\t\t\n`;
      writeFileSync(join(folder, "1-torn.sealed"), `${line}${line.slice(0, 12)}\n${line}`);
      writeFileSync(join(folder, "2-growing.1.open"), `${line}${line.slice(0, 12)}`);
      writeFileSync(join(folder, "notes.txt"), "not a segment");
      const copier = createSpoolCopier(garden.store, folder);
      assert.equal(await copier.copy(), 3);
      assert.equal(copier.unreadable, 1);
      assert.equal(await copier.pending(), 0);
      assert.equal(await countClicks(garden.store), 3);
      assert.deepEqual(readdirSync(folder).sort(), ["2-growing.1.open", "notes.txt"]);
    } finally {
      await garden.close();
      rmSync(folder, { recursive: true, force: true });
    }
  });
});
