import assert from "node:assert/strict";
import { spawn, type ChildProcess } from "node:child_process";
import { once } from "node:events";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { after, before, test } from "node:test";
import { migrate, MIGRATIONS } from "../../src/store/ground/migrate.ts";
import { ask, until } from "../support/ask.ts";
import { testDesk, type TestDesk } from "../support/desk.ts";

// What a version after this one may bring.
const NEXT = {
  name: "999-next",
  statements: [
    `ALTER TABLE routes ADD COLUMN season text NOT NULL DEFAULT ''`,
    `ALTER TABLE sites ADD COLUMN motto text`,
    `CREATE INDEX routes_season ON routes (season) WHERE season <> ''`,
    `CREATE TABLE seasons (id bigserial PRIMARY KEY, site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, name text NOT NULL)`,
  ],
};

const folder = mkdtempSync(join(tmpdir(), "maprope-upgrade-"));
let garden: TestDesk;
const nodes: { process: ChildProcess; port: number }[] = [];

async function startNode(name: string): Promise<{ process: ChildProcess; port: number }> {
  const script = new URL("../support/delivery-process.ts", import.meta.url).pathname;
  const child = spawn(process.execPath, ["--import", "tsx", script, garden.url, join(folder, name)], {
    stdio: ["ignore", "pipe", "inherit"],
  });
  let said = "";
  child.stdout!.on("data", (part) => (said += String(part)));
  await until(`${name} is ready`, () => /ready on \d+/.test(said));
  const node = { process: child, port: Number(/ready on (\d+)/.exec(said)![1]) };
  nodes.push(node);
  return node;
}

before(async () => {
  garden = await testDesk();
});
after(async () => {
  for (const { process: child } of nodes) {
    child.kill("SIGTERM");
    await once(child, "exit");
  }
  await garden.close();
  rmSync(folder, { recursive: true, force: true });
});

test("a newer version brings the schema up to date under an older node that goes on answering; both follow each other's changes", async () => {
  const lamps = { kind: "short", address: "/to/lamps", destination: "https://harbour.example/lamps" };
  const { body: route } = await garden.call("POST", "/sites/garden/routes", lamps);
  const old = await startNode("old");
  let isOver = false;
  const statuses = new Map<number | string, number>();
  const reader = async (): Promise<void> => {
    while (!isOver) {
      const status = await ask(old.port, "/to/lamps").then(
        (reply) => reply.status,
        (error: Error) => error.message,
      );
      statuses.set(status, (statuses.get(status) ?? 0) + 1);
    }
  };
  const reading = reader();
  const { ran } = await migrate(garden.store, [...MIGRATIONS, NEXT]);
  assert.deepEqual(ran, ["999-next"]);
  const newer = await startNode("newer");
  const moved = { destination: "https://harbour.example/moved", version: route.version };
  assert.equal((await garden.call("PATCH", `/sites/garden/routes/${route.id}`, moved)).status, 200);
  for (const { port } of [old, newer])
    await until("the change has come", async () => {
      const { headers } = await ask(port, "/to/lamps");
      return headers.location === moved.destination;
    });
  isOver = true;
  await reading;
  assert.deepEqual([...statuses.keys()], [302]);
  // Whoever starts the older one again is told, and it works.
  const { differences } = await migrate(garden.store);
  assert.equal(differences.length, 1);
  assert.match(differences[0]!, /999-next .* is of a newer version/);
});

test("no step takes away what a node of the version before still reads", () => {
  // From when on nodes of two versions may run beside each other.
  const since = MIGRATIONS.slice(MIGRATIONS.findIndex(({ name }) => name.startsWith("013-")));
  for (const { name, statements } of since)
    for (const statement of statements)
      assert.doesNotMatch(
        statement,
        /\bDROP (?:TABLE|COLUMN)\b|\bRENAME\b|\bALTER COLUMN \w+ (?:SET DATA )?TYPE\b/i,
        name,
      );
});
