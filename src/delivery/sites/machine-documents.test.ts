import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import sharp from "sharp";
import { ask, until } from "../../../tests/support/ask.ts";
import { testDelivery, type TestDelivery } from "../../../tests/support/delivery.ts";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";
import { assertAtom, assertSitemap } from "../../../tests/support/valid-xml.ts";

let garden: TestDesk;
let delivery: TestDelivery;
const short = { host: "gdn.example" };

const settle = async (delivered: object): Promise<void> => {
  const { version } = (await garden.call("GET", "/sites/garden")).body;
  const { status } = await garden.call("PATCH", "/sites/garden", { version, delivered });
  assert.equal(status, 200);
  await delivery.level();
};
const makePage = (path: string, more: object = {}) =>
  garden.call("POST", "/sites/garden/pages", {
    path,
    title: `Page ${path}`,
    html: "<p>Moss</p>",
    publish: true,
    ...more,
  });

before(async () => {
  garden = await testDesk();
  await makePage("/");
  await makePage("/moss", { category: "Field notes", description: "Moss & more <than> stone" });
  await makePage("/hidden", { category: "Field notes", search: { noindex: true } });
  await makePage("/copy", { search: { canonical: "https://other.example/moss" } });
  await makePage("/draft", { publish: false });
  delivery = await testDelivery(garden.url);
});
after(async () => {
  assert.deepEqual([garden.failures, delivery.reports], [[], []]);
  await delivery.end();
  await garden.close();
});

describe("what machines read of a site", () => {
  test("the sitemap names published pages, without those that are hidden or copies", async () => {
    const { status, headers, body } = await ask(delivery.port, "/sitemap.xml");
    assert.deepEqual([status, headers["content-type"]], [200, "application/xml; charset=utf-8"]);
    await assertSitemap(body);
    assert.deepEqual(
      [...body.matchAll(/<loc>(.*?)<\/loc>/g)].map(([, url]) => new URL(url!).pathname),
      ["/", "/moss"],
    );
    assert.match(body, /<lastmod>\d{4}-\d\d-\d\dT/);
    assert.equal((await ask(delivery.port, "/sitemap-1.xml")).status, 404);
    assert.equal((await ask(delivery.port, "/sitemap.xml", short)).status, 404);
    await makePage("/fern");
    await until("the new page is in it", async () =>
      (await ask(delivery.port, "/sitemap.xml")).body.includes("/fern</loc>"),
    );
  });

  test("feeds of the site and of a category, by the schema of Atom", async () => {
    const { headers, body } = await ask(delivery.port, "/feed.atom");
    assert.equal(headers["content-type"], "application/atom+xml; charset=utf-8");
    await assertAtom(body);
    assert.equal(body.match(/<entry>/g)?.length, 2);
    assert.doesNotMatch(body, /hidden|copy|draft/);
    assert.ok(
      body.includes("<![CDATA[Moss &amp; more &lt;than&gt; stone]]>"),
      "it tells that texts are HTML",
    );
    const ofCategory = await ask(delivery.port, "/feed/Field%20notes.atom");
    await assertAtom(ofCategory.body);
    assert.equal(ofCategory.body.match(/<entry>/g)?.length, 1);
    assert.equal((await ask(delivery.port, "/feed/Nothing.atom")).status, 404);
    const idOf = (feed: string) => /<entry>[\s\S]*?<id>(.*?)<\/id>/.exec(feed)?.[1];
    assert.match(idOf(ofCategory.body)!, /^urn:uuid:[\da-f-]{36}$/);
    assert.ok(body.includes(idOf(ofCategory.body)!), "an entry is the same in both feeds");
  });

  test("robots.txt says that all may be read and where the sitemap is, or what its editor wrote", async () => {
    const usual = await ask(delivery.port, "/robots.txt");
    assert.equal(usual.body, "User-agent: *\nAllow: /\n\nSitemap: https://garden.example/sitemap.xml\n");
    assert.equal((await ask(delivery.port, "/robots.txt", short)).body, "User-agent: *\nAllow: /\n");
    await settle({ robots: "User-agent: *\r\nDisallow: /hidden" });
    assert.match(
      (await ask(delivery.port, "/robots.txt")).body,
      /^User-agent: \*\nDisallow: \/hidden\n\nSitemap: /,
    );
    const { version } = (await garden.call("GET", "/sites/garden")).body;
    for (const robots of [
      "Disallow: /",
      "User-agent:",
      "User-agent: *\nDisalow: /",
      "Hello",
      "User-agent: *\nDisallow: drafts",
    ]) {
      const refused = await garden.call("PATCH", "/sites/garden", { version, delivered: { robots } });
      assert.deepEqual([refused.status, refused.body.errors[0].path], [422, "delivered.robots"], robots);
    }
    await settle({});
  });

  test("the icon is a letter until one is uploaded", async () => {
    const letter = await ask(delivery.port, "/favicon.ico");
    assert.deepEqual([letter.status, letter.headers["content-type"]], [200, "image/svg+xml"]);
    assert.match((await ask(delivery.port, "/moss")).body, /<link rel="icon" href="\/favicon.ico"/);
    const { body: file } = await garden.call("POST", "/sites/garden/files?name=moss.svg", undefined, {
      raw: '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"><path d="M0 0h9v9z"/></svg>',
    });
    await settle({ icon: file.id });
    for (const [path, size] of [
      ["/favicon.ico", 48],
      ["/apple-touch-icon.png", 180],
    ] as const) {
      const icon = await ask(delivery.port, path);
      assert.equal(icon.headers["content-type"], "image/png");
      const { width, height, format } = await sharp(icon.bytes).metadata();
      assert.deepEqual([width, height, format], [size, size, "png"]);
    }
    assert.match(
      (await ask(delivery.port, "/moss")).body,
      new RegExp(
        `<link rel="icon" href="${file.path}"/?><link rel="apple-touch-icon" href="/apple-touch-icon.png"`,
      ),
    );
    await settle({});
    await garden.call("DELETE", `/sites/garden/files/${file.id}`);
  });

  test("what stands at one of their paths answers in their place", async () => {
    await makePage("/feed.atom");
    await until("the page answers", async () =>
      (await ask(delivery.port, "/feed.atom")).body.includes("<h1>"),
    );
  });
});

