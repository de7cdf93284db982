import assert from "node:assert/strict";
import { test } from "node:test";
import fc from "fast-check";
import type { Rule } from "../../rules/rule.ts";
import type { LinkResolver } from "../../rules/resolve/link-facts.ts";
import { findLinks } from "../find.ts";
import { rewriteDocument, DocumentRewriter } from "./rewrite-document.ts";
import { LinkRewriter, rewriteLinks } from "./rewrite.ts";

const site: LinkResolver = {
  hosts: ["lowlantern.example"],
  answers: () => "page",
  routeDestination: () => undefined,
};
const outside: Rule = {
  name: "Outside links",
  enabled: true,
  match: { destination: "external" },
  set: { nofollow: "on", target: "new" },
  mode: "overwrite",
};
const rewritten = (html: string, rules: Rule[] = [outside]): string =>
  rewriteDocument(html, rules, site).html;

const OUT = 'rel="nofollow noopener" target="_blank"';
const cases: [name: string, html: string, expected: string][] = [
  ["quoted attributes", '<a href="https://a.example/">a</a>', `<a href="https://a.example/" ${OUT}>a</a>`],
  [
    "attributes without quotes",
    "<a href=https://a.example/>a</a>",
    `<a href=https://a.example/ ${OUT}>a</a>`,
  ],
  ["upper case", "<A HREF='https://a.example/'>a</A>", `<A HREF='https://a.example/' ${OUT}>a</A>`],
  [
    "white space in the tag",
    '<a\n  href="https://a.example/"\n>a</a>',
    `<a\n  href="https://a.example/" ${OUT}\n>a</a>`,
  ],
  [
    "entities",
    '<a href="https://a.example/?x=1&amp;y=2">a</a>',
    `<a href="https://a.example/?x=1&amp;y=2" ${OUT}>a</a>`,
  ],
  [
    "duplicate attributes: browsers obey the first",
    '<a href="https://a.example/" rel="me" rel="x">a</a>',
    '<a href="https://a.example/" rel="nofollow noopener me" rel="x" target="_blank">a</a>',
  ],
  [
    "what is already right",
    `<a ${OUT} href="https://a.example/">a</a>`,
    `<a ${OUT} href="https://a.example/">a</a>`,
  ],
  ["comments", '<!-- <a href="https://a.example/">a</a> -->', '<!-- <a href="https://a.example/">a</a> -->'],
  [
    "scripts and styles",
    '<script>"<a href=https://a.example/>"</script><style>a{}</style>',
    '<script>"<a href=https://a.example/>"</script><style>a{}</style>',
  ],
  [
    "text areas and titles",
    "<textarea><a href=https://a.example/></textarea>",
    "<textarea><a href=https://a.example/></textarea>",
  ],
  [
    "templates: a script makes links of them",
    '<template><a href="https://a.example/">a</a></template>',
    `<template><a href="https://a.example/" ${OUT}>a</a></template>`,
  ],
  [
    "SVG links",
    '<svg><a xlink:href="https://a.example/"><text>a</text></a></svg>',
    `<svg><a xlink:href="https://a.example/" ${OUT}><text>a</text></a></svg>`,
  ],
  [
    "area elements",
    '<map><area href="https://a.example/" alt="a"></map>',
    `<map><area href="https://a.example/" alt="a" ${OUT}></map>`,
  ],
  ["a closing slash", "<area href='https://a.example/'/>", `<area href='https://a.example/' ${OUT}/>`],
  [
    "a base element makes paths outside links",
    '<base href="https://b.example/"><a href="/x">x</a>',
    `<base href="https://b.example/"><a href="/x" ${OUT}>x</a>`,
  ],
  [
    "an address of our own under a foreign base",
    '<base href="https://b.example/"><a href="https://lowlantern.example/x">x</a>',
    '<base href="https://b.example/"><a href="https://lowlantern.example/x">x</a>',
  ],
  [
    "a link that is never closed",
    '<p><a href="https://a.example/">a<p><a href="/own">b',
    `<p><a href="https://a.example/" ${OUT}>a<p><a href="/own">b`,
  ],
  [
    "a tag that is cut off",
    '<a href="https://a.example/">a</a><a href="https://a.exa',
    `<a href="https://a.example/" ${OUT}>a</a><a href="https://a.exa`,
  ],
  [
    "anchors, mail, phone and scripts",
    '<a name="x">x</a><a href="mailto:a@b.example">m</a><a href="tel:+1">t</a><a href="javascript:x()">j</a>',
    '<a name="x">x</a><a href="mailto:a@b.example">m</a><a href="tel:+1">t</a><a>j</a>',
  ],
];

for (const [name, html, expected] of cases)
  test(`rewrites only the start tags that need it: ${name}`, () => {
    assert.equal(rewritten(html), expected);
    assert.equal(rewritten(expected), expected, "rewriting again changes nothing");
  });

test("under a base target, the same tab is said", () => {
  const same: Rule = { ...outside, set: { target: "same" } };
  const html = '<base target="_blank"><a href="https://a.example/">a</a><a href="/x" target="_blank">x</a>';
  const expected =
    '<base target="_blank"><a href="https://a.example/" target="_self">a</a><a href="/x" target="_blank" rel="noopener">x</a>';
  assert.equal(rewritten(html, [same]), expected);
  assert.equal(rewritten(expected, [same]), expected);
});

