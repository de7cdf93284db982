import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";

let garden: TestDesk;
before(async () => {
  garden = await testDesk();
});
after(() => garden.close());

const ROUTES = "/sites/garden/routes";
const short = (address: string, more: object = {}): object => ({
  kind: "short",
  host: "gdn.example",
  address,
  destination: "https://shop.example/lamp",
  ...more,
});

describe("a route is made", () => {
  test("a short link, with defaults filled in and its destination repaired", async () => {
    const { status, body } = await garden.call(
      "POST",
      ROUTES,
      short("/lamp", { destination: " http://https://shop.example/lamp?a=1&amp;b=2 ", aliases: ["/lampe"] }),
    );
    assert.equal(status, 201);
    assert.equal(body.destination, "https://shop.example/lamp?a=1&b=2");
    assert.equal(body.status, 302);
    assert.equal(body.url, "https://gdn.example/lamp");
    assert.deepEqual(
      [body.match, body.query, body.counted, body.enabled, body.version, body.clicks],
      ["exact", "drop", true, true, 1, 0],
    );
    assert.deepEqual(body.advice, []);
  });

  test("a redirect answers 301, a gone route 410, each without being told", async () => {
    const redirect = await garden.call("POST", ROUTES, {
      kind: "redirect",
      address: "/old",
      destination: "https://shop.example/new",
    });
    assert.deepEqual([redirect.status, redirect.body.status, redirect.body.host], [201, 301, null]);
    const gone = await garden.call("POST", ROUTES, { kind: "gone", address: "/closed" });
    assert.deepEqual([gone.status, gone.body.status, gone.body.destination], [201, 410, null]);
  });

  test("from an address with one of our hosts in front", async () => {
    const { status, body } = await garden.call("POST", ROUTES, {
      kind: "short",
      address: "https://gdn.example/From-Full",
      destination: "https://shop.example/x",
    });
    assert.deepEqual([status, body.host, body.address], [201, "gdn.example", "/From-Full"]);
  });

  const refused: readonly (readonly [says: string, route: object, path: string, message: RegExp])[] = [
    ["an address that is taken", short("/lamp"), "address", /taken/],
    ["the same address in other letters", short("/LAMP/"), "address", /taken/],
    ["an alias that is taken", short("/other", { aliases: ["/lampe"] }), "aliases.0", /taken/],
    ["an address that a route for every host has", short("/old"), "address", /taken/],
    [
      "a route that leads to itself",
      { kind: "redirect", address: "/self", destination: "https://garden.example/self/" },
      "destination",
      /circle/,
    ],
    ["a host that is not ours", short("/x", { host: "other.example" }), "host", /no host of this site/],
    [
      "a destination that is none",
      short("/x", { destination: "javascript:alert(1)" }),
      "destination",
      /http, https/,
    ],
    ["no destination at all", { kind: "short", address: "/x" }, "destination", /missing/],
    ["a status that does not fit the kind", short("/x", { status: 410 }), "status", /410/],
    ["a gone route with a redirect's status", { kind: "gone", address: "/x", status: 301 }, "status", /410/],
    [
      "an end before the beginning",
      short("/x", { validFrom: "2026-02-01T00:00:00Z", validUntil: "2026-01-01T00:00:00Z" }),
      "validUntil",
      /beginning/,
    ],
    ["a path that climbs", short("/a/../b"), "address", /segments/],
  ];
  for (const [says, route, path, message] of refused) {
    test(`refused at its field: ${says}`, async () => {
      const answer = await garden.call("POST", ROUTES, route);
      assert.equal(answer.status, 422, JSON.stringify(answer.body));
      assert.equal(answer.type, "application/problem+json");
      const error = answer.body.errors.find((one: { path: string }) => one.path === path);
      assert.ok(error, JSON.stringify(answer.body.errors));
      assert.match(error.message, message);
    });
  }

  test("two at the same moment under one address: one of them is refused, not failed", async () => {
    const answers = await Promise.all(
      [1, 2, 3, 4].map((n) =>
        garden.call("POST", ROUTES, short("/race", { destination: `https://shop.example/${n}` })),
      ),
    );
    assert.deepEqual(answers.map(({ status }) => status).sort(), [201, 422, 422, 422]);
  });

  test("advice comes with what was saved", async () => {
    const chain = await garden.call("POST", ROUTES, {
      kind: "redirect",
      address: "/older",
      destination: "/old",
    });
    assert.equal(chain.status, 201);
    assert.deepEqual(
      chain.body.advice.map((one: { code: string; fix?: string }) => [one.code, one.fix]),
      [["chain", "https://shop.example/new"]],
    );
    const dead = await garden.call("POST", ROUTES, {
      kind: "redirect",
      address: "/dead",
      destination: "/nothing-there",
    });
    assert.deepEqual(
      dead.body.advice.map((one: { code: string }) => one.code),
      ["dead-end"],
    );
  });

  test("a circle through another route is refused", async () => {
    await garden.call("POST", ROUTES, { kind: "redirect", address: "/east", destination: "/west" });
    const { status, body } = await garden.call("POST", ROUTES, {
      kind: "redirect",
      address: "/west",
      destination: "/east",
    });
    assert.equal(status, 422);
    assert.match(body.errors[0].message, /circle/);
  });
});

