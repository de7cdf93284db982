import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { ask } from "../../../../tests/support/ask.ts";
import { testDelivery, type TestDelivery } from "../../../../tests/support/delivery.ts";
import { testDesk, type TestDesk } from "../../../../tests/support/desk.ts";

let garden: TestDesk;
let delivery: TestDelivery;
let page: { id: string; version: number };
const routes: Record<string, string> = {};

const call = (method: string, path: string, body?: object) =>
  garden.call(method, `/sites/garden${path}`, body);
async function made(path: string, body: object) {
  const { status, body: answer } = await call("POST", path, body);
  assert.equal(status, 201, JSON.stringify(answer));
  return answer;
}
const HTML =
  '<p><a href="/to/rake?a=1#top">rake</a> <a href="https://garden.example/TO/hoe">hoe</a> <a href="https://gdn.example/to/spade">spade</a> <a href="/to/stays">stays</a></p>';

before(async () => {
  garden = await testDesk();
  delivery = await testDelivery(garden.url);
  for (const [address, host, kind] of [
    ["/to/rake", null, "short"],
    ["/to/Hoe", "garden.example", "short"],
    ["/to/spade", "gdn.example", "short"],
    ["/to/stays", null, "short"],
    ["/to/redirected", null, "redirect"],
    ["/go/Stays", null, "short"],
    ["/fern", null, "short"],
  ] as const)
    routes[address] = (
      await made("/routes", { kind, address, host, destination: `https://harbour.example${address}` })
    ).id;
  page = await made("/pages", { path: "/moss", title: "Moss", html: HTML, publish: true });
});
after(async () => {
  await delivery.end();
  await garden.close();
});

const move = (action: object, more = {}) =>
  call("POST", "/links/bulk", { action: { do: "directory", ...action }, published: true, ...more });
const draft = async (): Promise<string> => (await call("GET", `/pages/${page.id}`)).body.html;
const addressOf = async (was: string) => (await call("GET", `/routes/${routes[was]}`)).body;
const located = async (path: string, host = "garden.example") => {
  await delivery.level();
  return (await ask(delivery.port, path, { host })).headers.location;
};

describe("short links move to another directory", () => {
  test("first it is said what would become of each of them, and what cannot", async () => {
    const { status, body } = await move({ from: "/to/", to: "/go/" }, { dryRun: true });
    assert.equal(status, 200, JSON.stringify(body));
    assert.deepEqual(
      body.changes
        .filter(({ place }: { place: string }) => place === "route")
        .map(({ before: was, after: now }: { before: string; after: string }) => [was, now]),
      [
        ["/to/rake", "/go/rake"],
        ["/to/Hoe", "/go/Hoe"],
      ],
    );
    assert.deepEqual(body.refused, [
      { where: "/to/stays", message: "/go/stays belongs to another route already." },
    ]);
    assert.deepEqual([body.routes, body.links, body.batch], [2, 2, null]);
    assert.equal((await addressOf("/to/rake")).address, "/to/rake");
  });

  let batch: string;
  test("then they move, the old addresses answer on, and links in texts follow, for readers too", async () => {
    const { body } = await move({ from: "/to/", to: "/go/" });
    batch = body.batch;
    assert.deepEqual([body.routes, body.links, body.pages], [2, 2, 1]);
    const rake = await addressOf("/to/rake");
    assert.deepEqual([rake.address, rake.aliases], ["/go/rake", ["/to/rake"]]);
    const hoe = await addressOf("/to/Hoe");
    assert.deepEqual([hoe.address, hoe.aliases], ["/go/Hoe", ["/to/Hoe"]]);
    for (const path of ["/go/rake", "/to/rake"])
      assert.equal(await located(path), "https://harbour.example/to/rake", path);
    assert.equal(await located("/to/spade", "gdn.example"), "https://harbour.example/to/spade");
    const html = await draft();
    assert.match(html, /href="\/go\/rake\?a=1#top"/);
    assert.match(html, /href="https:\/\/garden\.example\/go\/hoe"/);
    assert.match(html, /href="https:\/\/gdn\.example\/to\/spade"/);
    assert.match(html, /href="\/to\/stays"/);
    assert.match((await ask(delivery.port, "/moss")).body, /\/go\/rake/);
  });

  test("and all of it is undone at once", async () => {
    const { status, body } = await call("POST", `/links/bulk/${batch}/undo`);
    assert.deepEqual([status, body.left], [200, []]);
    const rake = await addressOf("/to/rake");
    assert.deepEqual([rake.address, rake.aliases], ["/to/rake", []]);
    assert.equal(await draft(), HTML);
    assert.equal(await located("/go/rake"), undefined);
    assert.equal(await located("/to/rake"), "https://harbour.example/to/rake");
  });

  test("out of every directory and into one; what is there already stays", async () => {
    const { body } = await move({ from: "/", to: "/go/", keepOld: false }, { dryRun: true });
    const moved = body.changes.filter(({ place }: { place: string }) => place === "route");
    assert.deepEqual(moved.map(({ after: now }: { after: string }) => now).sort(), [
      "/go/fern",
      "/go/to/Hoe",
      "/go/to/rake",
      "/go/to/stays",
    ]);
  });

  test("without the old addresses where they are not wanted; over a page never", async () => {
    await made("/pages", { path: "/s/hoe", title: "Hoe", html: "", publish: true });
    const { body } = await move({ from: "/to/", to: "/s/", keepOld: false });
    assert.deepEqual(
      body.refused.map(({ message }: { message: string }) => message),
      ["/s/Hoe is a page."],
    );
    assert.deepEqual((await addressOf("/to/rake")).aliases, []);
    assert.equal(await located("/to/rake"), undefined);
    assert.equal(await located("/s/rake"), "https://harbour.example/to/rake");
  });

  test("on another host, of which the pages' host is not asked", async () => {
    const { body } = await move({ from: "/to/", to: "/s/", host: "gdn.example" }, { dryRun: true });
    const moved = body.changes.filter(({ place }: { place: string }) => place === "route");
    assert.deepEqual(
      moved.map(({ after: now }: { after: string }) => now),
      ["/s/spade"],
    );
    const refused = await move({ from: "/to/", to: "/s/", host: "elsewhere.example" });
    assert.deepEqual([refused.status, refused.body.errors[0].path], [422, "action.host"]);
  });

  test("what is no directory is told at its field", async () => {
    for (const [action, path] of [
      [{ from: "to", to: "/go/" }, "action.from"],
      [{ from: "/to/", to: "/go" }, "action.to"],
      [{ from: "/to/" }, "action.to"],
    ] as const) {
      const refused = await move(action);
      assert.deepEqual([refused.status, refused.body.errors[0].path], [422, path]);
    }
  });
});
