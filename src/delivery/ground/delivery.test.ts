import assert from "node:assert/strict";
import { connect } from "node:net";
import { after, before, describe, test } from "node:test";
import { ask, PERSON, ROBOT, until } from "../../../tests/support/ask.ts";
import { testDelivery, type TestDelivery } from "../../../tests/support/delivery.ts";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";

let garden: TestDesk;
let delivery: TestDelivery;
const short = { host: "gdn.example" };

before(async () => {
  garden = await testDesk();
  const make = (route: object): Promise<unknown> => garden.call("POST", "/sites/garden/routes", route);
  await garden.call("PUT", "/sites/garden/rules", {
    version: 0,
    rules: [{ name: "new tab", match: { destination: "external" }, set: { target: "new" } }],
  });
  await garden.call("POST", "/sites/garden/pages", {
    path: "/",
    title: "Front",
    html: "<p>Welcome</p>",
    publish: true,
  });
  await garden.call("POST", "/sites/garden/pages", {
    path: "/lamps",
    title: "Lamps & lights",
    html: '<p><a href="https://shop.example/lamp">a lamp</a></p>',
    inNavigation: true,
    publish: true,
  });
  await garden.call("POST", "/sites/garden/pages", {
    path: "/draft",
    title: "Draft",
    html: "<p>not yet</p>",
  });
  await make({
    kind: "short",
    ...short,
    address: "/Lamp",
    destination: "https://shop.example/lamp?partner=GD",
    aliases: ["/lampe"],
  });
  await make({ kind: "short", ...short, address: "/inside", destination: "/lamps" });
  await make({
    kind: "short",
    ...short,
    address: "/fwd",
    destination: "https://shop.example/a?x=1",
    query: "merge",
  });
  await make({ kind: "redirect", address: "/Old", destination: "/lamps" });
  await make({
    kind: "redirect",
    address: "/quiet",
    destination: "/lamps",
    counted: false,
    robots: { noindex: true, nofollow: true },
  });
  await make({ kind: "redirect", address: "/off", destination: "/lamps", enabled: false });
  await make({
    kind: "redirect",
    address: "/later",
    destination: "/lamps",
    validFrom: "2099-01-01T00:00:00Z",
  });
  await make({
    kind: "redirect",
    address: "/before",
    destination: "/lamps",
    validUntil: "2020-01-01T00:00:00Z",
  });
  await make({ kind: "gone", address: "/closed" });
  await make({ kind: "redirect", address: "/straße", destination: "/lamps" });
  delivery = await testDelivery(garden.url);
});
after(async () => {
  await delivery.end();
  await garden.close();
});

