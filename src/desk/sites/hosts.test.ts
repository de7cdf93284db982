import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { until } from "../../../tests/support/ask.ts";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";

let garden: TestDesk;
before(async () => {
  garden = await testDesk();
});
after(() => garden.close());

const HOSTS = "/sites/garden/hosts";
const call = (method: string, path = "", body?: object) => garden.call(method, HOSTS + path, body);
const hosts = async (): Promise<[string, string, number][]> =>
  (await call("GET")).body.items.map((one: { name: string; role: string; routes: number }) => [
    one.name,
    one.role,
    one.routes,
  ]);

describe("the hosts of a site", () => {
  test("are added; a name that is no host, the workspace's or another site's is refused at its field", async () => {
    const { status, body } = await call("POST", "", { name: "Allotment.example" });
    assert.deepEqual([status, body.name, body.role, body.routes], [201, "allotment.example", "other", 0]);
    for (const name of ["", "no host", "*.example", "127.0.0.1", "localhost", "gdn.example"]) {
      const refused = await call("POST", "", { name });
      assert.deepEqual([refused.status, refused.body.errors[0].path], [422, "name"], name);
    }
    assert.deepEqual(await hosts(), [
      ["garden.example", "primary", 0],
      ["gdn.example", "short", 0],
      ["allotment.example", "other", 0],
    ]);
    const { body: site } = await garden.call("GET", "/sites/garden");
    assert.equal(site.hosts.length, 3);
  });

  test("there is one primary, whichever is made so", async () => {
    assert.equal((await call("PATCH", "/garden.example", { role: "short" })).status, 422);
    assert.equal((await call("PATCH", "/allotment.example", { role: "primary" })).body.role, "primary");
    assert.deepEqual(
      (await hosts()).map(([name, role]) => [name, role]),
      [
        ["garden.example", "other"],
        ["gdn.example", "short"],
        ["allotment.example", "primary"],
      ],
    );
    assert.equal((await call("DELETE", "/allotment.example")).status, 409);
    await call("PATCH", "/garden.example", { role: "primary" });
  });

  test("one on which routes answer alone tells how many, and stays", async () => {
    const route = {
      kind: "short",
      address: "/s",
      host: "gdn.example",
      destination: "https://shop.example/s",
    };
    const { body: made } = await garden.call("POST", "/sites/garden/routes", route);
    const { status, body } = await call("DELETE", "/gdn.example");
    assert.deepEqual([status, /^1 route answers on gdn\.example alone/.test(body.detail)], [409, true]);
    assert.equal((await hosts())[1]![2], 1);
    await garden.call("DELETE", `/sites/garden/routes/${made.id}`);
    assert.equal((await call("DELETE", "/gdn.example")).status, 204);
    assert.equal((await call("DELETE", "/gdn.example")).status, 404);
  });

  test("what is inside is told by them: links are read anew when they change", async () => {
    const page = {
      path: "/ways",
      title: "Ways",
      html: '<p><a href="https://seeds.example/ways">seeds</a></p>',
    };
    await garden.call("POST", "/sites/garden/pages", page);
    const kind = async (): Promise<string | undefined> =>
      (await garden.call("GET", "/sites/garden/links?page=/ways")).body.items[0]?.kind;
    await until("the link is outside", async () => (await kind()) === "external");
    assert.equal((await call("POST", "", { name: "seeds.example" })).status, 201);
    await until("it is inside", async () => !["external", undefined].includes(await kind()));
    const { body } = await garden.call("GET", "/sites/garden/history?action=host");
    assert.deepEqual(
      body.items.slice(0, 2).map((one: { action: string; object: string }) => [one.action, one.object]),
      [
        ["host.add", "seeds.example"],
        ["host.remove", "gdn.example"],
      ],
    );
  });
});