describe("a route and a published page never claim one address", () => {
  test("the route is refused, unless it is said to replace the page", async () => {
    await garden.call("POST", "/sites/garden/pages", {
      path: "/shed",
      title: "Shed",
      html: "<p>x</p>",
      publish: true,
    });
    const refused = await garden.call("POST", ROUTES, {
      kind: "redirect",
      address: "/shed",
      destination: "https://shop.example/",
    });
    assert.equal(refused.status, 422);
    assert.match(refused.body.errors[0].message, /replaces the page/);
    const replaced = await garden.call("POST", ROUTES, {
      kind: "redirect",
      address: "/shed",
      destination: "https://shop.example/",
      replacesPage: true,
    });
    assert.equal(replaced.status, 201);
  });

  test("a page is not published where a route answers", async () => {
    const { status, body } = await garden.call("POST", "/sites/garden/pages", {
      path: "/old",
      title: "Old",
      html: "",
      publish: true,
    });
    assert.equal(status, 422);
    assert.equal(body.errors[0].path, "path");
  });
});

describe("a route is changed, switched off, deleted and brought back", () => {
  test("only with the version it was read at", async () => {
    const { body: made } = await garden.call("POST", ROUTES, short("/change"));
    const changed = await garden.call("PATCH", `${ROUTES}/${made.id}`, {
      version: 1,
      title: "Changed",
      enabled: false,
    });
    assert.deepEqual(
      [
        changed.status,
        changed.body.version,
        changed.body.title,
        changed.body.enabled,
        changed.body.destination,
      ],
      [200, 2, "Changed", false, made.destination],
    );
    const stale = await garden.call("PATCH", `${ROUTES}/${made.id}`, { version: 1, title: "Too late" });
    assert.equal(stale.status, 409);
    assert.equal(stale.body.current.title, "Changed");
  });

  test("a stale save of two at once loses to the first", async () => {
    const { body: made } = await garden.call("POST", ROUTES, short("/twice"));
    const answers = await Promise.all(
      ["a", "b", "c"].map((title) => garden.call("PATCH", `${ROUTES}/${made.id}`, { version: 1, title })),
    );
    assert.deepEqual(answers.map(({ status }) => status).sort(), [200, 409, 409]);
  });

  test("a change of address frees the old one", async () => {
    const { body: made } = await garden.call("POST", ROUTES, short("/before"));
    await garden.call("PATCH", `${ROUTES}/${made.id}`, { version: 1, address: "/behind" });
    assert.equal((await garden.call("POST", ROUTES, short("/before"))).status, 201);
    assert.equal((await garden.call("POST", ROUTES, short("/behind"))).status, 422);
  });

  test("deletion can be undone, as long as nobody took the address", async () => {
    const { body: made } = await garden.call("POST", ROUTES, short("/undo"));
    assert.equal((await garden.call("DELETE", `${ROUTES}/${made.id}`)).status, 204);
    assert.equal((await garden.call("GET", `${ROUTES}/${made.id}`)).status, 404);
    assert.equal((await garden.call("POST", `${ROUTES}/${made.id}/restore`)).body.address, "/undo");
    await garden.call("DELETE", `${ROUTES}/${made.id}`);
    await garden.call("POST", ROUTES, short("/undo"));
    assert.equal((await garden.call("POST", `${ROUTES}/${made.id}/restore`)).status, 422);
  });
});

