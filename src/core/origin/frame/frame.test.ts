import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { areasIn, cutFrame, selectorFault } from "./frame.ts";

const PAGE = `<!doctype html>
<html lang=en><head><meta charset="iso-8859-1"><TITLE>Old &amp; gone</title>
<link rel="stylesheet" href="/a.css"><link rel=canonical href="/old"><meta name="description" content="Old."><meta property="og:title" content="x"><meta name=viewport content="width=device-width">
<script type="application/ld+json">{"a": "</ not the end"}</script><script>var title = "<title>";</script></head>
<body class=x><nav><a href=/a>A</a></nav><div id="page-content" class="wide"><h1>Old</h1><p>Words of the old page, some of them.</p></div><footer>Foot</footer></body></html>`;

describe("a frame", () => {
  test("is a page without its content and without what it says of itself", () => {
    const cut = cutFrame(PAGE, "#page-content");
    assert.ok(cut.ok);
    const { before, between, after } = cut.frame;
    assert.equal(before, "<!doctype html>\n<html lang=en><head>");
    assert.equal(after, "</div><footer>Foot</footer></body></html>");
    assert.match(
      between,
      /<link rel="stylesheet" href="\/a\.css">.*viewport.*<script>var title = "<title>";<\/script><\/head>\n<body class=x>.*<div id="page-content" class="wide">$/s,
    );
    for (const own of ["charset", "Old", "canonical", "description", "og:title", "ld+json"])
      assert.ok(!between.includes(own), own);
  });

  const PLACES: [html: string, selector: string, around: string][] = [
    ["<head></head><main></main>x", "main", "<head>|</head><main>|</main>x"],
    ["<html><body><main>a<p>b</main>", "main", "<html>|<body><main>|</main>"],
    ["<!DOCTYPE html><div class='a entry'>a</div>", ".entry", "<!DOCTYPE html>|<div class='a entry'>|</div>"],
    ["<head><title>t</title><div role=main>a</div>", "[role=main]", "<head>|<div role=main>|</div>"],
  ]; // prettier-ignore
  for (const [html, selector, around] of PLACES)
    test(`of ${html} at ${selector}`, () => {
      const cut = cutFrame(html, selector);
      assert.ok(cut.ok, JSON.stringify(cut));
      assert.equal(`${cut.frame.before}|${cut.frame.between}|${cut.frame.after}`, around);
    });

  test("is not made of a page that has no such area, and says why", () => {
    for (const [selector, reason] of [
      ["#nothing", /has nothing that/],
      ["link", /it is a link element/],
      ["html", /html element/],
    ] as const) {
      const cut = cutFrame(PAGE, selector);
      assert.ok(!cut.ok);
      assert.match(cut.reason, reason);
    }
    assert.match(selectorFault("a[")!, /no selector/);
    assert.equal(selectorFault("main > .entry:first-child"), undefined);
  });
});

test("areas that may be the content are found, the likeliest first, each by a selector that finds it", () => {
  const areas = areasIn(
    `<body><div class="post-list"><p>a</p></div><main><div class="entry body">One two three</div></main><div id=content>a b c d e</div><span class=content>x</span><div class="entry">later</div></body>`,
  );
  assert.deepEqual(areas, [
    { selector: "main", words: 3, begins: "One two three" },
    { selector: "#content", words: 5, begins: "a b c d e" },
    { selector: "div.entry", words: 3, begins: "One two three" },
    { selector: "div.post-list", words: 1, begins: "a" },
  ]);
});
