import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";

let garden: TestDesk;
before(async () => {
  garden = await testDesk();
});
after(() => garden.close());

const SITE = "/sites/garden";
const call = (method: string, path: string, body?: object) => garden.call(method, `${SITE}${path}`, body);
async function made(path: string, body: object): Promise<{ id: string; version: number }> {
  const { status, body: answer } = await call("POST", path, body);
  assert.equal(status, 201, JSON.stringify(answer));
  return answer;
}
interface Item {
  id: string;
  kind: string;
  name: string;
  address: string;
  deletedBy: string | null;
}
const bin = async (query = ""): Promise<Item[]> => (await call("GET", `/bin${query}`)).body.items;
const back = (item: string, body: object = {}) => call("POST", `/bin/${item}/restore`, body);

describe("the bin", () => {
  test("holds what was deleted of every kind, the latest first, with who did it; all of it comes back", async () => {
    const page = await made("/pages", { path: "/roses", title: "Roses", html: "<p>a</p>", publish: true });
    const block = await made("/blocks", {
      title: "A box",
      html: "<p>b</p>",
      placement: { place: "footer", shown: "all" },
    });
    const route = await made("/routes", {
      kind: "short",
      address: "/to/rake",
      destination: "https://shop.example/rake",
    });
    const program = await made("/programs", {
      name: "Shears",
      network: "Hedge",
      domains: ["shears.example"],
    });
    const creative = await made(`/programs/${program.id}/creatives`, {
      name: "A banner",
      html: '<a href="https://shears.example/?a=1">Shears</a>',
    });
    const paths = [
      `/pages/${page.id}`,
      `/blocks/${block.id}`,
      `/routes/${route.id}`,
      `/creatives/${creative.id}`,
    ].map((path) => path.replace("/blocks/", "/pages/"));
    for (const path of paths) assert.equal((await call("DELETE", path)).status, 204, path);
    assert.deepEqual(
      (await bin()).map(({ kind, name, address, deletedBy }) => [kind, name, address, deletedBy]),
      [
        ["creative", "A banner", "Shears", "Ida"],
        ["route", "/to/rake", "https://shop.example/rake", "Ida"],
        ["block", "A box", "", "Ida"],
        ["page", "Roses", "/roses", "Ida"],
      ],
    );
    assert.equal((await call("DELETE", `/programs/${program.id}`)).status, 204);
    assert.deepEqual(
      (await bin()).map(({ kind }) => kind),
      ["program", "route", "block", "page"],
      "a creative comes back into its program",
    );
    assert.deepEqual(
      (await bin("?q=shears")).map(({ name }) => name),
      ["Shears"],
    );
    assert.deepEqual(
      (await bin("?kind=page")).map(({ name }) => name),
      ["Roses"],
    );
    for (const { id } of await bin()) assert.equal((await back(id)).status, 204, id);
    assert.equal((await back(`creative-${creative.id}`)).status, 204);
    assert.deepEqual(await bin(), []);
    for (const path of [...paths.slice(0, 3), `/programs/${program.id}`])
      assert.equal((await call("GET", path)).status, 200, path);
  });

  test("an address that was given away meanwhile is told; it comes back at another", async () => {
    const page = await made("/pages", { path: "/moss", title: "Moss", html: "<p>m</p>", publish: true });
    await call("DELETE", `/pages/${page.id}`);
    await made("/pages", { path: "/moss", title: "Another moss", html: "<p>n</p>", publish: true });
    const refused = await back(`page-${page.id}`);
    assert.deepEqual([refused.status, /moss/.test(refused.body.errors[0].message)], [422, true]);
    const bad = await back(`page-${page.id}`, { address: "no slash" });
    assert.deepEqual([bad.status, bad.body.errors[0].path], [422, "address"]);
    assert.equal((await back(`page-${page.id}`, { address: "/old-moss" })).status, 204);
    const { body } = await call("GET", `/pages/${page.id}`);
    assert.deepEqual([body.path, body.state], ["/old-moss", body.state]);

    const route = await made("/routes", { kind: "redirect", address: "/fern", destination: "/moss" });
    await call("DELETE", `/routes/${route.id}`);
    await made("/routes", { kind: "redirect", address: "/fern", destination: "/old-moss" });
    assert.equal((await back(`route-${route.id}`)).status, 422);
    assert.equal((await back(`route-${route.id}`, { address: "/fern-2" })).status, 204);
    assert.equal((await call("GET", `/routes/${route.id}`)).body.address, "/fern-2");
  });

  test("a published page does not come back over a route that answers its path by now", async () => {
    const page = await made("/pages", { path: "/ivy", title: "Ivy", html: "<p>i</p>", publish: true });
    await call("DELETE", `/pages/${page.id}`);
    await made("/routes", { kind: "redirect", address: "/ivy", destination: "/moss" });
    const { status, body } = await back(`page-${page.id}`);
    assert.deepEqual([status, /route \/ivy answers/.test(body.errors[0].message)], [422, true]);
  });

  test("what has no address takes none, and what is not there is not found", async () => {
    const program = await made("/programs", { name: "Hoes", network: "Hedge", domains: ["hoes.example"] });
    await call("DELETE", `/programs/${program.id}`);
    assert.equal((await back(`program-${program.id}`, { address: "/x" })).status, 422);
    for (const item of ["page-999999", "program-999999", "creative-999999", "file-999999"])
      assert.equal((await back(item)).status, 404, item);
  });

  test("of a month ago and before nothing is left", async () => {
    const page = await made("/pages", { path: "/old", title: "Old", html: "" });
    await call("DELETE", `/pages/${page.id}`);
    await garden.store.rows(
      "UPDATE pages SET deleted_at = now() - interval '31 days' WHERE id = $id::bigint RETURNING id",
      { id: page.id },
    );
    assert.ok((await bin()).every(({ name }) => name !== "Old"));
  });
});

