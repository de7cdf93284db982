import assert from "node:assert/strict";
import { spawn, spawnSync, type ChildProcess } from "node:child_process";
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { Agent } from "node:http";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { after, before, describe, test } from "node:test";
import { startPostgres, type OwnPostgres } from "../../../scripts/postgres.mjs";
import { ask, until } from "../../../tests/support/ask.ts";
import { testDelivery } from "../../../tests/support/delivery.ts";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";
import { noteChange } from "../../store/ground/changes.ts";
import { ensureDatabase } from "../../store/ground/ensure-database.ts";
import { migrate } from "../../store/ground/migrate.ts";
import { openStore } from "../../store/ground/store.ts";
import { createSpoolCopier } from "../clicks/spool-copier.ts";
import { closed } from "../../incoming/listening.ts";
import { openSpool } from "../clicks/spool.ts";

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
    await migrate(store);
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

  test("lost records are counted, told once with their number, and written down when the disk takes them again", () => {
    const folder = mkdtempSync(join(tmpdir(), "maprope-full-"));
    const place = join(folder, "spool");
    const told: string[] = [];
    const spool = openSpool(place, { report: (message) => told.push(message) });
    rmSync(place, { recursive: true });
    writeFileSync(place, "no folder");
    assert.equal(spool.append("a\nb\n", 2), false);
    assert.equal(spool.append("c\n", 1), false);
    assert.deepEqual([spool.lost, spool.written, told.length], [3, 0, 1]);
    rmSync(place);
    assert.equal(spool.append("d\n", 1), true);
    assert.deepEqual([spool.lost, spool.written], [3, 1]);
    assert.match(told.at(-1)!, /3 were lost/);
    spool.close();
    const [name] = readdirSync(place);
    assert.match(readFileSync(join(place, name!), "utf8"), /^l\t\d+\t3\nd\n$/);
    assert.equal(statSync(place).mode & 0o777, 0o700);
    assert.equal(statSync(join(place, name!)).mode & 0o777, 0o600);
    rmSync(folder, { recursive: true });
  });

  test("a full disk heals as soon as what was copied has gone, and what was lost meanwhile stands in the database", async (context) => {
    const garden = await testDesk();
    const folder = mkdtempSync(join(tmpdir(), "maprope-small-"));
    const mounted = spawnSync("mount", ["-t", "tmpfs", "-o", "size=64k", "tmpfs", folder]);
    if (mounted.status !== 0) {
      await garden.close();
      return context.skip("only root may make a small disk");
    }
    try {
      const { body } = await garden.call("POST", "/sites/garden/routes", ROUTE);
      const line = `c\t${Date.now()}\t${body.id}\tperson\tdesktop\tv\t\t\n`;
      const spool = openSpool(folder);
      const copier = createSpoolCopier(garden.store, folder, spool.owner);
      for (let n = 0; n < 60; n += 1) spool.append(line.repeat(40), 40);
      const lost = spool.lost;
      assert.ok(lost > 0);
      while ((await copier.copy()) > 0);
      assert.equal(spool.append(line, 1), true, "the disk takes clicks again");
      assert.equal(spool.lost, lost);
      spool.close();
      while ((await copier.copy()) > 0);
      assert.equal(await countClicks(garden.store), 60 * 40 + 1 - lost);
      const { body: clicks } = await garden.call("GET", "/sites/garden/clicks");
      assert.equal(clicks.lost, lost);
      assert.deepEqual(readdirSync(folder), []);
    } finally {
      spawnSync("umount", [folder]);
      rmSync(folder, { recursive: true, force: true });
      await garden.close();
    }
  });

  test("a file that is removed while it is written is put back, with all that it held", async () => {
    const garden = await testDesk();
    const folder = mkdtempSync(join(tmpdir(), "maprope-removed-"));
    try {
      const { body } = await garden.call("POST", "/sites/garden/routes", ROUTE);
      const line = `c\t${Date.now()}\t${body.id}\tperson\tdesktop\tv\t\t\n`;
      const spool = openSpool(folder);
      const copier = createSpoolCopier(garden.store, folder, spool.owner);
      spool.append(line, 1);
      await copier.copy();
      spool.append(line, 1);
      rmSync(folder, { recursive: true });
      assert.equal(spool.append(line, 1), true);
      assert.equal(spool.lost, 0);
      await until("the file is back", () => existsSync(folder) && readdirSync(folder).length > 0);
      while ((await copier.copy()) > 0);
      assert.equal(await countClicks(garden.store), 3);
      assert.deepEqual(await copier.pending(), { records: 0, oldest: null });
      spool.close();
    } finally {
      rmSync(folder, { recursive: true, force: true });
      await garden.close();
    }
  });

  test("a data folder is one living process's: a second is refused in a sentence, and may have it when the first was killed", async () => {
    const garden = await testDesk();
    const folder = mkdtempSync(join(tmpdir(), "maprope-locked-"));
    try {
      const first = await startProcess(garden.url, folder);
      await assert.rejects(
        testDelivery(garden.url, folder),
        /^Error: The data folder .* is in use by another running process; .*\.$/,
      );
      await ended(first, "SIGKILL");
      const second = await until("the folder is free", () =>
        testDelivery(garden.url, folder).catch(() => undefined),
      );
      await second!.end();
    } finally {
      rmSync(folder, { recursive: true, force: true });
      await garden.close();
    }
  });
});

