import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { reducePage } from "./reduce.ts";

const at = "https://notes.example/log/may/heron";
const blocks = (html: string) => reducePage(html, at).blocks.map(({ area, html: own }) => `${area} ${own}`);

describe("a page is read down to the words and links of its blocks", () => {
  test("with the landmark that each stands in", () => {
    assert.deepEqual(
      blocks(
        `<body><header><p>Notes</p></header><nav><a href="/">Start</a></nav><main><article><header><h1>Heron</h1></header><p>At <a href="/log">dusk</a>.</p></article></main>
         <aside><ul><li><a href="https://x.example/">X</a><li>Y</ul></aside><div role="contentinfo">Foot</div>`,
      ),
      [
        "head <p>Notes</p>",
        `menu <p><a href="/">Start</a></p>`,
        "text <h2>Heron</h2>",
        `text <p>At <a href="/log">dusk</a>.</p>`,
        `side <li><a href="https://x.example/">X</a></li>`,
        "side <li>Y</li>",
        "foot <p>Foot</p>",
      ],
    );
  });

  test("of tables that hold a page together, and of elements that nobody closed", () => {
    assert.deepEqual(
      blocks(
        `<table><tr><td><a href=home.html>Home<td><font>Text <b>bold<p>More <a href="../june/">June</table>`,
      ),
      [
        `text <td><a href="/log/may/home.html">Home</a></td>`,
        "text <td>Text bold</td>",
        `text <p>More <a href="/log/june/">June</a></p>`,
      ],
    );
  });

  test("addresses are resolved as a browser does it, against the first base", () => {
    const html = `<base href="/shop/"><base href="/other/"><p><a href="oar">a</a> <a href="?q=1#top">b</a> <a href="//cdn.example/x">c</a> <a href="mailto:a@b.example">d</a> <a href="https://notes.example/y">e</a>`;
    assert.deepEqual(
      [...blocks(html)[0]!.matchAll(/href="([^"]*)"/g)].map(([, href]) => href),
      ["/shop/oar", "/shop/?q=1#top", "https://cdn.example/x", "mailto:a@b.example", "/y"],
    );
    assert.deepEqual(
      reducePage(html, at).links.map(({ address }) => address),
      [
        "https://notes.example/shop/oar",
        "https://notes.example/shop/?q=1",
        "https://cdn.example/x",
        "https://notes.example/y",
      ],
    );
  });

  test("a link around blocks is one link, a picture in it gives its alternative text", () => {
    assert.deepEqual(
      blocks(
        `<a href="/a"><div><h3>Head</h3><p>Words</p></div></a><p><a href="/b"><img src="b.png" alt="Oars"></a>`,
      ),
      [
        `text <p><a href="/a"> Head Words </a></p>`,
        `text <p><a href="/b"><img src="https://notes.example/log/may/b.png" alt="Oars"></a></p>`,
      ],
    );
  });

  test("scripts, styles, templates and what they write are no text", () => {
    assert.deepEqual(
      blocks(
        `<p>One</p><script>document.write("<a href='/x'>x</a>")</script><noscript><a href="/n">n</a></noscript><template><p>T</p></template><style>p{}</style><p>Two`,
      ),
      ["text <p>One</p>", "text <p>Two</p>"],
    );
  });
});

describe("what a page says of itself", () => {
  const head = (inner: string) =>
    reducePage(`<html lang="de-AT"><head>${inner}</head><body><p>Some words stand here.</p>`, at);

  test("title, language, canonical address, feeds", () => {
    const page = head(
      `<title> A &amp; B\n</title><link rel="canonical" href="/log/heron#x"><link rel="alternate" type="application/atom+xml" href="/feed"><meta name=description content="Of herons">`,
    );
    assert.deepEqual(
      [page.title, page.language, page.canonical, page.feeds, page.description],
      ["A & B", "de-AT", "https://notes.example/log/heron", ["https://notes.example/feed"], "Of herons"],
    );
  });

  for (const [content, noindex, nofollow] of [
    ["noindex", true, false],
    ["NOFOLLOW, noarchive", false, true],
    ["none", true, true],
    ["index, follow", false, false],
  ] as const)
    test(`robots “${content}”`, () => {
      const page = head(`<meta name="Robots" content="${content}">`);
      assert.deepEqual([page.noindex, page.nofollow], [noindex, nofollow]);
    });

  for (const [content, to] of [
    ["0; url=/new", "https://notes.example/new"],
    ["3;URL='https://x.example/'", "https://x.example/"],
    ["600", null],
    ["30; url=/later", null],
    ["0; url=heron", null],
  ] as const)
    test(`refresh “${content}”`, () => {
      assert.equal(head(`<meta http-equiv="refresh" content="${content}">`).refresh, to);
    });

  test("one that scripts make is told from one with few words", () => {
    assert.equal(
      reducePage(`<body><div id="root"></div><script src="/app.js"></script>`, at).isMadeByScripts,
      true,
    );
    assert.equal(reducePage(`<body><p>Closed today.</p>`, at).isMadeByScripts, false);
    assert.equal(
      reducePage(`<body><script></script><p>${"Many words stand in this page. ".repeat(8)}`, at)
        .isMadeByScripts,
      false,
    );
  });
});

test("whatever is written, it ends, and what is kept is bounded", () => {
  const deep = reducePage("<div>".repeat(50_000) + "x", at);
  assert.equal(deep.blocks.length, 1);
  const long = reducePage(`<p>${"word <a href='/x'>x</a> ".repeat(60_000)}</p>`.repeat(2), at);
  assert.ok(long.isCut);
  assert.ok(long.blocks.reduce((sum, { html }) => sum + html.length, 0) < 1_000_000);
  assert.deepEqual(reducePage("<a href='http://['>x</a><<<>", at).links, []);
});
