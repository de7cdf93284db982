import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { ask } from "../../../tests/support/ask.ts";
import { testDelivery, type TestDelivery } from "../../../tests/support/delivery.ts";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";
import type { ReadDocument } from "../../outgoing/outgoing.ts";
import { proofWith } from "../../incoming/proof.ts";

let garden: TestDesk;
let delivery: TestDelivery;
let route: string;
before(async () => {
  garden = await testDesk();
  delivery = await testDelivery(garden.url);
  const short = {
    kind: "short",
    address: "/Rake",
    host: "gdn.example",
    destination: "https://harbour.example/r",
  };
  route = (await garden.call("POST", "/sites/garden/routes", short)).body.id;
  const page = {
    path: "/moss",
    title: "Moss",
    html: '<p><a href="https://gdn.example/rake">rake</a></p>',
    publish: true,
  };
  assert.equal((await garden.call("POST", "/sites/garden/pages", page)).status, 201);
});
after(async () => {
  await delivery.end();
  await garden.close();
});

const call = (method: string, path: string, body?: object) =>
  garden.call(method, `/sites/garden/hosts${path}`, body);
const located = async (path: string, host: string) => {
  const { status, headers } = await ask(delivery.port, path, { host });
  return [status, headers.location];
};

describe("a host with another name", () => {
  test("says first what hangs on it", async () => {
    await garden.call("GET", "/sites/garden/links"); // waits for the ledger
    const { body } = await call("GET", "");
    const short = body.items.find(({ name }: { name: string }) => name === "gdn.example");
    assert.deepEqual([short.routes, short.shortLinks, short.pages, short.links], [1, 1, 0, 1]);
    const primary = body.items.find(({ role }: { role: string }) => role === "primary");
    assert.deepEqual([primary.routes, primary.pages, primary.leadsTo], [0, 1, null]);
  });

  test("takes its routes along; the old name leads to the new one, path by path, with what stands behind", async () => {
    const renamed = await call("PATCH", "/gdn.example", { name: "Grdn.example" });
    assert.deepEqual([renamed.status, renamed.body.name, renamed.body.role], [200, "grdn.example", "short"]);
    await delivery.level();
    assert.deepEqual(await located("/rake", "grdn.example"), [302, "https://harbour.example/r"]);
    assert.deepEqual(await located("/rake?a=%20b&c", "gdn.example"), [
      308,
      "https://grdn.example/rake?a=%20b&c",
    ]);
    assert.deepEqual(await located("//evil.example/", "gdn.example"), [
      308,
      "https://grdn.example//evil.example/",
    ]);
    const { body } = await garden.call("GET", `/sites/garden/routes/${route}`);
    assert.deepEqual([body.host, body.url], ["grdn.example", "https://grdn.example/Rake"]);
    const { body: hosts } = await call("GET", "");
    const former = hosts.items.find(({ name }: { name: string }) => name === "gdn.example");
    assert.deepEqual([former.role, former.leadsTo], ["former", "grdn.example"]);
  });

  test("a former one takes no routes; a second name makes both old ones lead to the newest", async () => {
    const onOld = {
      kind: "short",
      address: "/x",
      host: "gdn.example",
      destination: "https://harbour.example/x",
    };
    assert.equal((await garden.call("POST", "/sites/garden/routes", onOld)).status, 422);
    assert.equal((await call("PATCH", "/grdn.example", { name: "g.example" })).status, 200);
    await delivery.level();
    for (const host of ["gdn.example", "grdn.example"])
      assert.deepEqual(await located("/rake", host), [308, "https://g.example/rake"], host);
  });

  test("the primary one, too, with its pages; the old name is let go where it is not wanted", async () => {
    assert.equal(
      (await call("PATCH", "/garden.example", { name: "moss.example", keepsOld: false })).status,
      200,
    );
    await delivery.level();
    assert.equal((await ask(delivery.port, "/moss", { host: "moss.example" })).status, 200);
    assert.equal((await ask(delivery.port, "/moss", { host: "garden.example" })).status, 421);
    assert.equal((await garden.call("GET", "/sites/garden")).body.hosts[0].name, "moss.example");
  });

  test("where the host that a former one leads to is taken away, it leads to the primary one", async () => {
    assert.equal((await call("POST", "", { name: "fern.example" })).status, 201);
    assert.equal((await call("PATCH", "/fern.example", { name: "ferns.example" })).status, 200);
    assert.equal((await call("DELETE", "/ferns.example")).status, 204);
    await delivery.level();
    assert.deepEqual(await located("/moss", "fern.example"), [308, "https://moss.example/moss"]);
    assert.equal((await call("PATCH", "/fern.example", { role: "other" })).body.role, "other");
    await delivery.level();
    assert.equal((await ask(delivery.port, "/moss", { host: "fern.example" })).status, 200);
  });

  test("not one that is taken, that is no name, or the workspace's", async () => {
    for (const name of ["gdn.example", "no name", "localhost"]) {
      const refused = await call("PATCH", "/g.example", { name });
      assert.deepEqual([refused.status, refused.body.errors[0].path], [422, "name"], name);
    }
  });
});

describe("whether a host leads here", () => {
  const asking = async (read: (address: string) => Promise<ReadDocument>) => {
    const { desk } = garden;
    const before_ = desk.outgoing;
    desk.outgoing = { ...before_, read };
    try {
      return (await call("POST", "/g.example/check")).body;
    } finally {
      desk.outgoing = before_;
    }
  };

  test("is asked plainly and by https, with a question that this installation alone can answer", async () => {
    const proof = proofWith("a secret of the tests");
    const check = await asking(async (address) => {
      const url = new URL(address);
      if (url.protocol === "https:") return { ok: false, reason: "has no certificate" };
      const { body } = await ask(delivery.port, url.pathname + url.search, { host: url.hostname });
      assert.equal(body, proof(url.searchParams.get("question")!));
      return { ok: true, type: "text/plain", bytes: new TextEncoder().encode(body) };
    });
    assert.deepEqual(check, {
      plain: { address: "http://g.example/", isOurs: true, says: "leads here." },
      secure: { address: "https://g.example/", isOurs: false, says: "has no certificate." },
    });
  });

  test("another server that answers something is told apart, even one that repeats an old answer", async () => {
    const old = new TextEncoder().encode(proofWith("a secret of the tests")("an earlier question"));
    const check = await asking(async () => ({ ok: true, type: "text/plain", bytes: old }));
    assert.deepEqual([check.plain.isOurs, /another server/.test(check.plain.says)], [false, true]);
    assert.equal((await call("POST", "/nowhere.example/check")).status, 404);
  });

  test("nobody gets an answer without a question", async () => {
    for (const query of ["", "?question=", "?question=a b", "?question=<script>"])
      assert.equal((await ask(delivery.port, `/.well-known/map-rope${encodeURI(query)}`)).status, 404, query);
  });
});