describe("the history", () => {
  interface Entry {
    person: string;
    action: string;
    object: string;
    name: string | null;
    before: unknown;
    after: unknown;
  }
  const entries = async (query: string): Promise<Entry[]> =>
    (await call("GET", `/history${query}`)).body.items;

  test("says who did what to what, and what it is called; narrowed by each of them", async () => {
    const page = await made("/pages", { path: "/hist", title: "Histories", html: "<p>h</p>" });
    await call("POST", `/pages/${page.id}/publish`, { version: page.version });
    const of = await entries(`?object=${page.id}&action=page`);
    assert.deepEqual(
      of.map(({ person, action, name }) => [person, action, name]),
      [
        ["Ida", "page.publish", "Histories"],
        ["Ida", "page.create", "Histories"],
      ],
    );
    assert.deepEqual(
      (await entries(`?object=${page.id}&action=page.publish`)).map(({ action }) => action),
      ["page.publish"],
    );
    assert.deepEqual(await entries("?person=Nobody"), []);
    assert.deepEqual(await entries("?to=2001-01-01"), []);
    const today = new Date().toISOString().slice(0, 10);
    assert.ok((await entries(`?from=${today}&to=${today}`)).length > 0, "a day is meant whole");
  });

  test("in portions, and as CSV that no spreadsheet runs", async () => {
    const first = await call("GET", "/history?limit=2");
    assert.equal(first.body.items.length, 2);
    const second = await call("GET", `/history?limit=2&cursor=${first.body.nextCursor}`);
    assert.notEqual(second.body.items[0].id, first.body.items[0].id);
    const { body, type } = await call("GET", "/history/export?action=page");
    assert.match(type, /text\/csv/);
    assert.match(body, /^at,person,action,object,name,detail,request\r\n\d{4}-/);
  });

  test("what a person was before and after stands in it", async () => {
    const { body: member } = await call("POST", "/people", {
      mail: "bee@garden.example",
      name: "Bee",
      role: "reader",
    });
    await call("PUT", `/people/${member.id}`, { role: "editor" });
    const [entry] = await entries("?action=member.change");
    assert.deepEqual(
      [entry!.name, entry!.before, entry!.after],
      ["Bee", { role: "reader" }, { role: "editor" }],
    );
  });

  test("a program is found by its id, whatever it was called when something was done to it", async () => {
    const { id, version } = await made("/programs", { name: "Fernworks", domains: ["fernworks.example"] });
    await call("PATCH", `/programs/${id}`, { name: "Mossworks", version });
    const told = (await call("GET", `/history?action=program&object=${id}`)).body.items;
    assert.deepEqual(
      told.map(({ action, object }: { action: string; object: string }) => [action, object]),
      [
        ["program.change", "Mossworks"],
        ["program.create", "Fernworks"],
      ],
    );
  });

  test("what makes no sense is refused at its field", async () => {
    for (const [query, path] of [
      ["?from=soon", "from"],
      ["?action=PAGE", "action"],
      ["?limit=0", "limit"],
      ["?colour=red", "colour"],
    ] as const) {
      const { status, body } = await call("GET", `/history${query}`);
      assert.deepEqual([status, body.errors[0].path], [400, path], query);
    }
  });
});
