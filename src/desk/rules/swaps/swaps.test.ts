import assert from "node:assert/strict";
import { after, before, test } from "node:test";
import { ask, until } from "../../../../tests/support/ask.ts";
import { testDelivery, type TestDelivery } from "../../../../tests/support/delivery.ts";
import { testDesk, type TestDesk } from "../../../../tests/support/desk.ts";

const SWAPS = "/sites/garden/swaps";
const SHOP = { what: "host", find: "old-shop.example", replace: "shop.example" };
const DEAD = { what: "address", find: "https://gone.example/a", replace: "/about" };

let garden: TestDesk;
let delivery: TestDelivery;
before(async () => {
  garden = await testDesk();
  const html = `<p><a href="https://old-shop.example/1?x">one</a> <a href="https://gone.example/a">two</a> <a href="https://news.example/">three</a></p>`;
  await garden.call("POST", "/sites/garden/pages", {
    path: "/about",
    title: "About",
    html: "<p>We.</p>",
    publish: true,
  });
  await garden.call("POST", "/sites/garden/pages", { path: "/a", title: "A", html, publish: true });
  const rules = [{ name: "Shop", match: { domains: ["shop.example"] }, set: { sponsored: "on" } }];
  await garden.call("PUT", "/sites/garden/rules", { version: 0, rules });
  delivery = await testDelivery(garden.url);
});
after(async () => {
  await delivery.end();
  await garden.close();
});

const delivered = async (): Promise<string> =>
  (await ask(delivery.port, "/a", { host: "garden.example" })).body;

test("a set is tried before it acts: how many links each changes, with samples", async () => {
  const { status, body } = await garden.call("POST", `${SWAPS}/try`, {
    swaps: [SHOP, DEAD, { ...DEAD, find: "/nowhere" }],
  });
  assert.equal(status, 200, JSON.stringify(body));
  assert.deepEqual([body.links, body.pages, body.outOfReach, body.changes], [2, 1, 0, [1, 1, 0]]);
  assert.deepEqual(body.samples[0], {
    page: "/a",
    words: "one",
    before: "https://old-shop.example/1?x",
    after: "https://shop.example/1?x",
    by: [0],
  });
  assert.match(await delivered(), /href="https:\/\/old-shop\.example/);
});

test("in force, readers get the new addresses, marked as rules mark those, and the ledger says the same", async () => {
  const saved = await garden.call("PUT", SWAPS, { version: 0, swaps: [SHOP, DEAD] });
  assert.deepEqual([saved.status, saved.body.version], [200, 1]);
  await until("delivered pages follow", async () => (await delivered()).includes("https://shop.example/1?x"));
  assert.match(
    await delivered(),
    /<a href="https:\/\/shop\.example\/1\?x" rel="sponsored">one<\/a> <a href="\/about">two<\/a>/,
  );
  const { body } = await garden.call("GET", "/sites/garden/links");
  const [one, two] = ["one", "two"].map((words) =>
    body.items.find((link: { anchor: string }) => link.anchor === words),
  );
  assert.deepEqual(
    [one.href, one.host, one.delivered.rel],
    ["https://old-shop.example/1?x", "shop.example", ["sponsored"]],
  );
  assert.equal(two.kind, "page");
  const shown = await garden.call("GET", "/sites/garden/pages/2");
  assert.match(shown.body.html, /old-shop\.example/, "what its author wrote stays");
});

test("every set is kept, and one of them put back over the one that was seen", async () => {
  assert.equal((await garden.call("PUT", SWAPS, { version: 0, swaps: [] })).status, 409);
  await garden.call("PUT", SWAPS, { version: 1, swaps: [] });
  await until("delivered pages follow", async () =>
    (await delivered()).includes("https://old-shop.example/"),
  );
  const { body } = await garden.call("GET", `${SWAPS}/versions`);
  assert.deepEqual(
    body.items.map(({ version, swaps }: { version: number; swaps: object[] }) => [version, swaps.length]),
    [[2, 0], [1, 2]],
  ); // prettier-ignore
  assert.equal((await garden.call("POST", `${SWAPS}/versions/1/restore`, { version: 1 })).status, 409);
  const back = await garden.call("POST", `${SWAPS}/versions/1/restore`, { version: 2 });
  assert.deepEqual([back.body.version, back.body.swaps.length], [3, 2]);
  assert.deepEqual((await garden.call("GET", SWAPS)).body, back.body);
  assert.equal((await garden.call("POST", `${SWAPS}/versions/x/restore`, { version: 3 })).status, 404);
});

test("what cannot be taken is said at its field", async () => {
  const { status, body } = await garden.call("PUT", SWAPS, { version: 3, swaps: [{ ...SHOP, replace: "" }] });
  assert.deepEqual([status, body.errors[0].path], [422, "swaps.0.replace"]);
});
