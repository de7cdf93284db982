import assert from "node:assert/strict";
import type { AddressInfo } from "node:net";
import { after, before, describe, test } from "node:test";
import pino from "pino";
import { ask, until } from "../../tests/support/ask.ts";
import { testDelivery, type TestDelivery } from "../../tests/support/delivery.ts";
import { testDesk, type TestDesk } from "../../tests/support/desk.ts";
import { closed } from "../incoming/listening.ts";
import { freePort } from "../../scripts/postgres.mjs";
import { readConfig } from "./config.ts";
import { createWatching } from "./watching.ts";
import { createServer, type Server } from "node:http";

const TOKEN = "a-token-for-whoever-watches-it";

/** Lines of the OpenMetrics text format: names, labels and numbers (OpenMetrics 1.0, “Text format”). */
const LINE =
  /^(?:# (?:HELP|TYPE|UNIT) [a-zA-Z_:][\w:]* .*|# EOF|[a-zA-Z_:][\w:]*(?:\{(?:[a-zA-Z_]\w*="(?:[^"\\\n]|\\["\\n])*",?)*\})? (?:[+-]?\d[\d.e+-]*|NaN|[+-]Inf))$/;

describe("a process that is watched", () => {
  let garden: TestDesk;
  let delivery: TestDelivery;
  let watching: ReturnType<typeof createWatching>;
  let workspace: Server;
  let port: number;
  let metricsPort: number;
  const logged: Record<string, unknown>[] = [];
  const read: { host: string; method: string; path: string; status: number }[] = [];

  before(async () => {
    garden = await testDesk();
    delivery = await testDelivery(garden.url, undefined, { accessLog: (answer) => void read.push(answer) });
    metricsPort = await freePort();
    const config = readConfig(
      {
        MAPROPE_METRICS_PORT: String(metricsPort),
        MAPROPE_METRICS_TOKEN: TOKEN,
        MAPROPE_ACCESS_LOG: "1",
      },
      "/tmp",
    );
    const log = pino({ level: "warn" }, { write: (line: string) => void logged.push(JSON.parse(line)) });
    watching = createWatching(config, { store: garden.store, delivery, log });
    workspace = createServer((request, response) => {
      if (watching.watched.answers(request, response)) return;
      watching.watched.follow(request, response, "request-1");
      response.end("here");
    });
    await new Promise<void>((resolve) => workspace.listen(0, "127.0.0.1", resolve));
    port = (workspace.address() as AddressInfo).port;
    await watching.listen();
    await garden.call("POST", "/sites/garden/routes", {
      kind: "short",
      address: "/to/lamps",
      destination: "https://harbour.example/lamps",
    });
    await delivery.level();
  });
  after(async () => {
    await watching.stop();
    await closed(workspace);
    await delivery.end();
    await garden.close();
  });

  const metrics = async (): Promise<string> => (await ask(metricsPort, "/metrics")).body;
  function valueOf(text: string, name: string): number {
    const line = text.split("\n").find((one) => one.startsWith(`${name} `));
    assert.ok(line, `no ${name}`);
    return Number(line.slice(name.length + 1));
  }

  test("tells its metrics in the OpenMetrics text format, whole and in order", async () => {
    const { headers, body } = await ask(metricsPort, "/metrics");
    assert.match(headers["content-type"]!, /^application\/openmetrics-text; version=1\.0\.0/);
    const lines = body.trimEnd().split("\n");
    assert.equal(lines.at(-1), "# EOF");
    for (const line of lines) assert.match(line, LINE);
    // Each name is told of once, before its values.
    const told = lines.flatMap((line) => /^# TYPE (\S+)/.exec(line)?.[1] ?? []);
    assert.equal(new Set(told).size, told.length);
    assert.equal(valueOf(body, "maprope_database_up"), 1);
    assert.ok(valueOf(body, 'maprope_table_bytes{table="routes"}') > 0);
  });

  test("counts what readers got, by kind, with their times", async () => {
    const count = (text: string, kind: string) =>
      valueOf(text, `maprope_answers_seconds_count{kind="${kind}"}`);
    const before_ = await metrics();
    for (let time = 0; time < 3; time += 1) assert.equal((await ask(delivery.port, "/to/lamps")).status, 302);
    assert.equal((await ask(delivery.port, "/nowhere")).status, 404);
    assert.equal((await ask(delivery.port, "/", { host: "nobody.example" })).status, 421);
    const now: string = await until("all is counted", async () => {
      const text = await metrics();
      return count(text, "refused") > count(before_, "refused") ? text : "";
    });
    assert.equal(count(now, "route") - count(before_, "route"), 3);
    assert.equal(count(now, "miss") - count(before_, "miss"), 1);
    const bucket = (le: string) => valueOf(now, `maprope_answers_seconds_bucket{kind="route",le="${le}"}`);
    assert.equal(bucket("+Inf"), count(now, "route"));
    assert.ok(bucket("0.001") <= bucket("0.01") && bucket("0.01") <= bucket("5"));
    assert.equal(
      valueOf(now, "maprope_spool_written_total") - valueOf(before_, "maprope_spool_written_total"),
      4,
    );
    await until("the database has them", async () => valueOf(await metrics(), "maprope_spool_records") === 0);
  });

  test("counts the workspace's answers, and writes the access log that was asked for", async () => {
    assert.equal((await ask(port, "/garden/routes?q=secret")).body, "here");
    await until("it is logged", () => logged.length > 0);
    const { requestId, method, path, status, msg } = logged[0]!;
    assert.deepEqual(
      [requestId, method, path, status, msg],
      ["request-1", "GET", "/garden/routes", 200, "answered"],
    );
    assert.equal(valueOf(await metrics(), 'maprope_workspace_answers_seconds_count{kind="screen"}'), 1);
  });

  test("writes down what readers asked for and got, and nothing of them", async () => {
    read.length = 0;
    await ask(delivery.port, "/to/lamps?who=me", { method: "HEAD" });
    await until("it is written down", () => read.length > 0);
    const { ms, ...answer } = read[0] as (typeof read)[number] & { ms: number };
    assert.ok(ms >= 0);
    assert.deepEqual(answer, { host: "garden.example", method: "HEAD", path: "/to/lamps", status: 302 });
  });

  test("tells them on the workspace's listener to whoever has the token alone", async () => {
    assert.equal((await ask(port, "/metrics")).status, 401);
    const wrong = await ask(port, "/metrics", { headers: { Authorization: "Bearer something-else" } });
    assert.equal(wrong.status, 401);
    const right = await ask(port, "/metrics", { headers: { Authorization: `Bearer ${TOKEN}` } });
    assert.match(right.body, /^# EOF$/m);
    assert.equal((await ask(delivery.port, "/metrics")).status, 404);
  });

  test("is ready until it is about to stop; it answers still, and keeps no connection", async () => {
    for (const one of [port, delivery.port, metricsPort]) {
      const { status, body } = await ask(one, "/readyz", { host: "anything.example" });
      assert.deepEqual([status, JSON.parse(body)], [200, { status: "ready" }]);
    }
    watching.leave();
    for (const one of [port, delivery.port, metricsPort]) {
      const { status, body } = await ask(one, "/readyz");
      assert.deepEqual(
        [status, JSON.parse(body)],
        [503, { status: "not ready", reasons: ["It is about to stop."] }],
      );
    }
    const { status, headers } = await ask(delivery.port, "/to/lamps");
    assert.deepEqual([status, headers.connection], [302, "close"]);
  });
});
