import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";
import { changesAfter, noteRoutes } from "../ground/changes.ts";
import { readDelivery, readDeliveredRoutes } from "../sites/delivery-view.ts";
import type { DeliveredRoute } from "./delivered-route.ts";

let garden: TestDesk;
before(async () => {
  garden = await testDesk();
});
after(() => garden.close());

async function streamed(): Promise<Map<string, DeliveredRoute>> {
  const routes = new Map<string, DeliveredRoute>();
  await readDelivery(garden.store, {
    sites: () => undefined,
    route: (route) => routes.set(route.keys[0]!, route),
  });
  return routes;
}

describe("all routes, read as bytes", () => {
  const make = (route: Record<string, unknown>) => garden.call("POST", "/sites/garden/routes", route);

  test("are what reading them one by one says, settings and all", async () => {
    await make({ kind: "redirect", address: "/plain", destination: "https://shop.example/" });
    await make({ kind: "gone", address: "/gone" });
    await make({
      kind: "short",
      host: "gdn.example",
      address: "/Many",
      destination: "/x",
      aliases: ["/m1", "/m2"],
    });
    await make({ kind: "redirect", match: "pattern", address: "/a\\.b/(\\d+)\\\\", destination: "/c" });
    await make({ kind: "redirect", match: "pattern", address: "/tab(\\t)?", destination: "/c" });
    await make({ kind: "redirect", address: "/caf%C3%A9", destination: "https://shop.example/é?q=“x”" });
    await make({
      kind: "short",
      address: "/rich",
      destination: "https://shop.example/r",
      notice: { seconds: 4, text: 'Quotes " and \\ and ü, \\N' },
      parameters: "a=b",
      validUntil: "2099-05-01T00:00:00Z",
      afterEnd: "gone",
      inContent: "everywhere",
      robots: { noindex: true },
    });
    const all = await streamed();
    assert.equal(all.size, 7);
    const single = await readDeliveredRoutes(
      garden.store,
      [...all.values()].map(({ id }) => id),
    );
    for (const route of single) {
      const one = all.get(route.keys[0]!)!;
      assert.deepEqual({ ...one, keys: [...one.keys].sort() }, { ...route, keys: [...route.keys].sort() });
    }
    assert.equal(all.get("/rich")!.more!.notice!.text, 'Quotes " and \\ and ü, \\N');
    assert.ok(all.has("pattern:/a\\.b/(\\d+)\\\\"), [...all.keys()].join(" "));
    assert.deepEqual(all.get("/gone")!.destination, null);
  });

  test("those that are off or deleted are not among them", async () => {
    const { body: off } = await make({
      kind: "redirect",
      address: "/off",
      destination: "/x",
      enabled: false,
    });
    const { body: deleted } = await make({ kind: "redirect", address: "/deleted", destination: "/x" });
    await garden.call("DELETE", `/sites/garden/routes/${deleted.id}`);
    const all = await streamed();
    assert.ok(!all.has("/off") && !all.has("/deleted"));
    assert.deepEqual(await readDeliveredRoutes(garden.store, [off.id, deleted.id]), []);
  });

  test("a table of many chunks is whole, with long texts across their borders", async () => {
    const lines = ["address,destination,title"];
    for (let n = 0; n < 3_000; n += 1)
      lines.push(`/chunk/${n},https://shop.example/${"x".repeat(n % 400)}/${n},t`);
    const { body } = await garden.call("POST", "/sites/garden/routes/import", undefined, {
      raw: lines.join("\n"),
      headers: { "Content-Type": "text/csv" },
    });
    assert.equal(body.created, 3_000);
    const all = await streamed();
    for (let n = 0; n < 3_000; n += 1)
      assert.equal(all.get(`/chunk/${n}`)?.destination, `https://shop.example/${"x".repeat(n % 400)}/${n}`);
  });
});

describe("changes of many routes", () => {
  test("are told one by one, in the order of their sequence, a portion at a time", async () => {
    const { store, site } = garden;
    const [edge] = await store.rows<{ seq: string }>(
      "SELECT coalesce(max(seq), 0)::text AS seq FROM changes",
    );
    const ids = Array.from({ length: 6_000 }, (_, n) => String(n + 1));
    await store.transaction((transaction) => noteRoutes(store, transaction, site.id, ids));
    const seen: string[] = [];
    for (let seq = edge!.seq; ;) {
      const portion = (await changesAfter(store, seq))!;
      if (portion.length === 0) break;
      assert.ok(portion.every(({ kind }) => kind === "route"));
      seen.push(...portion.map(({ objectId }) => objectId!));
      seq = portion.at(-1)!.seq;
    }
    assert.deepEqual(seen, ids);
    await store.transaction((transaction) => noteRoutes(store, transaction, site.id, []));
    assert.equal((await changesAfter(store, edge!.seq))!.length, 5_000);
  });
});
