import assert from "node:assert/strict";
import { spawn, type ChildProcess } from "node:child_process";
import { once } from "node:events";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { after, before, test } from "node:test";
import { setTimeout as rest } from "node:timers/promises";
import { ask, until } from "../support/ask.ts";
import { testDesk, type TestDesk } from "../support/desk.ts";

const folder = mkdtempSync(join(tmpdir(), "maprope-frozen-"));
let garden: TestDesk;
let node: ChildProcess;
let port: number;

before(async () => {
  garden = await testDesk();
  const script = new URL("../support/delivery-process.ts", import.meta.url).pathname;
  node = spawn(process.execPath, ["--import", "tsx", script, garden.url, join(folder, "data")], {
    stdio: ["ignore", "pipe", "inherit"],
  });
  let said = "";
  node.stdout!.on("data", (part) => (said += String(part)));
  await until("it is ready", () => /ready on \d+/.test(said));
  port = Number(/ready on (\d+)/.exec(said)![1]);
});
after(async () => {
  node.kill("SIGTERM");
  await once(node, "exit");
  await garden.close();
  rmSync(folder, { recursive: true, force: true });
});

test("a node that was frozen catches up with all that happened meanwhile, and loses no click", async () => {
  const made = async (address: string): Promise<void> => {
    const route = { kind: "short", address, destination: `https://harbour.example${address}` };
    assert.equal((await garden.call("POST", "/sites/garden/routes", route)).status, 201);
  };
  await made("/before");
  await until("it answers", async () => (await ask(port, "/before")).status === 302);
  node.kill("SIGSTOP");
  for (let at = 0; at < 30; at += 1) await made(`/meanwhile-${at}`);
  // Its connection to the database goes, as it does when a machine is cut off.
  await garden.store.rows(
    `SELECT pg_terminate_backend(pid) AS gone FROM pg_stat_activity
     WHERE datname = current_database() AND query LIKE 'LISTEN%' AND pid <> pg_backend_pid()`,
  );
  await rest(500);
  const asking = ask(port, "/before");
  node.kill("SIGCONT");
  assert.equal((await asking).status, 302);
  for (let at = 0; at < 30; at += 1)
    await until("it has caught up", async () => (await ask(port, `/meanwhile-${at}`)).status === 302);
  assert.equal((await ask(port, "/readyz")).status, 200);
  await until("every click is counted", async () => {
    const [row] = await garden.store.rows<{ n: string }>("SELECT count(*)::text AS n FROM clicks");
    return Number(row!.n) >= 32;
  });
});
