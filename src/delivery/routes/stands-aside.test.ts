import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { ask, PERSON, ROBOT, until } from "../../../tests/support/ask.ts";
import { testDelivery, type TestDelivery } from "../../../tests/support/delivery.ts";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";

let garden: TestDesk;
let delivery: TestDelivery;
const ids = new Map<string, string>();

before(async () => {
  garden = await testDesk();
  await garden.call("POST", "/sites/garden/pages", {
    path: "/lamps",
    title: "Lamps",
    html: "<p>x</p>",
    publish: true,
  });
  const make = async (route: { address: string; [more: string]: unknown }): Promise<void> => {
    const { status, body } = await garden.call("POST", "/sites/garden/routes", {
      kind: "redirect",
      ...route,
    });
    assert.equal(status, 201, JSON.stringify(body));
    ids.set(route.address, body.id);
  };
  await make({ address: "/*/reviews", match: "wildcard", destination: "/reviews/$1" });
  await make({ address: "/(\\w+)/c", match: "pattern", destination: "https://gdn.example/c/$1" });
  await make({ address: "/*/amp", match: "wildcard", destination: "/amp/$1", status: 200 });
  await make({ address: "/amp", match: "prefix", destination: "/lamps" });
  // The linter refuses such a one; it may have become so by a change of hosts.
  await make({ address: "/self", destination: "/lamps" });
  await garden.store.rows("UPDATE routes SET destination = '/self' WHERE id = $id::bigint", {
    id: ids.get("/self"),
  });
  delivery = await testDelivery(garden.url);
});
after(async () => {
  await delivery.end();
  await garden.close();
});

describe("a route that would lead back to what was asked for", () => {
  const cases: readonly (readonly [
    host: string,
    path: string,
    status: number,
    location: string | undefined,
  ])[] = [
    ["garden.example", "/lamp/reviews", 301, "/reviews/lamp"],
    ["garden.example", "/reviews/reviews", 404, undefined],
    ["garden.example", "/reviews/reviews?from=mail", 404, undefined],
    ["garden.example", "/reviews/%72eviews/", 404, undefined],
    ["gdn.example", "/reviews/reviews", 301, "https://garden.example/reviews/reviews"],
    ["gdn.example", "/c/c", 404, undefined],
    ["garden.example", "/c/c", 301, "https://gdn.example/c/c"],
    ["garden.example", "/amp/amp", 301, "/lamps"],
    ["garden.example", "/self", 404, undefined],
  ];
  for (const [host, path, status, location] of cases)
    test(`${host}${path}`, async () => {
      const reply = await ask(delivery.port, path, { host });
      assert.deepEqual([reply.status, reply.headers.location], [status, location]);
    });

  test("is counted apart, whoever asked, and the route says so", async () => {
    for (const agent of [PERSON, ROBOT])
      await ask(delivery.port, "/self", { headers: { "User-Agent": agent } });
    const path = `/sites/garden/clicks?by=day&route=${ids.get("/self")}`;
    await until(
      "the requests are counted",
      async () => (await garden.call("GET", path)).body.total.asides >= 3,
    );
    const { total } = (await garden.call("GET", path)).body;
    assert.deepEqual([total.clicks, total.bots, total.asides], [0, 0, 3]);
  });

  test("is told by a trace as readers get it", async () => {
    const { body } = await garden.call("POST", "/sites/garden/routes/trace", {
      addresses: ["/reviews/reviews", "/x/reviews"],
    });
    const verdicts = JSON.stringify(body);
    assert.match(verdicts, /not-found/);
    assert.doesNotMatch(verdicts, /"loop"/);
  });
});

describe("what misses get", () => {
  const set = async (destination: string): ReturnType<TestDesk["call"]> => {
    const { body } = await garden.call("GET", "/sites/garden");
    return garden.call("PATCH", "/sites/garden", {
      version: body.version,
      misses: { answer: "destination", destination },
    });
  };

  test("an address that nothing answers or that comes round is refused at its field", async () => {
    await garden.call("POST", "/sites/garden/routes", {
      kind: "redirect",
      address: "/east",
      destination: "/lamps",
    });
    const west = await garden.call("POST", "/sites/garden/routes", {
      kind: "redirect",
      address: "/west",
      destination: "/east",
    });
    assert.equal(west.status, 201);
    await garden.store.rows("UPDATE routes SET destination = '/west' WHERE address = '/east'");
    for (const destination of ["/nowhere", "/reviews/reviews", "https://garden.example/nowhere", "/east"]) {
      const { status, body } = await set(destination);
      assert.deepEqual([status, body.errors[0].path], [422, "misses.destination"], destination);
    }
  });

  test("a dead address is advised against, a good one is taken", async () => {
    await garden.call("POST", "/sites/garden/routes", { kind: "gone", address: "/closed" });
    const gone = await set("/closed");
    assert.deepEqual([gone.status, gone.body.advice?.length], [200, 1]);
    const fine = await set("/lamps");
    assert.deepEqual([fine.status, fine.body.advice], [200, undefined]);
    await delivery.level();
    assert.equal((await ask(delivery.port, "/whatever")).headers.location, "/lamps");
  });

  test("a chosen address that has gone is a miss of its own and leads nowhere", async () => {
    const { body: pages } = await garden.call("GET", "/sites/garden/pages");
    const { id, version } = pages.items[0];
    assert.equal((await garden.call("POST", `/sites/garden/pages/${id}/unpublish`, { version })).status, 200);
    await delivery.level();
    assert.equal((await ask(delivery.port, "/whatever")).headers.location, "/lamps");
    assert.equal((await ask(delivery.port, "/lamps")).status, 404);
  });
});
