import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";

let garden: TestDesk;
const ROUTES: readonly object[] = [
  {
    kind: "redirect",
    address: "/leaving",
    destination: "https://shop.example/",
    notice: { seconds: 8, text: "You leave us." },
  },
  {
    kind: "redirect",
    address: "/leaving/quick",
    destination: "https://shop.example/x",
    notice: { seconds: 1, text: "" },
  },
  {
    kind: "short",
    host: "gdn.example",
    address: "/tagged",
    destination: "https://shop.example/?",
    tags: ["a;b", "c|d", "e\\", "\\;"],
  },
  {
    kind: "short",
    address: "/to/x",
    destination: "https://shop.example/x?&",
    aliases: ["/to/y;z"],
    robots: { nofollow: true },
  },
  {
    kind: "redirect",
    address: "/q&a/*",
    match: "wildcard",
    destination: "/faq/$1",
    query: "merge",
    parameters: "from=q&b=%3B",
  },
  {
    kind: "redirect",
    address: "/(\\d{4})/([^/|;]+)",
    match: "pattern",
    destination: "/archive/$1/$2",
    status: 308,
  },
  {
    kind: "redirect",
    address: "/until",
    destination: "/x",
    validFrom: "2026-11-01T00:00:00Z",
    validUntil: "2030-01-01T00:00:00Z",
    afterEnd: "destination",
    endDestination: "/later",
  },
  { kind: "gone", address: "/closed", title: "=closed", enabled: false },
  { kind: "short", address: "/in-content", destination: "https://shop.example/c", inContent: "everywhere" },
];

before(async () => {
  garden = await testDesk();
  for (const route of ROUTES) {
    const { status, body } = await garden.call("POST", "/sites/garden/routes", route);
    assert.equal(status, 201, JSON.stringify(body));
  }
  const { body: page } = await garden.call("POST", "/sites/garden/pages", {
    path: "/p",
    title: "P",
    html: "<p>x</p>",
  });
  await garden.call("POST", "/sites/garden/routes", {
    kind: "short",
    address: "/in-page",
    destination: "https://shop.example/p",
    inContent: "pages",
    contentPages: [page.id],
  });
});
after(async () => {
  assert.deepEqual(garden.failures, []);
  await garden.close();
});

describe("routes that are exported and read back", () => {
  for (const [format, type] of [
    ["csv", "text/csv"],
    ["json", "application/json"],
  ] as const)
    test(`are unchanged by ${format}`, async () => {
      const { body: items } = await garden.call("GET", "/sites/garden/routes?limit=100");
      const raw = Buffer.from(
        (await garden.call("GET", `/sites/garden/routes/export?format=${format}`)).bytes,
      );
      const { status, body } = await garden.call("POST", "/sites/garden/routes/import", undefined, {
        raw,
        headers: { "Content-Type": type },
      });
      assert.equal(status, 200, JSON.stringify(body));
      assert.deepEqual(
        [body.created, body.updated, body.refused, body.unchanged],
        [0, 0, [], ROUTES.length + 1],
      );
      assert.deepEqual((await garden.call("GET", "/sites/garden/routes?limit=100")).body, items);
    });

  test("make the same routes again where there are none", async () => {
    const read = async () =>
      (
        (await garden.call("GET", "/sites/garden/routes?limit=100&sort=address")).body.items as Record<
          string,
          unknown
        >[]
      ).map(({ id: _id, version: _version, createdAt: _created, updatedAt: _updated, ...route }) => route);
    const was = await read();
    const raw = Buffer.from((await garden.call("GET", "/sites/garden/routes/export?format=csv")).bytes);
    for (const { id } of (await garden.call("GET", "/sites/garden/routes?limit=100")).body.items)
      assert.equal((await garden.call("DELETE", `/sites/garden/routes/${id}`)).status, 204);
    await garden.call("POST", "/sites/garden/routes/import", undefined, {
      raw,
      headers: { "Content-Type": "text/csv" },
    });
    assert.deepEqual(await read(), was);
  });
});
