import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { ask, ROBOT, until } from "../../../tests/support/ask.ts";
import { testDelivery, type TestDelivery } from "../../../tests/support/delivery.ts";
import { testDesk, type Answered, type TestDesk } from "../../../tests/support/desk.ts";

const ROUTES = "/sites/garden/routes";
const short = { host: "gdn.example" };
let garden: TestDesk;
let delivery: TestDelivery;

before(async () => {
  garden = await testDesk();
  await garden.call("POST", "/sites/garden/pages", {
    path: "/lamps",
    title: "Lamps",
    html: "<p>Light</p>",
    publish: true,
  });
  delivery = await testDelivery(garden.url);
});
after(async () => {
  await delivery.end();
  await garden.close();
  assert.deepEqual(garden.failures, []);
});

/** Calls the API, and waits until readers get what that changed. */
async function call(method: string, path: string, body?: unknown): Promise<Answered> {
  const answered = await garden.call(method, path, body);
  if (method !== "GET") await delivery.level();
  return answered;
}
async function make(route: Record<string, unknown>): Promise<Record<string, never>> {
  const made = await call("POST", ROUTES, route);
  assert.equal(made.status, 201, JSON.stringify(made.body));
  return made.body;
}
const reply = (path: string, options: Parameters<typeof ask>[2] = {}) => ask(delivery.port, path, options);
async function followed(path: string, options: Parameters<typeof ask>[2] = {}): Promise<string> {
  const { status, headers } = await reply(path, options);
  return `${status} ${headers.location ?? ""}`.trim();
}

