import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { strFromU8, unzipSync } from "fflate";
import { ask } from "../../../../tests/support/ask.ts";
import { testDelivery, type TestDelivery } from "../../../../tests/support/delivery.ts";
import { testDesk, type TestDesk } from "../../../../tests/support/desk.ts";
import { contract } from "../../../contract/contract.ts";

let garden: TestDesk;
let delivery: TestDelivery;
before(async () => {
  garden = await testDesk();
  delivery = await testDelivery(garden.url);
  const page = { path: "/moss", title: "Moss & more", html: "<p>Soft <b>ü</b></p>", publish: true };
  for (const [path, body] of [
    ["/pages", page],
    ["/routes", { kind: "short", address: "/to/lamps", destination: "https://harbour.example/lamps" }],
    ["/programs", { name: "Shears", network: "Hedge", domains: ["shears.example"], trackingId: "G-1" }],
  ] as const)
    assert.equal((await garden.call("POST", `/sites/garden${path}`, body)).status, 201, path);
  const rules = [
    { name: "All", enabled: true, match: { destination: "external" }, set: { nofollow: "on" }, mode: "fill" },
  ];
  assert.equal((await garden.call("PUT", "/sites/garden/rules", { version: 0, rules })).status, 200);
  const file = new TextEncoder().encode("%PDF-1.4\n%%EOF\n");
  const sent = await garden.call("POST", "/sites/garden/files?name=leaflet.pdf", undefined, {
    raw: file,
    headers: { "Content-Type": "application/pdf" },
  });
  assert.equal(sent.status, 201, JSON.stringify(sent.body));
});
after(async () => {
  await delivery.end();
  await garden.close();
});
const site = async () => (await garden.call("GET", "/sites/garden")).body;

describe("a site as a whole", () => {
  test("is exported with everything in it, for its owners alone", async () => {
    const { status, type, bytes } = await garden.call("GET", "/sites/garden/whole");
    assert.deepEqual([status, type], [200, "application/zip"]);
    const files = unzipSync(bytes);
    const text = (name: string): string => strFromU8(files[name]!);
    assert.match(text("pages/moss.html"), /<p>Soft <strong>ü<\/strong><\/p>/);
    assert.match(text("delivered/moss.html"), /Soft/);
    assert.match(text("routes.csv"), /\/to\/lamps,https:\/\/harbour\.example\/lamps/);
    assert.equal(JSON.parse(text("rules.json")).rules[0].name, "All");
    assert.equal(JSON.parse(text("programs.json"))[0].trackingId, "G-1");
    assert.equal(JSON.parse(text("site.json")).key, "garden");
    assert.match(text("history.csv"), /page\.create/);
    const month = new Date().toISOString().slice(0, 7);
    assert.match(text(`clicks/${month}.csv`), /^time,route/);
    const [leaflet] = Object.keys(files).filter((name) => name.startsWith("files/"));
    assert.equal(strFromU8(files[leaflet!]!), "%PDF-1.4\n%%EOF\n");
    const editor = { name: "Bea", role: "editor" } as const;
    assert.equal((await garden.call("GET", "/sites/garden/whole", undefined, { actor: editor })).status, 403);
  });

  test("rests: readers get what they got, everything is looked at, and nothing is changed by any call", async () => {
    assert.equal((await garden.call("DELETE", "/sites/garden", { key: "garden" })).status, 409);
    const rested = await garden.call("POST", "/sites/garden/rest");
    assert.match(rested.body.archivedAt, /^20/);
    await delivery.level();
    assert.equal((await ask(delivery.port, "/moss")).status, 200);
    assert.equal((await ask(delivery.port, "/to/lamps")).status, 302);
    const before_ = await site();
    for (const { method, path, role, ofResting } of Object.values(contract).flatMap((one) =>
      Object.values(one),
    )) {
      if (method === "GET" || role === "reader" || ofResting || !path.startsWith("/sites/:site")) continue;
      const named = path
        .replace(":site", "garden")
        .replace(":item", "page-1")
        .replace(":host", "gdn.example")
        .replace(/:(?:job|session)/, "8c1fb2d4-3c8f-4e51-9b0e-3a4f6a1c2d3e")
        .replace(/:\w+/g, "1");
      const { status, body } = await garden.call(method, named, method === "DELETE" ? undefined : {});
      assert.deepEqual([status, body.title], [409, "This site is archived"], `${method} ${named}`);
    }
    assert.equal(
      (await garden.call("POST", "/sites/garden/trace", { addresses: ["/moss"] })).status !== 409,
      true,
    );
    assert.deepEqual(await site(), before_);
    assert.equal((await garden.call("POST", "/sites/garden/wake")).body.archivedAt, null);
    assert.equal(
      (await garden.call("POST", "/sites/garden/pages", { path: "/new", title: "N", html: "" })).status,
      201,
    );
  });

  test("gives its settings and rules to a new one, its hosts and texts to none", async () => {
    const { version } = await site();
    const set = { tagline: "All that grows", variables: { account: "A-1" }, language: "de", version };
    assert.equal((await garden.call("PATCH", "/sites/garden", set)).status, 200);
    const hosts = [{ name: "moss.example", role: "primary" }];
    const input = { key: "moss", name: "Moss", hosts, copyOf: "garden", copyRules: true };
    const made = await garden.call("POST", "/sites", input);
    assert.equal(made.status, 201, JSON.stringify(made.body));
    assert.deepEqual(
      [made.body.tagline, made.body.variables, made.body.language, made.body.hosts.length],
      ["All that grows", { account: "A-1" }, "de", 1],
    );
    assert.equal((await garden.call("GET", "/sites/moss/rules")).body.rules[0].name, "All");
    assert.equal((await garden.call("GET", "/sites/moss/pages")).body.total, 0);
    const other = { ...input, key: "fern", hosts: [{ name: "fern.example", role: "primary" }] };
    const refused = await garden.call("POST", "/sites", { ...other, copyOf: "nowhere" });
    assert.deepEqual([refused.status, refused.body.errors[0].path], [422, "copyOf"]);
    await garden.call("POST", "/sites", { ...other, copyRules: false });
    assert.deepEqual((await garden.call("GET", "/sites/fern/rules")).body.rules, []);
  });

  test("is deleted for good once it rests, was exported since and its key is given; readers get nothing then", async () => {
    const remove = (key: string) => garden.call("DELETE", "/sites/garden", { key });
    await garden.call("POST", "/sites/garden/rest");
    const wrong = await remove("gardn");
    assert.deepEqual([wrong.status, wrong.body.errors[0].path], [422, "key"]);
    assert.deepEqual([(await remove("garden")).body.title], ["Not exported"]);
    assert.equal((await garden.call("GET", "/sites/garden/whole")).status, 200);
    assert.equal((await remove("garden")).status, 204);
    await delivery.level();
    assert.equal((await ask(delivery.port, "/moss")).status, 421);
    assert.equal((await ask(delivery.port, "/to/lamps", { host: "gdn.example" })).status, 421);
    assert.equal((await garden.call("GET", "/sites/garden")).status, 404);
    // Others are there still, and their changes reach readers.
    const page = { path: "/", title: "Here", html: "<p>h</p>", publish: true };
    assert.equal((await garden.call("POST", "/sites/moss/pages", page)).status, 201);
    await delivery.level();
    assert.equal((await ask(delivery.port, "/", { host: "moss.example" })).status, 200);
  });
});