describe("order of answer: exact route, published page, miss", () => {
  const cases: readonly (readonly [
    host: string,
    path: string,
    status: number,
    location: string | undefined,
  ])[] = [
    ["gdn.example", "/Lamp", 302, "https://shop.example/lamp?partner=GD"],
    ["gdn.example", "/lamp", 302, "https://shop.example/lamp?partner=GD"],
    ["gdn.example", "/LAMP/", 302, "https://shop.example/lamp?partner=GD"],
    ["GDN.Example:4601", "/lampe", 302, "https://shop.example/lamp?partner=GD"],
    ["gdn.example", "/%6Camp", 302, "https://shop.example/lamp?partner=GD"],
    ["gdn.example", "/x/../lamp", 302, "https://shop.example/lamp?partner=GD"],
    ["gdn.example", "/lamp?x=1", 302, "https://shop.example/lamp?partner=GD"],
    ["gdn.example", "/fwd?x=2&y=3", 302, "https://shop.example/a?x=1&y=3"],
    ["gdn.example", "/inside", 302, "https://garden.example/lamps"],
    ["garden.example", "/Old", 301, "/lamps"],
    ["garden.example", "/Old/", 301, "/lamps"],
    ["gdn.example", "/Old", 301, "https://garden.example/lamps"],
    ["garden.example", "/old", 404, undefined],
    ["garden.example", "/lamp", 404, undefined],
    ["garden.example", "/stra%C3%9Fe", 301, "/lamps"],
    ["garden.example", "/quiet", 301, "/lamps"],
    ["garden.example", "/off", 404, undefined],
    ["garden.example", "/later", 404, undefined],
    ["garden.example", "/before", 404, undefined],
    ["garden.example", "/closed", 410, undefined],
    ["garden.example", "/", 200, undefined],
    ["garden.example", "/lamps", 200, undefined],
    ["garden.example", "/lamps/", 308, "/lamps"],
    ["gdn.example", "/lamps", 404, undefined],
    ["garden.example", "/draft", 404, undefined],
    ["garden.example", "/%2e%2e/%2e%2e/etc/passwd", 404, undefined],
    ["garden.example", "/%00", 404, undefined],
    ["other.example", "/", 421, undefined],
    ["127.0.0.1", "/lamps", 200, undefined],
  ];
  for (const [host, path, status, location] of cases) {
    test(`${host}${path}`, async () => {
      const reply = await ask(delivery.port, path, { host });
      assert.deepEqual([reply.status, reply.headers.location], [status, location]);
    });
  }

  test("methods other than GET and HEAD are refused, and HEAD answers as GET does", async () => {
    for (const method of ["POST", "PUT", "DELETE", "OPTIONS"]) {
      const reply = await ask(delivery.port, "/Old", { method });
      assert.deepEqual([reply.status, reply.headers.allow], [405, "GET, HEAD"]);
    }
    const head = await ask(delivery.port, "/lamp", { method: "HEAD", ...short });
    assert.deepEqual([head.status, head.headers.location], [302, "https://shop.example/lamp?partner=GD"]);
    const page = await ask(delivery.port, "/lamps", { method: "HEAD" });
    assert.deepEqual([page.status, page.body, Number(page.headers["content-length"]) > 500], [200, "", true]);
  });

  test("temporary answers are asked for each time, permanent ones kept for a bounded time", async () => {
    assert.equal((await ask(delivery.port, "/lamp", short)).headers["cache-control"], "private, no-store");
    assert.equal((await ask(delivery.port, "/Old")).headers["cache-control"], "public, max-age=3600");
    assert.equal((await ask(delivery.port, "/quiet")).headers["x-robots-tag"], "noindex, nofollow");
  });

  test("a line break in the query stays out of the header, and a 64 kB path out of the house", async () => {
    const reply = await ask(delivery.port, "/fwd?z=%0d%0aSet-Cookie:%20x=1", short);
    assert.deepEqual([reply.status, reply.headers["set-cookie"]], [302, undefined]);
    assert.equal((await ask(delivery.port, `/${"x".repeat(64_000)}`)).status, 431);
  });

  test("a request as to a proxy is answered for the host in its target", async () => {
    const reply = await new Promise<string>((resolve, reject) => {
      const socket = connect(delivery.port, "127.0.0.1", () =>
        socket.write(
          "GET http://gdn.example/lamp HTTP/1.1\r\nHost: other.example\r\nConnection: close\r\n\r\n",
        ),
      );
      let text = "";
      socket.on("data", (chunk) => (text += chunk));
      socket.on("end", () => resolve(text));
      socket.on("error", reject);
    });
    assert.match(reply, /^HTTP\/1\.1 302 .*\r\n/);
  });
});

describe("what a reader gets", () => {
  test("a page in the site's look, rules applied, without a script or a cookie", async () => {
    const { body, headers } = await ask(delivery.port, "/lamps");
    assert.match(body, /<title>Lamps &amp; lights · Garden<\/title>/);
    assert.match(body, /<a href="https:\/\/shop\.example\/lamp" rel="noopener" target="_blank">a lamp<\/a>/);
    assert.match(body, /<a href="\/lamps" aria-current="page">/);
    assert.doesNotMatch(body, /<script(?! type="application\/ld\+json")|data-override/);
    assert.equal(headers["set-cookie"], undefined);
    assert.match(headers["content-security-policy"] as string, /script-src 'none'/);
  });

  test("the style and the font of the look", async () => {
    for (const [path, type] of [
      ["/~theme/site.css", "text/css; charset=utf-8"],
      ["/~theme/literata.woff2", "font/woff2"],
    ] as const) {
      const { status, headers } = await ask(delivery.port, path);
      assert.deepEqual([status, headers["content-type"]], [200, type]);
    }
  });

  test("a 404 that helps, on each host with what is meant there", async () => {
    const page = await ask(delivery.port, "/lampz");
    assert.equal(page.status, 404);
    assert.match(page.body, /Did you mean[\s\S]*<a href="\/lamps">Lamps &amp; lights<\/a>/);
    const link = await ask(delivery.port, "/lammp", short);
    assert.match(link.body, /<a href="\/lamp">/);
    assert.match(link.body, /<a class="name" href="https:\/\/garden\.example\/">/);
  });

  test("what was asked for is shown as text, never as markup", async () => {
    const { body } = await ask(delivery.port, "/<script>alert(1)</script>");
    assert.doesNotMatch(body, /<script/);
    assert.match(body, /%3Cscript%3E/i);
  });

  test("a 410 that says so", async () =>
    assert.match((await ask(delivery.port, "/closed")).body, /was taken away/));
});