describe("every way of answering, as a reader gets it", () => {
  test("prefix, wildcard and pattern, with captures; a page and an exact route go before them", async () => {
    await make({ kind: "redirect", match: "prefix", address: "/blog", destination: "/notes/$1" });
    const lam = await make({
      kind: "redirect",
      match: "wildcard",
      address: "/lam*",
      destination: "/nowhere/$1",
    });
    await make({
      kind: "redirect",
      match: "pattern",
      address: "/(\\d+)/(.+)",
      destination: "https://shop.example/$2?n=$1",
      query: "forward",
    });
    await make({ kind: "redirect", address: "/blog/exact", destination: "/exact" });
    assert.equal(await followed("/blog/a/b"), "301 /notes/a/b");
    assert.equal(await followed("/blog/exact"), "301 /exact");
    assert.equal(await followed("/lamps"), "200");
    assert.equal(await followed("/lamp-x"), "301 /nowhere/p-x");
    await call("DELETE", `${ROUTES}/${lam.id}`);
    assert.equal(await followed("/12/x?a=1"), "301 https://shop.example/x?n=12&a=1");
    assert.equal(
      await followed("/blog/..%2f..%2fetc"),
      "301 /notes/..%2F..%2Fetc",
      "an encoded slash is no slash",
    );
    assert.equal(await followed("/blog/%0d%0aX: 1".replace(" ", "%20")), "301 /notes/%0D%0AX:%201");
    assert.equal((await reply(`/blog/${"x".repeat(9_000)}`)).status, 404, "nobody's address is so long");
    assert.equal(
      (await reply("/blog/%252e%252e/x")).headers.location,
      "/notes/%252e%252e/x",
      "double encoding stays double",
    );
  });

  test("addresses that nobody sends in earnest have their answers", async () => {
    const answers: readonly (readonly [path: string, status: number, location?: string])[] = [
      [`/${"x".repeat(65_000)}`, 431],
      ["/blog/%00", 301, "/notes/%00"],
      ["/blog/../blog/exact", 301, "/exact"],
      ["/%2e%2e/%2e%2e/blog/exact", 301, "/exact"],
      ["/blog/%252e%252e/%252fx", 301, "/notes/%252e%252e/%252fx"],
      ["//blog/exact", 404],
      ["/blog/%", 301, "/notes/%25"],
    ];
    for (const [path, status, location] of answers) {
      const got = await reply(path);
      assert.deepEqual([got.status, got.headers.location], [status, location], path.slice(0, 60));
    }
    assert.equal((await reply("/blog/x", { host: "stranger.example" })).status, 421);
    for (const method of ["POST", "PUT", "OPTIONS", "TRACE"])
      assert.equal((await reply("/blog/x", { method })).status, 405);
  });

  test("a capture never chooses another host", async () => {
    await make({ kind: "redirect", match: "prefix", address: "/away", destination: "/$1" });
    assert.equal(await followed("/away//evil.example/x"), "301 /evil.example/x");
    assert.equal(await followed("/away/%5Cevil.example"), "301 /%5Cevil.example");
    const open = await call("POST", ROUTES, {
      kind: "redirect",
      match: "prefix",
      address: "/open",
      destination: "https://$1/",
    });
    assert.equal(open.status, 422);
    assert.match(open.body.errors[0].message, /choose whose site/);
  });

  test("a notice shows itself, goes on without script, can be stayed on, and is not indexed", async () => {
    await make({
      kind: "short",
      ...short,
      address: "/word",
      destination: "https://shop.example/lamp?a=1",
      notice: { seconds: 7, text: "You leave <us>." },
      parameters: "from=word",
    });
    await followed("/word", short);
    const { status, headers, body } = await reply("/word", short);
    assert.deepEqual([status, headers["x-robots-tag"]], [200, "noindex"]);
    assert.equal(headers.refresh, "7; url=https://shop.example/lamp?a=1&from=word");
    assert.match(body, /You leave &lt;us&gt;\./);
    assert.match(body, /name="robots" content="noindex"/);
    assert.doesNotMatch(body, /<script/);
    const stayed = await reply("/word?stay=1", short);
    assert.equal(stayed.headers.refresh, undefined);
    assert.match(stayed.body, /href="https:\/\/shop\.example\/lamp\?a=1&amp;from=word"/);
    assert.equal((await reply("/word", { ...short, method: "HEAD" })).body, "");
  });

  test("a schedule takes effect without a reload: before, during, and what follows", async () => {
    await make({
      kind: "redirect",
      address: "/over",
      destination: "/x",
      validUntil: "2020-01-01T00:00:00Z",
      afterEnd: "gone",
    });
    assert.equal(await followed("/over"), "410");
    const from = new Date(Date.now() + 2_000).toISOString();
    const until_ = new Date(Date.now() + 4_000).toISOString();
    await make({
      kind: "redirect",
      address: "/soon",
      destination: "/during",
      validFrom: from,
      validUntil: until_,
      afterEnd: "destination",
      endDestination: "/after",
    });
    assert.equal((await reply("/soon")).status, 404);
    await until("its time has come", async () => (await followed("/soon")) === "301 /during");
    await until("its time is over", async () => (await reply("/soon")).headers.location === "/after");
  });

  test("raw destinations give way to the short link where it says so, in what is delivered only", async () => {
    const html =
      '<p><a href="https://shop.example/raw">a</a> <a href="https://shop.example/raw?x=1">b</a></p>';
    const one = (
      await call("POST", "/sites/garden/pages", { path: "/one", title: "One", html, publish: true })
    ).body;
    const two = (
      await call("POST", "/sites/garden/pages", { path: "/two", title: "Two", html, publish: true })
    ).body;
    const route = await make({
      kind: "short",
      ...short,
      address: "/raw",
      destination: "https://shop.example/raw",
      inContent: "pages",
      contentPages: [one.id],
    });
    assert.ok((await reply("/one")).body.includes('href="https://gdn.example/raw"'));
    assert.ok((await reply("/one")).body.includes('href="https://shop.example/raw?x=1"'));
    assert.ok(!(await reply("/two")).body.includes("gdn.example/raw"));
    const delivered = (id: string) => call("GET", `/sites/garden/pages/${id}/delivered`);
    assert.match((await delivered(one.id)).body, /gdn\.example\/raw"/);
    assert.doesNotMatch((await delivered(two.id)).body, /gdn\.example/);
    await call("PATCH", `${ROUTES}/${route.id}`, { version: 1, inContent: "everywhere" });
    assert.ok((await reply("/two")).body.includes("gdn.example/raw"));
    await call("DELETE", `${ROUTES}/${route.id}`);
    assert.ok(!(await reply("/two")).body.includes("gdn.example/raw"));
    assert.match(
      (await call("GET", `/sites/garden/pages/${one.id}`)).body.html ?? html,
      /shop\.example\/raw"/,
    );
  });
});

describe("what misses get, as the site chooses", () => {
  const choose = async (misses: unknown): Promise<Answered> => {
    const { version } = (await call("GET", "/sites/garden")).body;
    return call("PATCH", "/sites/garden", { version, misses });
  };
  test("a helpful page, the one close address, or a chosen destination; each is recorded", async () => {
    assert.match((await reply("/lampss")).body, /href="\/lamps"/);
    assert.equal((await choose({ answer: "closest" })).status, 200);
    assert.equal(await followed("/lanps"), "302 /lamps");
    assert.equal((await reply("/nothing-like-it")).status, 404);
    await choose({ answer: "destination", destination: "/lamps" });
    assert.equal(await followed("/nothing-like-it-2"), "302 /lamps");
    await choose({ answer: "destination", destination: "/lamps", seconds: 3, text: "Moved" });
    assert.equal(await followed("/nothing-like-it-3"), "200");
    const chosen = (await call("POST", `${ROUTES}/trace`, { addresses: ["/nothing-like-it-4"] })).body
      .results[0];
    assert.deepEqual(
      chosen.hops.map(({ by }: { by: string }) => by),
      ["miss", "page"],
    );
    assert.equal((await choose({ answer: "destination" })).status, 422);
    await choose({ answer: "help" });
    await until(
      "all are in the list",
      async () => (await call("GET", "/sites/garden/misses?q=nothing-like")).body.total === 3,
    );
  });

  test("people, robots and scanners are told apart; several are answered at once, set aside, and patterns proposed", async () => {
    for (const path of ["/old-notes/lamps", "/old-notes/one", "/old-notes/two"]) await reply(path);
    await reply("/only-robots", { headers: { "User-Agent": ROBOT } });
    await reply("/wp-login.php");
    await reply("/lamqs", { headers: { Referer: "https://garden.example/one" } });
    const summary = await until("they are counted", async () => {
      const { body } = await call("GET", "/sites/garden/misses/summary");
      return body.groups.robots >= 1 && body.groups.scanners >= 1 && body.proposals.length > 0 && body;
    });
    assert.deepEqual(
      [summary.proposals[0].address, summary.proposals[0].destination],
      ["/old-notes/*", "/$1"],
    );
    assert.deepEqual(
      summary.hidden.ownFaults.map(({ address, from }: Record<string, string>) => [address, from]),
      [["/lamqs", "/one"]],
    );
    const of = async (group: string) => (await call("GET", `/sites/garden/misses?group=${group}`)).body.items;
    assert.deepEqual(
      (await of("robots")).map(({ address }: { address: string }) => address),
      ["/only-robots"],
    );
    assert.deepEqual(
      (await of("scanners")).map(({ address }: { address: string }) => address),
      ["/wp-login.php"],
    );
    const people = await of("people");
    const close = people.find(({ address }: { address: string }) => address === "/lamqs");
    assert.equal(close.candidates[0].reason, "one letter differs");
    const old = people.filter(({ address }: { address: string }) => address.startsWith("/old-notes"));
    const answers = [
      { id: close.id, destination: "/lamps" },
      { id: old[0].id, destination: old[0].address },
    ];
    const { routes, refused } = (await call("POST", "/sites/garden/misses/answer", { answers })).body;
    assert.deepEqual([routes.length, refused.length], [1, 1]);
    assert.match(refused[0].message, /circle/);
    await call("POST", "/sites/garden/misses/ignore", { ids: [old[1].id] });
    assert.ok(!(await of("people")).some(({ id }: { id: string }) => id === old[1].id));
    const aside = (await call("GET", "/sites/garden/misses?ignored=1")).body.items;
    assert.deepEqual(
      aside.map(({ id }: { id: string }) => id),
      [old[1].id],
    );
  });
});
