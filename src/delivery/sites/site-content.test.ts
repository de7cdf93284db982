import assert from "node:assert/strict";
import { Agent } from "node:http";
import type { BodyHtml } from "../../core/pages/body/to-html.ts";
import { after, before, describe, test } from "node:test";
import { ask, PERSON, ROBOT, until } from "../../../tests/support/ask.ts";
import { testDelivery, type TestDelivery } from "../../../tests/support/delivery.ts";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";

let garden: TestDesk;
let delivery: TestDelivery;
before(async () => {
  garden = await testDesk();
  await garden.call("PUT", "/sites/garden/rules", {
    version: 0,
    rules: [{ name: "new tab", match: { destination: "external" }, set: { target: "new" } }],
  });
  delivery = await testDelivery(garden.url);
});
after(async () => {
  assert.deepEqual([garden.failures, delivery.reports], [[], []]);
  await delivery.end();
  await garden.close();
});

const body = async (path: string): Promise<string> => (await ask(delivery.port, path)).body;
const makePage = async (path: string, html: string, more: object = {}) =>
  (
    await garden.call("POST", "/sites/garden/pages", {
      path,
      title: `Page ${path}`,
      html,
      publish: true,
      ...more,
    })
  ).body;

describe("uploaded files are delivered", () => {
  test("as what they are, from memory, and never as something that acts", async () => {
    const { body: file } = await garden.call("POST", "/sites/garden/files?name=list.csv", undefined, {
      raw: "a,b\n1,2\n",
    });
    await until("the file is there", async () => (await ask(delivery.port, file.path)).status === 200);
    const { headers, body: content } = await ask(delivery.port, file.path);
    assert.equal(content, "a,b\n1,2\n");
    assert.deepEqual(
      [headers["content-type"], headers["x-content-type-options"], headers["content-length"]],
      ["text/csv; charset=utf-8", "nosniff", "8"],
    );
    assert.match(String(headers["content-security-policy"]), /default-src 'none'.*sandbox/);
    const again = await ask(delivery.port, file.path, { headers: { "If-None-Match": String(headers.etag) } });
    assert.deepEqual([again.status, again.body], [304, ""]);
    const head = await ask(delivery.port, file.path, { method: "HEAD" });
    assert.deepEqual([head.status, head.body, head.headers["content-length"]], [200, "", "8"]);
    await garden.call("DELETE", `/sites/garden/files/${file.id}`);
    await until("it is gone", async () => (await ask(delivery.port, file.path)).status === 404);
  });
  test("behind a route or page that has the path", async () => {
    const { body: file } = await garden.call("POST", "/sites/garden/files?name=old.txt", undefined, {
      raw: "old",
    });
    await until("the file is there", async () => (await ask(delivery.port, file.path)).status === 200);
    await garden.call("POST", "/sites/garden/routes", {
      kind: "redirect",
      address: file.path,
      destination: "https://shop.example/",
    });
    await until("the route answers", async () => (await ask(delivery.port, file.path)).status === 301);
  });
});