describe("routes are listed", () => {
  test("a part at a time, without loss or repetition", async () => {
    const all = (await garden.call("GET", `${ROUTES}?limit=500`)).body;
    const seen: string[] = [];
    for (let cursor: string | null = ""; cursor !== null;) {
      const part: { items: { id: string }[]; nextCursor: string | null; total: number } = (
        await garden.call("GET", `${ROUTES}?limit=3&cursor=${cursor}`)
      ).body;
      seen.push(...part.items.map(({ id }) => id));
      assert.equal(part.total, all.total);
      cursor = part.nextCursor;
    }
    assert.deepEqual(
      seen,
      all.items.map(({ id }: { id: string }) => id),
    );
  });

  test("narrowed by kind, host and words, sorted by any column", async () => {
    const kinds = (await garden.call("GET", `${ROUTES}?kind=redirect&sort=address`)).body.items;
    assert.ok(kinds.length > 3 && kinds.every((route: { kind: string }) => route.kind === "redirect"));
    const addresses = kinds.map((route: { address: string }) => route.address);
    assert.deepEqual(addresses, [...addresses].sort());
    assert.equal((await garden.call("GET", `${ROUTES}?q=lampe`)).body.total, 1);
    assert.equal((await garden.call("GET", `${ROUTES}?q=%25`)).body.total, 0);
    assert.ok(
      (await garden.call("GET", `${ROUTES}?host=gdn.example`)).body.items.every(
        (route: { host: string }) => route.host === "gdn.example",
      ),
    );
    assert.equal((await garden.call("GET", `${ROUTES}?kind=detour`)).status, 400);
    assert.equal((await garden.call("GET", `${ROUTES}?limit=501`)).status, 400);
  });
});

describe("while somebody types", () => {
  test("the address is checked, slugs are suggested, and an existing short link is offered", async () => {
    const { body } = await garden.call("POST", `${ROUTES}/check`, {
      kind: "short",
      host: "gdn.example",
      address: "/lamp",
      destination: "shop.example/lamp?a=1&amp;b=2",
    });
    assert.match(body.errors[0].message, /taken/);
    assert.equal(body.destination, "https://shop.example/lamp?a=1&b=2");
    assert.equal(body.repairs.length, 2);
    assert.equal(body.existing[0].address, "/lamp");
    assert.ok(
      body.suggestions.every(
        (one: { address: string }) => one.address.startsWith("/") && one.address !== "/lamp",
      ),
    );
  });

  test("on the primary host suggestions begin with the site's prefix", async () => {
    const { body } = await garden.call("POST", `${ROUTES}/check`, {
      destination: "https://shop.example/garden-lantern",
    });
    assert.ok(body.suggestions.length > 0);
    for (const { address } of body.suggestions) assert.match(address, /^\/to\//);
  });

  test("half of an address is no fault yet, and a wrong destination is named", async () => {
    const { body } = await garden.call("POST", `${ROUTES}/check`, {
      address: "/",
      destination: "javascript:x",
    });
    assert.deepEqual(
      body.errors.map((one: { path: string }) => one.path),
      ["destination"],
    );
  });
});

test("none of this was a failure of ours", () => assert.deepEqual(garden.failures, []));
