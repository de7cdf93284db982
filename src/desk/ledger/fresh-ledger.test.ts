import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";

const LINKS = "/sites/garden/links";
let garden: TestDesk;
before(async () => {
  garden = await testDesk();
  await garden.call("POST", "/sites/garden/pages", {
    path: "/behind",
    title: "Behind",
    html: '<p><a href="https://late.example/">late</a></p>',
    publish: true,
  });
});
after(async () => {
  assert.deepEqual(garden.failures, []);
  await garden.close();
});

describe("an answer from the ledger, while it cannot catch up", () => {
  let thread: TestDesk["desk"]["thread"];
  before(async () => {
    thread = garden.desk.thread;
    garden.desk.thread = { ...thread, run: () => new Promise(() => {}) };
    await garden.store.rows("DELETE FROM ledger_states");
  });
  after(() => {
    garden.desk.thread = thread;
  });
  const calls = [
    LINKS,
    `${LINKS}/facets`,
    `${LINKS}/groups?by=host`,
    `${LINKS}/report`,
    "/sites/garden/programs",
  ];
  for (const call of calls)
    test(`${call} tells that it is behind, as soon as its caller would not wait longer`, async () => {
      const { status, body } = await garden.call("GET", call, undefined, { headers: { Prefer: "wait=0" } });
      assert.deepEqual([status, body.current], [200, false]);
    });
});

test("an answer that could wait for what was changed last has it, and says so", async () => {
  const { body } = await garden.call("GET", `${LINKS}?host=late.example`);
  assert.deepEqual([body.current, body.total], [true, 1]);
});

test("a wait that is no number of seconds is the usual one", async () => {
  for (const prefer of ["wait=", "wait=-1", "wait=soon", "respond-async, wait=5, handling=lenient"]) {
    const { body } = await garden.call("GET", LINKS, undefined, { headers: { Prefer: prefer } });
    assert.equal(body.current, true, prefer);
  }
});