describe("clicks and misses", () => {
  const counts = async (address: string): Promise<Record<string, number>> => {
    const rows = await garden.store.rows<{ class: string; n: string }>(
      "SELECT class, count(*)::text AS n FROM clicks c JOIN routes r ON r.id = c.route_id WHERE r.address = $address GROUP BY 1",
      { address },
    );
    return Object.fromEntries(rows.map((row) => [row.class, Number(row.n)]));
  };

  test("persons, robots, prefetches and HEAD requests are kept apart", async () => {
    await garden.call("POST", "/sites/garden/routes", {
      kind: "short",
      ...short,
      address: "/apart",
      destination: "https://shop.example/",
    });
    await until(
      "the new route answers",
      async () =>
        (await ask(delivery.port, "/apart", { ...short, headers: { "User-Agent": ROBOT } })).status === 302,
    );
    await ask(delivery.port, "/apart", short);
    await ask(delivery.port, "/apart", { ...short, headers: { "User-Agent": "" } });
    await ask(delivery.port, "/apart", { ...short, headers: { "Sec-Purpose": "prefetch;prerender" } });
    await ask(delivery.port, "/apart", { ...short, headers: { Purpose: "prefetch" } });
    await ask(delivery.port, "/apart", { ...short, method: "HEAD" });
    const all = await until("all six are there", async () => {
      const now = await counts("/apart");
      return Object.values(now).reduce((sum, n) => sum + n, 0) === 6 && now;
    });
    assert.deepEqual(all, { person: 1, bot: 2, prefetch: 2, head: 1 });
    const { body } = await garden.call("GET", "/sites/garden/routes?q=/apart");
    assert.equal(body.items[0].clicks, 1);
  });

  test("a click is kept with what follows from it, and without address or user agent", async () => {
    const referer = "https://garden.example/lamps?x=1";
    await ask(delivery.port, "/lampe", { ...short, headers: { Referer: referer } });
    const click = await until("the click is there", () =>
      garden.store
        .rows<Record<string, string>>("SELECT * FROM clicks WHERE referrer = 'garden.example'")
        .then((rows) => rows[0]),
    );
    assert.deepEqual([click?.page, click?.device], ["/lamps", "desktop"]);
    assert.match(click!.visitor!, /^[\w-]{22}$/);
    const stored = JSON.stringify(await garden.store.rows("SELECT * FROM clicks"));
    assert.ok(!stored.includes("127.0.0.1") && !stored.includes("Firefox") && !stored.includes(PERSON));
  });

  test("one person is one visitor of a day, whatever the number of clicks", async () => {
    for (let n = 0; n < 3; n += 1) await ask(delivery.port, "/inside", short);
    await ask(delivery.port, "/inside", {
      ...short,
      headers: { "User-Agent": "Mozilla/5.0 (iPhone; like Mac OS X) Mobile/15E148 Safari/604" },
    });
    const { items } = await until("the clicks are there", async () => {
      const route = (await garden.call("GET", "/sites/garden/routes?q=/inside")).body.items[0];
      const { body } = await garden.call("GET", `/sites/garden/clicks?route=${route.id}`);
      return body.total.clicks >= 4 && body.total.visitors >= 2 && body;
    });
    assert.deepEqual([items.at(-1).clicks, items.at(-1).visitors, items.length], [5, 2, 60]);
  });

  test("a route that is not counted leaves no click", async () => {
    await ask(delivery.port, "/quiet");
    await ask(delivery.port, "/Old");
    await until("the counted one is there", async () => ((await counts("/Old")).person ?? 0) > 0);
    assert.deepEqual(await counts("/quiet"), {});
  });

  test("a miss is listed with its times, referrer and what was meant; answered, it is gone", async () => {
    await ask(delivery.port, "/lampss", { headers: { Referer: "https://forum.example/t/1" } });
    await ask(delivery.port, "/lampss");
    await ask(delivery.port, "/lampss", { headers: { "User-Agent": ROBOT } });
    const miss = await until("the miss is listed", async () => {
      const { body } = await garden.call("GET", "/sites/garden/misses?q=lampss");
      return body.items[0]?.times === 2 && body.items[0];
    });
    assert.deepEqual(
      [miss.address, miss.bots, miss.referrers, miss.candidates[0].address],
      ["/lampss", 1, ["https://forum.example/t/1"], "/lamps"],
    );
    const { status, body } = await garden.call("POST", `/sites/garden/misses/${miss.id}/resolve`, {
      destination: "/lamps",
    });
    assert.deepEqual([status, body.route.address, body.route.status], [201, "/lampss", 301]);
    assert.equal((await garden.call("GET", "/sites/garden/misses?q=lampss")).body.total, 0);
    await until("the redirect answers", async () => (await ask(delivery.port, "/lampss")).status === 301);
  });

  test("a miss on the short host is answered by that host's own link", async () => {
    await ask(delivery.port, "/lamb", short);
    const miss = await until(
      "the miss is listed",
      async () => (await garden.call("GET", "/sites/garden/misses?q=/lamb")).body.items[0],
    );
    assert.equal(miss.candidates[0].destination, "https://gdn.example/Lamp");
  });
});

