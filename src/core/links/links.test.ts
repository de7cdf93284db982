import assert from "node:assert/strict";
import { describe, test } from "node:test";
import fc from "fast-check";
import { ruleSchema } from "../rules/rule.ts";
import { deliverHtml } from "./rewrite/deliver.ts";
import { deliveredTag } from "./delivered-tag.ts";
import { findLinks } from "./find.ts";
import { rewriteLinks, type DeliveredAttributes } from "./rewrite/rewrite.ts";

const RESOLVER = { hosts: ["own.example"], answers: () => undefined, routeDestination: () => undefined };

describe("links are found in any HTML", () => {
  const cases: readonly (readonly [
    html: string,
    links: readonly (readonly [href: string, words: string])[],
  ])[] = [
    ["<p>no links</p>", []],
    [
      '<a href="/a">One</a> <a href="/b">Two</a>',
      [
        ["/a", "One"],
        ["/b", "Two"],
      ],
    ],
    ["<A HREF=/a TITLE='x'>One</A>", [["/a", "One"]]],
    ["<a\n  href='/a'\n>One\n two</a>", [["/a", "One two"]]],
    ['<a href="/?a=1&amp;b=2">x</a>', [["/?a=1&b=2", "x"]]],
    ['<a href="/?a=1&copy=2">x</a>', [["/?a=1&copy=2", "x"]]],
    ['<a href="/a"><strong>bold</strong> and <em>not</em></a>', [["/a", "bold and not"]]],
    ['<a href="/a"><img src="x.png" alt="A lamp"></a>', [["/a", "A lamp"]]],
    ['<a name="here">no address</a>', []],
    [
      '<!-- <a href="/no">no</a> --><script>"<a href=/no>"</script><style>a{}</style><a href="/yes">yes</a>',
      [["/yes", "yes"]],
    ],
    ['<textarea><a href="/no">no</a></textarea><a href="/yes">yes</a>', [["/yes", "yes"]]],
    ['<map><area href="/a" alt="Left half"></map>', [["/a", "Left half"]]],
    ['<svg><a xlink:href="/a"><text>In a picture</text></a></svg>', [["/a", "In a picture"]]],
    [
      '<a href="/a">never closed <a href="/b">next</a>',
      [
        ["/a", "never closed"],
        ["/b", "next"],
      ],
    ],
    ['<a href="/a" href="/b">twice</a>', [["/a", "twice"]]],
    ["<a href>empty</a>", [["", "empty"]]],
    ['text < 3 and <a href="/a">x', [["/a", "x"]]],
    ['<template><a href="/t">in a template</a></template>', [["/t", "in a template"]]],
  ];
  for (const [html, links] of cases) {
    test(html, () =>
      assert.deepEqual(
        findLinks(html).map(({ href, words }) => [href, words]),
        links,
      ),
    );
  }
});