describe("what stands around a page", () => {
  test("blocks on all pages, on chosen ones, by category, rules applied and variables filled", async () => {
    await makePage("/reviews/a", "<p>Review</p>", { category: "Reviews" });
    await makePage("/news", "<p>News</p>");
    const block = (title: string, placement: object, html: string) =>
      garden.call("POST", "/sites/garden/blocks", { title, placement, html, publish: true });
    await block(
      "All",
      { place: "footer", shown: "all", on: [] },
      '<p>{{owner}} thanks <a href="https://shop.example/">a shop</a></p>',
    );
    await block(
      "Reviews",
      { place: "sidebar", shown: "categories", on: ["Reviews"] },
      "<p>How we review</p>",
    );
    await block("Path", { place: "footer", shown: "pages", on: ["/ne*"] }, "<p>Only news</p>");
    await garden.call("PATCH", "/sites/garden", { variables: { owner: "Ida & Jo" }, version: 1 });
    await until("the blocks are there", async () => (await body("/news")).includes("Only news"));
    await until("the variable is filled", async () => (await body("/news")).includes("Ida &amp; Jo thanks"));
    assert.match(
      await body("/news"),
      /<a href="https:\/\/shop\.example\/" rel="noopener" target="_blank">a shop<\/a>/,
    );
    assert.doesNotMatch(await body("/news"), /How we review/);
    assert.match(await body("/reviews/a"), /<aside[^>]*>.*How we review/);
    assert.match(await body("/no-such-page"), /Ida &amp; Jo thanks/, "the 404 stands in the site's look");
    assert.doesNotMatch(await body("/no-such-page"), /Only news|How we review/);
  });

  test("a block that is only saved is nobody's to read until it is published", async () => {
    const { body: made } = await garden.call("POST", "/sites/garden/blocks", {
      title: "Later",
      placement: { place: "footer", shown: "all", on: [] },
      html: "<p>Later words</p>",
    });
    assert.doesNotMatch(await body("/news"), /Later words/);
    await garden.call("POST", `/sites/garden/pages/${made.id}/publish`, { version: 1 });
    await until("it is there", async () => (await body("/news")).includes("Later words"));
    await garden.call("DELETE", `/sites/garden/pages/${made.id}`);
    await until("it is gone", async () => !(await body("/news")).includes("Later words"));
  });

  test("the navigation as it was arranged: own tab choice, headings with and without a landing page, drafts left out", async () => {
    const news = (await garden.call("GET", "/sites/garden/pages?q=news")).body.items[0];
    const { body: draft } = await garden.call("POST", "/sites/garden/pages", {
      path: "/soon",
      title: "Soon",
      html: "<p>x</p>",
    });
    const entry = (id: string, label: string, more: object) => ({ id, label, children: [], ...more });
    await garden.call("PUT", "/sites/garden/navigation", {
      version: 0,
      items: [
        entry("1", "Group", {
          kind: "heading",
          children: [
            entry("2", "News", { kind: "page", page: news.id }),
            entry("3", "Soon", { kind: "page", page: draft.id }),
            entry("4", "Shop", { kind: "address", address: "https://shop.example/" }),
            entry("5", "Shop here", { kind: "address", address: "https://shop.example/", target: "same" }),
          ],
        }),
        entry("6", "Landing", { kind: "heading", page: news.id }),
      ],
    });
    await until("it is there", async () => (await body("/news")).includes("Landing"));
    const html = await body("/news");
    assert.match(
      html,
      /<span>Group<\/span><ul><li><a href="\/news" aria-current="page">News<\/a><\/li><li><a href="https:\/\/shop\.example\/" rel="noopener" target="_blank">Shop<\/a><\/li><li><a href="https:\/\/shop\.example\/">Shop here<\/a><\/li><\/ul>/,
    );
    assert.match(html, /<a href="\/news" aria-current="page">Landing<\/a>/);
    assert.doesNotMatch(html, /Soon/);
    await garden.call("POST", `/sites/garden/pages/${draft.id}/publish`, { version: 1 });
    await until("what was a draft appears", async () =>
      (await body("/news")).includes('<a href="/soon">Soon</a>'),
    );
    assert.match(await body("/nowhere"), /href="\/news"/, "the 404 has it too");
  });

  test("headings carry the ids that links in the page lead to", async () => {
    await makePage("/ids", '<p><a href="#what-we-saw">below</a></p><h2>What we saw</h2>');
    await until("it is there", async () => (await body("/ids")).includes("below"));
    assert.match(await body("/ids"), /<h2 id="what-we-saw">What we saw<\/h2>/);
  });

  test("a preview is what readers would get, meant from the site's own address", async () => {
    const page = {
      path: "/p",
      title: "P",
      description: "",
      category: "Reviews",
      inNavigation: false,
      html: '<p><a href="https://shop.example/x">x</a></p>' as BodyHtml,
    };
    const document = delivery.preview(garden.site.id, page)!;
    assert.match(document, /<base href="https:\/\/garden\.example\/p"\/>/);
    assert.match(document, /target="_blank">x<\/a>/);
    assert.match(document, /How we review/);
    assert.equal(delivery.preview("999999", page), undefined);
  });
});