describe("a change reaches delivery", () => {
  test("a route that is made, changed, switched off, deleted, brought back", async () => {
    const { body: made } = await garden.call("POST", "/sites/garden/routes", {
      kind: "redirect",
      address: "/live",
      destination: "/lamps",
    });
    const answers = (status: number, location?: string): Promise<unknown> =>
      until(`/live answers ${status} ${location ?? ""}`, async () => {
        const reply = await ask(delivery.port, "/live");
        return reply.status === status && reply.headers.location === location;
      });
    await answers(301, "/lamps");
    await garden.call("PATCH", `/sites/garden/routes/${made.id}`, {
      version: 1,
      destination: "https://shop.example/new",
      status: 307,
    });
    await answers(307, "https://shop.example/new");
    await garden.call("PATCH", `/sites/garden/routes/${made.id}`, { version: 2, enabled: false });
    await answers(404);
    await garden.call("PATCH", `/sites/garden/routes/${made.id}`, { version: 3, enabled: true });
    await answers(307, "https://shop.example/new");
    await garden.call("DELETE", `/sites/garden/routes/${made.id}`);
    await answers(404);
    await garden.call("POST", `/sites/garden/routes/${made.id}/restore`);
    await answers(307, "https://shop.example/new");
  });

  test("a rule that is switched off gives back what was there", async () => {
    const { body: set } = await garden.call("GET", "/sites/garden/rules");
    await garden.call("PUT", "/sites/garden/rules", { version: set.version, rules: [] });
    await until("the page is delivered as written", async () =>
      (await ask(delivery.port, "/lamps")).body.includes('<a href="https://shop.example/lamp">a lamp</a>'),
    );
    await garden.call("PUT", "/sites/garden/rules", { version: set.version + 1, rules: set.rules });
    await until("the rule acts again", async () =>
      (await ask(delivery.port, "/lamps")).body.includes('target="_blank"'),
    );
  });

  test("a page that is published, saved as a draft, deleted", async () => {
    const { body: made } = await garden.call("POST", "/sites/garden/pages", {
      path: "/fresh",
      title: "Fresh",
      html: "<p>one</p>",
      publish: true,
    });
    const shows = (words: string): Promise<unknown> =>
      until(`/fresh shows ${words}`, async () => (await ask(delivery.port, "/fresh")).body.includes(words));
    await shows("<p>one</p>");
    await garden.call("PUT", `/sites/garden/pages/${made.id}`, { version: 1, html: "<p>two</p>" });
    assert.match((await ask(delivery.port, "/fresh")).body, /<p>one<\/p>/);
    await garden.call("POST", `/sites/garden/pages/${made.id}/publish`, { version: 2 });
    await shows("<p>two</p>");
    await garden.call("DELETE", `/sites/garden/pages/${made.id}`);
    await until("/fresh is gone", async () => (await ask(delivery.port, "/fresh")).status === 404);
  });
});

describe("a node that was not told", () => {
  test("catches up as soon as it has its connection back", async () => {
    const { body: made } = await garden.call("POST", "/sites/garden/routes", {
      kind: "redirect",
      address: "/untold",
      destination: "/lamps",
    });
    await until("the route answers", async () => (await ask(delivery.port, "/untold")).status === 301);
    const cut = await garden.store.rows(
      "SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = current_database() AND query LIKE 'LISTEN maprope%'",
    );
    assert.equal(cut.length, 1);
    // No NOTIFY: only the sequence number tells that something was missed.
    await garden.store.rows("UPDATE routes SET destination = '/elsewhere' WHERE id = $id::bigint", {
      id: made.id,
    });
    await garden.store.rows(
      "INSERT INTO changes (site_id, kind, object_id) VALUES ($site::bigint, 'route', $id::bigint)",
      { site: garden.site.id, id: made.id },
    );
    await until(
      "the missed change is taken in",
      async () => (await ask(delivery.port, "/untold", { method: "HEAD" })).headers.location === "/elsewhere",
    );
    assert.ok(delivery.reports.some((report) => report.includes("Lost the connection")));
  });
});

test("health says what is going on", async () => {
  const health = JSON.parse((await ask(delivery.port, "/healthz", { host: "anything" })).body);
  assert.deepEqual([health.status, health.database, health.lostClicks], ["ok", "up", 0]);
  assert.ok(health.routes >= 10 && Number.isInteger(health.pendingClicks));
});
