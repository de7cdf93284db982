import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";
import { healPages } from "../pages/heal-pages.ts";

let garden: TestDesk;
before(async () => {
  garden = await testDesk();
});
after(() => garden.close());

const SITE = "/sites/garden";
const BAD = [
  "javascript:x()",
  "java\tscript:x()",
  "data:text/html,x",
  "/\t/evil.example",
  "https://ida:pw@shop.example/",
];
const bodyOf = (href: string): object => ({
  type: "doc",
  content: [
    {
      type: "paragraph",
      content: [{ type: "text", text: "words", marks: [{ type: "link", attrs: { href } }] }],
    },
  ],
});
const html = (href: string): string => `<p><a href="${href}">words</a></p>`;
const isClean = (text: string): void =>
  assert.doesNotMatch(text, /script:|data:text|(?<!%09\/)evil\.example|ida:pw/, "an address slipped through");

describe("one gate for every way in", () => {
  for (const [index, href] of BAD.entries())
    test(`${JSON.stringify(href)} is let in nowhere, and its words stay`, async () => {
      const path = (way: string): string => `/gate-${way}-${index}`;
      const asBody = await garden.call("POST", `${SITE}/pages`, {
        path: path("body"),
        title: "B",
        body: bodyOf(href),
        publish: true,
      });
      assert.equal(asBody.status, 201);
      assert.equal(asBody.body.html, "<p>words</p>");
      assert.equal(asBody.body.dropped.length, 1);
      const saved = await garden.call("PUT", `${SITE}/pages/${asBody.body.id}`, {
        version: 1,
        body: bodyOf(href),
      });
      assert.deepEqual([saved.status, saved.body.html], [200, "<p>words</p>"]);
      const block = await garden.call("POST", `${SITE}/blocks`, {
        title: `Block ${index}`,
        placement: { place: "footer", shown: "all" },
        html: html(href),
      });
      assert.deepEqual([block.status, block.body.html], [201, "<p>words</p>"]);
      const snippet = await garden.call("POST", `${SITE}/snippets`, { html: html(href) });
      assert.equal(snippet.body.links, 0);
      const navigation = await garden.call("PUT", `${SITE}/navigation`, {
        version: 0,
        items: [{ id: "a", label: "A", kind: "address", address: href }],
      });
      assert.equal(navigation.status, 422);
      const files = zipSync({
        "a.html": strToU8(`<title>A</title>${html(href)}`),
        "b.md": strToU8(`[words](<${href}>)`),
      });
      const imported = await garden.call("POST", `${SITE}/import?name=a.zip`, undefined, {
        raw: files as BodyInit,
        headers: { "Content-Type": "application/zip" },
      });
      assert.equal(imported.status, 200, JSON.stringify(imported.body));
      for (const { page } of imported.body.files) {
        const { body } = await garden.call("GET", `${SITE}/pages/${page}`);
        isClean(body.html);
        assert.match(body.html, /words/);
        await garden.call("DELETE", `${SITE}/pages/${page}`);
      }
      const route = await garden.call("POST", `${SITE}/routes`, {
        kind: "short",
        address: `/to/${index}`,
        destination: href,
      });
      assert.ok([201, 422].includes(route.status));
      if (route.status === 201) isClean(route.body.destination);
    });
});

describe("the last gate on the way out", () => {
  test("holds what a variable makes of an address, in page, preview, export, ledger, report and navigation", async () => {
    const { body: site } = await garden.call("GET", SITE);
    const { body: page } = await garden.call("POST", `${SITE}/pages`, {
      path: "/filled",
      title: "Filled",
      html: '<p><a href="/{{way}}">words</a> <a href="/kept">kept</a></p>',
      publish: true,
    });
    const way = await garden.call("PATCH", SITE, {
      version: site.version,
      variables: { way: "\\evil.example" },
    });
    assert.equal(way.status, 200);
    const delivered = await garden.call("GET", `${SITE}/pages/${page.id}/delivered`);
    assert.equal(delivered.body, '<p><a>words</a> <a href="/kept">kept</a></p>');
    const links = await garden.call("GET", `${SITE}/links?finding=not-let-out`);
    assert.deepEqual(
      links.body.items.map((one: { anchor: string; kind: string }) => [one.anchor, one.kind]),
      [["words", "broken"]],
    );
    const report = await garden.call("GET", `${SITE}/links/report`);
    assert.deepEqual(
      report.body.notLetOut.map((one: { page: string; words: string }) => [one.page, one.words]),
      [["/filled", "words"]],
    );
  });

  test("rewriting a document takes such addresses away, and reports them", async () => {
    const { body } = await garden.call("POST", `${SITE}/rewrite/report`, {
      html: '<p><a href="vbscript:x">w</a><img src="javascript:y" alt="z"></p>',
    });
    assert.equal(body.html, '<p><a>w</a><img alt="z"></p>');
    assert.deepEqual(
      body.refused.map(({ address }: { address: string }) => address),
      ["vbscript:x", "javascript:y"],
    );
  });
});

describe("what was stored before the gate", () => {
  test("is healed in draft and publication, and told; until then it does not get out", async () => {
    const { body: page } = await garden.call("POST", `${SITE}/pages`, {
      path: "/old",
      title: "Old",
      html: html("/kept"),
      publish: true,
    });
    const dirty = html("javascript:x()");
    await garden.store.rows(
      `UPDATE pages SET admitted = false, body = $body::jsonb, html = $html, published = published || jsonb_build_object('html', $html::text) WHERE id = $id::bigint`,
      { id: page.id, body: JSON.stringify(bodyOf("javascript:x()")), html: dirty },
    );
    const before = await garden.call("GET", `${SITE}/pages/${page.id}/delivered`);
    assert.equal(before.body, "<p><a>words</a></p>");
    const exported = await garden.call("GET", `${SITE}/export?page=${page.id}&as=stored`);
    assert.equal(exported.status, 200);
    assert.doesNotMatch(
      Object.values(unzipSync(exported.bytes))
        .map((one) => strFromU8(one))
        .join(),
      /script:/,
    );

    while ((await healPages(garden.desk)) > 0);
    const { body: healed } = await garden.call("GET", `${SITE}/pages/${page.id}`);
    assert.deepEqual([healed.html, healed.version, healed.changed], ["<p>words</p>", 2, false]);
    const [entry] = await garden.store.rows<{ detail: { dropped: string[] } }>(
      "SELECT detail FROM audit WHERE action = 'page.heal' AND object = $id",
      { id: page.id },
    );
    assert.deepEqual(entry?.detail.dropped, ["the address “javascript:x()” on <a>"]);
    assert.equal(await healPages(garden.desk), 0);
    garden.failures.length = 0;
  });
});