describe("what a connection's last request told", () => {
  test("is not taken for the next one's, when that comes from another program, page or way of asking", async () => {
    await garden.call("POST", "/sites/garden/routes", {
      kind: "redirect",
      address: "/kept",
      destination: "https://shop.example/kept",
    });
    await until(
      "the route is there",
      async () => (await ask(delivery.port, "/kept", { method: "HEAD" })).status === 301,
    );
    const agent = new Agent({ keepAlive: true, maxSockets: 1 });
    const click = (headers: Record<string, string>, method = "GET") =>
      ask(delivery.port, "/kept", { agent, method, headers: { "User-Agent": PERSON, ...headers } });
    await click({});
    await click({});
    await click({ "User-Agent": ROBOT });
    await click({ "Sec-Purpose": "prefetch" });
    await click({}, "HEAD");
    await click({ Referer: "https://garden.example/news?x=1" });
    await click({ Referer: "https://away.example/list" });
    await click({ "user-agent": "Mozilla/5.0 (iPhone; CPU iPhone OS 18_0 like Mac OS X) Mobile/15E148" });
    agent.destroy();
    const rows = () =>
      garden.store.rows<{ class: string; device: string; referrer: string; page: string; visitor: string }>(
        "SELECT c.class, c.device, c.referrer, c.page, c.visitor FROM clicks c JOIN routes r ON r.id = c.route_id WHERE r.address = '/kept' AND c.class <> 'head' ORDER BY c.at",
      );
    await until("the clicks arrived", async () => (await rows()).length === 7);
    const clicks = await rows();
    assert.deepEqual(
      clicks.map((one) => [one.class, one.device, one.referrer, one.page].join(" ").trim()).sort(),
      [
        "bot other",
        "person desktop",
        "person desktop",
        "person desktop away.example",
        "person desktop garden.example /news",
        "person phone",
        "prefetch desktop",
      ],
    );
    const visitors = (wanted: string): number =>
      new Set(clicks.filter(({ class: of }) => of === wanted).map(({ visitor }) => visitor)).size;
    assert.deepEqual([visitors("person"), visitors("bot")], [2, 1], "one person at a desk, one with a phone");
  });
});

describe("a page is sent as browsers and search engines know it", () => {
  test("its one address, what it is called, its first picture, its language", async () => {
    await makePage("/first/lamp", '<p>Lamp</p><p><img src="/files/lamp.png?a=1&amp;b=2" alt="A lamp"></p>', {
      description: "A lamp & its light",
    });
    await delivery.level();
    const html = await body("/first/lamp");
    for (const part of [
      '<html lang="en-GB">',
      '<link rel="canonical" href="https://garden.example/first/lamp"/>',
      '<meta property="og:url" content="https://garden.example/first/lamp"/>',
      '<meta property="og:description" content="A lamp &amp; its light"/>',
      '<meta property="og:image" content="https://garden.example/files/lamp.png?a=1&amp;b=2"/>',
    ])
      assert.ok(html.includes(part), part);
    const { body: site } = await garden.call("GET", "/sites/garden");
    await garden.call("PATCH", "/sites/garden", { language: "ar", version: site.version });
    await delivery.level();
    assert.match(await body("/first/lamp"), /<html lang="ar" dir="rtl">/);
    assert.match(await body("/first/lump"), /<html lang="en">/, "what we say ourselves is English");
    await garden.call("PATCH", "/sites/garden", { language: "en-GB", version: site.version + 1 });
  });

  test("in a coding, and not again to who has it; its tag changes with what readers get", async () => {
    await makePage(
      "/long",
      `<p>${"Night after night. ".repeat(200)}<a href="https://o.example/">out</a></p>`,
    );
    await delivery.level();
    const read = await fetch(`http://127.0.0.1:${delivery.port}/long`, {
      headers: { "Accept-Encoding": "br" },
    });
    assert.equal(read.headers.get("content-encoding"), "br");
    assert.match(await read.text(), /Night after night/);
    const get = (headers: object) =>
      ask(delivery.port, "/long", { headers: { "Accept-Encoding": "gzip, br", ...headers } });
    const first = await get({});
    assert.ok(Number(first.headers["content-length"]) < 2_000);
    const tag = String(first.headers.etag);
    assert.equal((await get({ "If-None-Match": tag })).status, 304);
    const { body: before } = await garden.call("GET", "/sites/garden/rules");
    await garden.call("PUT", "/sites/garden/rules", {
      version: before.version,
      rules: [{ name: "paid", match: { destination: "external" }, set: { sponsored: "on" } }],
    });
    await delivery.level();
    assert.equal((await get({ "If-None-Match": tag })).status, 200, "a rule changed what it says");
    assert.match(await body("/long"), /rel="sponsored/);
  });

  test("a file in parts, as players and downloads ask for it", async () => {
    const { body: file } = await garden.call("POST", "/sites/garden/files?name=tide.txt", undefined, {
      raw: "0123456789",
    });
    await delivery.level();
    const part = await ask(delivery.port, file.path, { headers: { Range: "bytes=2-4" } });
    assert.deepEqual(
      [part.status, part.body, part.headers["content-range"], part.headers["accept-ranges"]],
      [206, "234", "bytes 2-4/10", "bytes"],
    );
    assert.match(String(part.headers["content-security-policy"]), /sandbox/);
    assert.equal((await ask(delivery.port, file.path, { headers: { Range: "bytes=99-" } })).status, 416);
  });
});