describe("a spool segment that was torn", () => {
  test("whole lines are copied, the torn one is counted and left", async () => {
    const garden = await testDesk();
    const folder = mkdtempSync(join(tmpdir(), "maprope-torn-"));
    try {
      const line = `c\t${Date.now()}\t1\tperson\tdesktop\tv\t\t\n`;
      writeFileSync(join(folder, "1-torn.sealed"), `${line}${line.slice(0, 12)}\n${line}`);
      writeFileSync(join(folder, "2-growing.a1.open"), `${line}${line.slice(0, 12)}`);
      writeFileSync(join(folder, "notes.txt"), "not a segment");
      const copier = createSpoolCopier(garden.store, folder, "a1");
      assert.equal(await copier.copy(), 3);
      assert.equal(copier.unreadable, 1);
      assert.deepEqual(await copier.pending(), { records: 0, oldest: null });
      assert.equal(await countClicks(garden.store), 3);
      assert.equal((await garden.call("GET", "/sites/garden/clicks")).body.lost, 1);
      assert.deepEqual(readdirSync(folder).sort(), ["2-growing.a1.open", "notes.txt"]);
    } finally {
      await garden.close();
      rmSync(folder, { recursive: true, force: true });
    }
  });
});

describe("a line that nobody can keep", () => {
  test("does not hold up those around it, whatever is wrong with it", async () => {
    const garden = await testDesk();
    const folder = mkdtempSync(join(tmpdir(), "maprope-poison-"));
    try {
      const at = (when: number | string, route = "1", visitor = "v"): string =>
        `c\t${when}\t${route}\tperson\tdesktop\t${visitor}\t\t\n`;
      const now = Date.now();
      // A year that no month is named for, a number that no id can be, one that is only told by the database.
      const poison = [
        at(253_402_300_800_000 + 5),
        at("9".repeat(16)),
        at(now, "999999999999999999"),
        "m\t1700000000000\t999999999999999999\tperson\th\t/k\t\n",
      ];
      writeFileSync(join(folder, "1-poison.sealed"), at(now) + poison.join(at(now)) + at(now));
      const copier = createSpoolCopier(garden.store, folder);
      while ((await copier.copy()) > 0);
      assert.deepEqual(readdirSync(folder), []);
      const [row] = await garden.store.rows<{ n: number }>(
        "SELECT count(*)::int AS n FROM clicks WHERE route_id = 1",
      );
      assert.equal(row!.n, 5);
      assert.ok((await garden.call("GET", "/sites/garden/clicks")).body.lost >= 2);
    } finally {
      await garden.close();
      rmSync(folder, { recursive: true, force: true });
    }
  });

  test("after a restart, what waits is what was not copied", async () => {
    const garden = await testDesk();
    const folder = mkdtempSync(join(tmpdir(), "maprope-waits-"));
    try {
      const line = `c\t${Date.now()}\t1\tperson\tdesktop\tv\t\t\n`;
      const spool = openSpool(folder);
      spool.append(line.repeat(5), 5);
      await createSpoolCopier(garden.store, folder, spool.owner).copy();
      spool.append(line.repeat(2), 2);
      assert.equal((await createSpoolCopier(garden.store, folder, spool.owner).pending()).records, 2);
      spool.close();
    } finally {
      await garden.close();
      rmSync(folder, { recursive: true, force: true });
    }
  });
});