const piece = fc.constantFrom(
  "<a href=",
  "<A ",
  "href='https://a.example/x'",
  '"https://a.example/?a&amp;b"',
  'rel="me"',
  " target=_top",
  ">",
  "/>",
  "</a>",
  "words",
  "<p>",
  "</p>",
  "<!--",
  "-->",
  "<script>",
  "</script>",
  "\n",
  "<img src=x alt='a b'>",
  "<svg>",
  "é😀",
  "&amp;",
  "<",
  '"',
  "<area href=/x alt=q>",
  " data-override='nofollow=off'",
);

test("wherever a document is cut, the same comes out", () => {
  fc.assert(
    fc.property(
      fc.array(piece, { maxLength: 40 }),
      fc.array(fc.nat(30), { maxLength: 12 }),
      (parts, steps) => {
        const html = parts.join("");
        const whole = rewritten(html);
        const rewriter = new DocumentRewriter([outside], site);
        let from = 0;
        let out = "";
        for (const step of steps) out += rewriter.write(html.slice(from, (from += step)));
        out += rewriter.write(html.slice(from)) + rewriter.end();
        assert.equal(out, whole);
        assert.equal(rewritten(whole), whole, "idempotent");
        assert.deepEqual(rewriter.report, rewriteDocument(html, [outside], site).report);
      },
    ),
    { numRuns: 500 },
  );
});

test("every byte outside of changed start tags stays", () => {
  fc.assert(
    fc.property(fc.array(piece, { maxLength: 40 }), (parts) => {
      const html = parts.join("");
      const tags = findLinks(html).map(({ tag }) => tag);
      const around = (text: string, at: readonly { start: number; end: number }[]): string[] =>
        [...at, { start: text.length, end: 0 }].map(({ start }, index) =>
          text.slice(at[index - 1]?.end ?? 0, start),
        );
      const after = rewritten(html);
      assert.deepEqual(
        around(
          after,
          findLinks(after).map(({ tag }) => tag),
        ),
        around(html, tags),
      );
    }),
    { numRuns: 500 },
  );
});

test("what nobody decides differently comes out byte for byte", () => {
  fc.assert(
    fc.property(fc.array(piece, { maxLength: 40 }), (parts) => {
      const html = parts.join("");
      assert.equal(
        rewriteLinks(html, ({ rel, target }) => ({ rel, target }), { keepOverride: true }),
        html,
      );
    }),
  );
});

test("a stream lets go of what is settled", () => {
  const rewriter = new LinkRewriter(({ rel, target }) => ({ rel, target }));
  assert.equal(rewriter.write("<p>one <b>two</b> "), "<p>one <b>two</b> ");
  assert.equal(rewriter.write('three <a href="/x">fo'), "three ");
  assert.equal(rewriter.write("ur</a> five"), '<a href="/x">four</a> five');
  assert.equal(rewriter.end(), "");
});

test("the report names line, words, both looks and who decided", () => {
  const { report } = rewriteDocument(
    '<p>\n\n<a href="https://a.example/" rel="ugc">See\n this</a></p>\n<a href="https://a.example/" data-override="nofollow=off target=same">no</a>',
    [outside],
    site,
  );
  assert.equal(report.links, 2);
  assert.deepEqual(report.changes, [
    {
      line: 3,
      words: "See this",
      href: "https://a.example/",
      before: { rel: "ugc", target: null },
      after: { rel: "nofollow ugc noopener", target: "_blank" },
      by: ["Outside links", "the author's own attribute", "a new tab implies noopener"],
    },
  ]);
});

const REFUSED: [name: string, html: string, expected: string, addresses: string[]][] = [
  [
    "a script's address, words stay",
    '<a class=x href="javascript:y" rel=me>w</a>',
    "<a class=x rel=me>w</a>",
    ["javascript:y"],
  ],
  ["a second href too", '<a href="data:text/html,a" href="/b">w</a>', "<a>w</a>", ["data:text/html,a"]],
  [
    "SVG's way of writing it",
    '<svg><a href="vbscript:a" xlink:href="/b">w</a></svg>',
    "<svg><a>w</a></svg>",
    ["vbscript:a"],
  ],
  [
    "an attribute that follows at once keeps its distance",
    '<a title="t"href="file:///x"class="c">w</a>',
    '<a title="t" class="c">w</a>',
    ["file:///x"],
  ],
  [
    "pictures inside a link and beside one",
    '<img alt=a src="vbscript:b">\n<a href="/x"><img src="file:b" alt="c"></a><img src="/ok.png">',
    '<img alt=a>\n<a href="/x"><img alt="c"></a><img src="/ok.png">',
    ["vbscript:b", "file:b"],
  ],
  [
    "a picture that stands in the document itself",
    '<img src="data:image/png;base64,AA==">',
    '<img src="data:image/png;base64,AA==">',
    [],
  ],
];

for (const [name, html, expected, addresses] of REFUSED)
  test(`what may not leave the house is taken away: ${name}`, () => {
    const { html: out, report } = rewriteDocument(html, [], site);
    assert.equal(out, expected);
    assert.deepEqual(
      report.refused.map(({ address }) => address),
      addresses,
    );
    assert.equal(rewriteDocument(out, [], site).html, out);
    for (let cut = 0; cut <= html.length; cut += 1) {
      const rewriter = new DocumentRewriter([], site);
      assert.equal(
        rewriter.write(html.slice(0, cut)) + rewriter.write(html.slice(cut)) + rewriter.end(),
        expected,
      );
      assert.deepEqual(rewriter.report, report);
    }
  });