describe("only the start tags that need it are changed", () => {
  const set = (rel: string | null, target: string | null) => (): DeliveredAttributes => ({ rel, target });
  const cases: readonly (readonly [
    says: string,
    html: string,
    rel: string | null,
    target: string | null,
    rewritten: string,
  ])[] = [
    [
      "added behind the last attribute",
      '<a href="/a">x</a>',
      "nofollow",
      "_blank",
      '<a href="/a" rel="nofollow" target="_blank">x</a>',
    ],
    [
      "added before a closing slash",
      '<area href="/a" />',
      "nofollow",
      null,
      '<area href="/a" rel="nofollow" />',
    ],
    [
      "added behind an unquoted value",
      "<a href=/a/>x</a>",
      "nofollow",
      null,
      '<a href=/a/ rel="nofollow">x</a>',
    ],
    [
      "replaced where it stands",
      "<a rel=ugc href='/a'>x</a>",
      "nofollow",
      null,
      "<a rel=\"nofollow\" href='/a'>x</a>",
    ],
    [
      "taken off with its space",
      '<a href="/a"  rel="ugc" class=b>x</a>',
      null,
      null,
      '<a href="/a" class=b>x</a>',
    ],
    [
      "taken off with its duplicates",
      '<a rel="ugc" href="/a" REL=me>x</a>',
      null,
      null,
      '<a href="/a">x</a>',
    ],
    [
      "left alone when the tokens are the same in another order",
      '<a rel="noopener  nofollow" href="/a">x</a>',
      "nofollow noopener",
      null,
      '<a rel="noopener  nofollow" href="/a">x</a>',
    ],
    ["an empty rel is left out", '<a href="/a" rel="">x</a>', null, null, '<a href="/a">x</a>'],
    [
      "an attribute without value is replaced",
      '<a href="/a" target>x</a>',
      null,
      "_blank",
      '<a href="/a" target="_blank">x</a>',
    ],
    [
      "override is for us, not for readers",
      '<a href="/a" data-override="nofollow=on">x</a>',
      "nofollow",
      null,
      '<a href="/a" rel="nofollow">x</a>',
    ],
    [
      "comments and scripts stay",
      "<!-- <a href=/no> --><script>'<a href=/no>'</script>",
      "nofollow",
      "_blank",
      "<!-- <a href=/no> --><script>'<a href=/no>'</script>",
    ],
  ];
  for (const [says, html, rel, target, rewritten] of cases) {
    test(says, () => assert.equal(rewriteLinks(html, set(rel, target)), rewritten));
  }

  const piece = fc.constantFrom(
    "<p>",
    "</p>",
    '<a href="/a">',
    "<a href=b rel=ugc>",
    "<A HREF='c' TARGET=_top REL='me nofollow'>",
    "</a>",
    "<img src=x alt='&amp;'>",
    "<!-- <a> -->",
    "<script>a<b</script>",
    '<a href="/d" data-override="target=same">',
    "<br/>",
    " & é 🔭 ",
    "<",
    ">",
    '"',
    "<a ",
    "href=",
    "<area href=/m>",
    "<svg><a xlink:href='/s'>",
    "\n",
  );
  const document = fc.array(piece, { maxLength: 25 }).map((pieces) => pieces.join(""));
  const wants = (link: { href: string }): DeliveredAttributes => ({
    rel: link.href.length % 2 ? "nofollow noopener" : null,
    target: link.href.length % 2 ? "_blank" : null,
  });

  test("rewriting what was rewritten changes nothing, on any markup", () => {
    fc.assert(
      fc.property(document, (html) => {
        const once = rewriteLinks(html, wants, { keepOverride: true });
        assert.equal(rewriteLinks(once, wants, { keepOverride: true }), once);
      }),
      { numRuns: 2000 },
    );
  });

  test("everything outside of links' start tags stays, byte for byte", () => {
    fc.assert(
      fc.property(document, (html) => {
        const outside = (source: string): string[] => {
          const ends: string[] = [];
          let from = 0;
          for (const { tag } of findLinks(source)) {
            ends.push(source.slice(from, tag.start));
            from = tag.end;
          }
          return [...ends, source.slice(from)];
        };
        assert.deepEqual(outside(rewriteLinks(html, wants)), outside(html));
      }),
      { numRuns: 2000 },
    );
  });
});

describe("stored HTML becomes delivered HTML", () => {
  const rules = [
    ruleSchema.parse({ name: "new tab", match: { destination: "external" }, set: { target: "new" } }),
  ];

  test("rules act on outside links, overrides beat them, the rest stays", () => {
    const stored =
      '<p><a href="https://shop.example/">out</a> <a href="https://shop.example/" data-override="target=same">by hand</a> <a href="/in">in</a></p>';
    assert.equal(
      deliverHtml(stored, rules, RESOLVER, {}),
      '<p><a href="https://shop.example/" rel="noopener" target="_blank">out</a> <a href="https://shop.example/">by hand</a> <a href="/in">in</a></p>',
    );
  });

  test("the tag shown beside a link is the tag that is delivered", () => {
    const tag = deliveredTag(
      { href: "https://shop.example/?a=1&b=2", title: 'A "lamp"', words: "Lamp & more" },
      { rel: ["nofollow", "noopener"], target: "_blank" },
    );
    const delivered = deliverHtml(
      '<a href="https://shop.example/?a=1&amp;b=2" title="A &quot;lamp&quot;">Lamp &amp; more</a>',
      [...rules, ruleSchema.parse({ name: "nf", set: { nofollow: "on" } })],
      RESOLVER,
      {},
    );
    assert.equal(tag, delivered);
  });
});
