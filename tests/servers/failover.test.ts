import assert from "node:assert/strict";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { after, before, test } from "node:test";
import { setTimeout as rest } from "node:timers/promises";
import { ensureDatabase } from "../../src/store/ground/ensure-database.ts";
import { migrate } from "../../src/store/ground/migrate.ts";
import { openStore } from "../../src/store/ground/store.ts";
import { ask, until } from "../support/ask.ts";
import { testDelivery, type TestDelivery } from "../support/delivery.ts";
import { testDesk, type TestDesk } from "../support/desk.ts";
import { startPair, type Pair } from "../support/standby.ts";

const folder = mkdtempSync(join(tmpdir(), "maprope-failover-"));
let pair: Pair;
let garden: TestDesk;
let nodes: TestDelivery[];
let route: { id: string; version: number };

before(async () => {
  pair = await startPair(folder);
  await ensureDatabase(pair.primary.url("postgres"), "maprope");
  const url = pair.url("maprope");
  const store = openStore(url, 4);
  await migrate(store);
  garden = await testDesk({ store, url, drop: () => store.close() });
  const lamps = { kind: "short", address: "/to/lamps", destination: "https://harbour.example/lamps" };
  route = (await garden.call("POST", "/sites/garden/routes", lamps)).body;
  nodes = [await testDelivery(url), await testDelivery(url)];
});
after(async () => {
  for (const node of nodes) await node.end();
  await garden.close();
  pair.stop();
  rmSync(folder, { recursive: true, force: true });
});

async function save(change: object): Promise<number> {
  const { status, body } = await garden.call("PATCH", `/sites/garden/routes/${route.id}`, {
    ...change,
    version: route.version,
  });
  if (status === 200) route = body;
  // What was written and could not be told of is found out before one goes on, as the workspace does.
  if (status === 409) route = body.current;
  return status;
}

test("the primary is killed under load and the standby takes its place: no redirect fails, no click is lost, writers find it", async () => {
  let isOver = false;
  let answered = 0;
  const failed: unknown[] = [];
  const reader = async (node: TestDelivery): Promise<void> => {
    while (!isOver) {
      const reply = await ask(node.port, "/to/lamps").catch((error: unknown) => error as Error);
      if (!(reply instanceof Error) && reply.status === 302) answered += 1;
      else failed.push(reply instanceof Error ? reply.message : reply.status);
      await rest(2);
    }
  };
  const seen = new Set<number>();
  let savedAfter = 0;
  let isPromoted = false;
  const editor = async (): Promise<void> => {
    for (let at = 0; !isOver; at += 1) {
      const status = await save({ title: `Lamp ${at}` });
      seen.add(status);
      if (isPromoted && status === 200) savedAfter += 1;
      await rest(50);
    }
  };
  const work = [...nodes.flatMap((node) => [reader(node), reader(node)]), editor()];
  await rest(2_000);
  pair.kill();
  await rest(1_500);
  pair.promote();
  isPromoted = true;
  await until("editors save again", () => savedAfter > 3);
  await rest(1_000);
  isOver = true;
  await Promise.all(work);
  assert.deepEqual(failed, []);
  assert.ok(answered > 300, `only ${answered} were asked`);
  // Saved, or “trying again”; 409 is what was saved just when the answer was lost.
  for (const status of seen) assert.ok([200, 409, 503].includes(status), `an editor saw ${status}`);
  assert.ok(seen.has(503), "the editor noticed nothing");

  const counted = async (): Promise<number> => {
    const [row] = await garden.store.rows<{ n: string }>("SELECT count(*)::text AS n FROM clicks");
    return Number(row!.n);
  };
  await until("every click is in the database", async () => (await counted()) >= answered);
  await rest(1_500);
  assert.equal(await counted(), answered, "a click was counted twice");

  const destination = "https://harbour.example/other";
  await until("it is saved", async () => (await save({ destination })) === 200);
  for (const node of nodes)
    await until("each node follows the new primary", async () => {
      const { headers } = await ask(node.port, "/to/lamps");
      return headers.location === destination;
    });
});
