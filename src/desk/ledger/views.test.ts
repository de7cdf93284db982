import assert from "node:assert/strict";
import { after, before, test } from "node:test";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";

const VIEWS = "/sites/garden/links/views";
let garden: TestDesk;
before(async () => {
  garden = await testDesk();
});
after(() => garden.close());

test("views are kept by name, and taken away", async () => {
  const kept = await garden.call("POST", VIEWS, { name: "Paid", query: "program=Shop" });
  assert.equal(kept.status, 201);
  await garden.call("POST", VIEWS, { name: "Paid", query: "rel=sponsored" });
  const { body } = await garden.call("GET", VIEWS);
  assert.deepEqual(
    body.items.map(({ name, query }: { name: string; query: string }) => [name, query]),
    [["Paid", "rel=sponsored"]],
  );
  assert.equal((await garden.call("DELETE", `${VIEWS}/${body.items[0].id}`)).status, 204);
  assert.equal((await garden.call("DELETE", `${VIEWS}/${body.items[0].id}`)).status, 404);
});

test("a view without a name, or with one that nobody can read, is refused at that field", async () => {
  for (const name of ["", "   ", "x".repeat(81)]) {
    const { status, body } = await garden.call("POST", VIEWS, { name, query: "" });
    assert.deepEqual([status, body.errors[0].path], [422, "name"]);
  }
});
