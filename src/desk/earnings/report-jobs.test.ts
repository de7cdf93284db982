import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { until } from "../../../tests/support/ask.ts";
import type { TestDesk } from "../../../tests/support/desk.ts";
import { deskWithProgram } from "../../../tests/support/program.ts";

const REPORT =
  "order,date,status,commission,currency,sub\nA-1,2026-06-03,approved,12.50,EUR,\nA-2,2026-06-04,approved,7.00,EUR,\n";
const COLUMNS = {
  reference: "order",
  at: "date",
  dates: "ymd",
  state: "status",
  commission: "commission",
  currency: "currency",
  decimal: ".",
};

let garden: TestDesk;
let asked = 0;
before(async () => {
  ({ garden } = await deskWithProgram());
  garden.desk.outgoing = {
    ...garden.desk.outgoing,
    read: async () => {
      asked += 1;
      return { ok: true, type: "text/csv", bytes: new TextEncoder().encode(REPORT) };
    },
  };
  await garden.call("PUT", "/sites/garden/networks", {
    name: "Saltmarsh",
    hosts: ["go.saltmarsh.example"],
    report: "https://go.saltmarsh.example/report.csv",
  });
});
after(() => garden.close());

async function jobOf(path: string, body: unknown) {
  const { status, body: job } = await garden.call("POST", path, body, {
    headers: { Prefer: "respond-async" },
  });
  assert.equal(status, 202);
  return until("it is over", async () => {
    const { body: now } = await garden.call("GET", `/jobs/${job.id}`);
    return now.state !== "running" && now;
  });
}

describe("a report that its network is asked for", () => {
  test("is kept with the job, looked at and imported from there", async () => {
    const pulled = await jobOf("/sites/garden/earnings/pull", { network: "Saltmarsh" });
    assert.deepEqual(pulled.result, { network: "Saltmarsh", bytes: REPORT.length });
    const look = await garden.call("POST", `/sites/garden/earnings/look?pulled=${pulled.id}`);
    assert.deepEqual(look.body.header, ["order", "date", "status", "commission", "currency", "sub"]);
    const columns = encodeURIComponent(JSON.stringify(COLUMNS));
    const path = `/sites/garden/earnings/import?network=Saltmarsh&pulled=${pulled.id}&columns=${columns}`;
    const tried = await garden.call("POST", `${path}&dryRun=1`);
    assert.deepEqual([tried.status, tried.body.created], [200, 2]);
    const imported = await jobOf(path, undefined);
    assert.deepEqual([imported.state, imported.result.created], ["done", 2]);
    assert.equal(asked, 1);
  });

  test("is there as the network answers it", async () => {
    const { status, type, body } = await garden.call(
      "GET",
      "/sites/garden/earnings/report?network=Saltmarsh",
    );
    assert.deepEqual([status, type, body], [200, "text/csv; charset=utf-8", REPORT]);
    asked = 1;
  });

  test("is one's own site's alone, and gone is told in words", async () => {
    const strange = await garden.call(
      "POST",
      "/sites/garden/earnings/look?pulled=3f2b8a5e-0d9c-4c7e-9a54-0f5f0f6f7a11",
    );
    assert.deepEqual([strange.status, /Ask for it again/.test(strange.body.detail)], [422, true]);
    assert.equal((await garden.call("POST", "/sites/garden/earnings/look?pulled=nonsense")).status, 400);
  });

  test("that is written down nowhere fails with the reason", async () => {
    const job = await jobOf("/sites/garden/earnings/pull", { network: "Nobody" });
    assert.deepEqual([job.state, job.problem.title], ["failed", "No report is known"]);
  });
});
