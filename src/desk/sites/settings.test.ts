import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";

let garden: TestDesk;
before(async () => {
  garden = await testDesk();
});
after(() => garden.close());

async function change(fields: object) {
  const { body } = await garden.call("GET", "/sites/garden");
  return garden.call("PATCH", "/sites/garden", { ...fields, version: body.version });
}
async function made(route: object) {
  const { status, body } = await garden.call("POST", "/sites/garden/routes", route);
  assert.equal(status, 201, JSON.stringify(body));
  return body;
}
const HARBOUR = "https://harbour.example/lamp";

describe("what a site says", () => {
  test("its language and time zone, in which its people see dates and money", async () => {
    const { status, body } = await change({ language: "de-AT", timeZone: "Europe/Vienna" });
    assert.deepEqual([status, body.language, body.timeZone], [200, "de-AT", "Europe/Vienna"]);
    for (const [fields, path] of [
      [{ language: "german" }, "language"],
      [{ language: "" }, "language"],
      [{ timeZone: "Vienna" }, "timeZone"],
      [{ shortPrefix: "to" }, "shortPrefix"],
      [{ defaults: { shortStatus: 410 } }, "defaults.shortStatus"],
      [{ country: "ZZ" }, "country"],
      [{ defaults: { shortHost: "nowhere.example" } }, "defaults.shortHost"],
      [{ defaults: { query: "keep" } }, "defaults.query"],
      [{ defaults: { colour: "red" } }, "defaults"],
    ] as const) {
      const refused = await change(fields);
      assert.equal(refused.status, 422, JSON.stringify(fields));
      assert.equal(refused.body.errors[0].path.startsWith(path), true, JSON.stringify(refused.body.errors));
    }
    assert.equal((await change({ timeZone: "" })).body.timeZone, "");
  });

  test("where short links begin: new ones in the new directory, those that there are where they are", async () => {
    const old = await made({
      kind: "short",
      address: "/to/rake",
      host: "garden.example",
      destination: HARBOUR,
    });
    assert.equal((await change({ shortPrefix: "/go/" })).body.shortPrefix, "/go/");
    const { body } = await garden.call("POST", "/sites/garden/routes/shorten", {
      dryRun: true,
      host: "garden.example",
      text: "https://harbour.example/spade",
    });
    assert.match(JSON.stringify(body), /\/go\//);
    assert.equal((await garden.call("GET", `/sites/garden/routes/${old.id}`)).body.address, "/to/rake");
  });

  test("what new routes are like; what there is stays as it is, and who says otherwise gets that", async () => {
    const before = await made({ kind: "short", address: "/one", destination: HARBOUR });
    const defaults = { shortStatus: 307, redirectStatus: 308, query: "merge", robots: { noindex: true } };
    assert.deepEqual((await change({ defaults })).body.defaults, defaults);
    const short = await made({ kind: "short", address: "/two", destination: HARBOUR });
    assert.deepEqual(
      [short.status, short.query, short.robots],
      [307, "merge", { noindex: true, nofollow: false }],
    );
    const redirect = await made({ kind: "redirect", address: "/three", destination: HARBOUR });
    assert.deepEqual([redirect.status, redirect.query, redirect.robots.noindex], [308, "forward", false]);
    const own = await made({
      kind: "short",
      address: "/four",
      destination: HARBOUR,
      status: 301,
      query: "drop",
      robots: { noindex: false },
    });
    assert.deepEqual([own.status, own.query, own.robots.noindex], [301, "drop", false]);
    const { body } = await garden.call("GET", `/sites/garden/routes/${before.id}`);
    assert.deepEqual([body.status, body.query, body.robots.noindex], [302, "drop", false]);
    const csv = "kind,address,destination\nshort,/five,https://harbour.example/five\n";
    const imported = await garden.call("POST", "/sites/garden/routes/import", undefined, {
      raw: csv,
      headers: { "Content-Type": "text/csv" },
    });
    assert.equal(imported.body.created, 1, JSON.stringify(imported.body));
    const list = await garden.call("GET", "/sites/garden/routes?q=/five");
    assert.equal(list.body.items[0].status, 307);
  });
});