describe("one spelling of each path", () => {
  const leads = async (path: string, host = "garden.example") => {
    const { status, headers } = await ask(delivery.port, path, { host });
    return [status, headers.location];
  };
  test("others lead to it, whatever is behind", async () => {
    assert.deepEqual(await leads("/moss/"), [308, "/moss"]);
    assert.deepEqual(await leads("/moss/?a=1&b=/"), [308, "/moss?a=1&b=/"]);
    assert.deepEqual(await leads("/%6Doss"), [308, "/moss"]);
    assert.deepEqual(await leads("/a/../moss"), [308, "/moss"]);
    assert.deepEqual(await leads("//"), [308, "/"]);
    assert.deepEqual(await leads("/moss"), [200, undefined]);
    assert.deepEqual(await leads("/Moss"), [404, undefined]);
  });
  test("with a slash where the site says so: pages, their links, canonical addresses and lists", async () => {
    await makePage("/list", {
      html: '<p><a href="/moss#top">Moss</a> <a href="/moss/?x=1">more</a> <a href="/feed.atom">feed</a></p>',
    });
    await settle({ slashes: "with" });
    assert.deepEqual(await leads("/moss"), [308, "/moss/"]);
    assert.deepEqual(await leads("/moss/"), [200, undefined]);
    assert.deepEqual(await leads("/"), [200, undefined]);
    assert.deepEqual(await leads("/feed.atom"), [200, undefined], "a name with an ending gets none");
    const { body } = await ask(delivery.port, "/list/");
    assert.match(body, /<a href="\/moss\/#top".*<a href="\/moss\/\?x=1".*<a href="\/feed.atom"/);
    assert.match(body, /<link rel="canonical" href="https:\/\/garden.example\/list\/"/);
    assert.match((await ask(delivery.port, "/sitemap.xml")).body, /<loc>[^<]*\/moss\/<\/loc>/);
    await settle({});
  });
  test("in any letter case where the site says so, before patterns and after exact routes", async () => {
    await garden.call("POST", "/sites/garden/routes", {
      kind: "redirect",
      match: "prefix",
      address: "/Moss",
      destination: "https://shop.example/",
    });
    await settle({ anyLetters: true });
    assert.deepEqual(await leads("/MOSS/?a=1"), [308, "/moss?a=1"]);
    assert.deepEqual(await leads("/Moss/stone"), [301, "https://shop.example/"]);
    await settle({});
    assert.deepEqual(await leads("/Moss"), [301, "https://shop.example/"]);
  });
  test("tracing sees the same hops as readers", async () => {
    for (const delivered of [{}, { slashes: "with" }, { anyLetters: true, slashes: "without" }]) {
      await settle(delivered);
      for (const path of [
        "/moss",
        "/moss/",
        "/FERN",
        "/fern/?q=1",
        "/%6Doss",
        "/feed.atom/",
        "/robots.txt",
      ]) {
        const { status } = await ask(delivery.port, path);
        const { body } = await garden.call("POST", "/sites/garden/routes/trace", {
          addresses: [`https://garden.example${path}`],
          outside: false,
        });
        assert.equal(body.results[0].hops[0].status, status, `${path} ${JSON.stringify(delivered)}`);
      }
    }
    await settle({});
  });
});

describe("the root of a host for short links", () => {
  const root = async () => (await ask(delivery.port, "/", short)).headers.location;
  test("leads to the primary host, or where the site says", async () => {
    assert.equal(await root(), "https://garden.example/");
    await settle({ shortRoot: "/moss" });
    assert.equal(await root(), "https://garden.example/moss");
    await settle({ shortRoot: "https://shop.example/welcome" });
    assert.equal(await root(), "https://shop.example/welcome");
    assert.equal((await ask(delivery.port, "/nothing", short)).status, 404);
  });
  test("never to itself", async () => {
    const { version } = (await garden.call("GET", "/sites/garden")).body;
    const refused = await garden.call("PATCH", "/sites/garden", {
      version,
      delivered: { shortRoot: "https://gdn.example/" },
    });
    assert.deepEqual([refused.status, refused.body.errors[0].path], [422, "delivered.shortRoot"]);
  });
});
