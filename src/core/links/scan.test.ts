import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { findLinks } from "./find.ts";
import { LinkScanner, type LinkInHtml } from "./scan.ts";

describe("a link in HTML", () => {
  const rows: [says: string, html: string, expected: Partial<LinkInHtml>][] = [
    ["words with markup inside, white space folded", "<a href=/x> a <b>b</b>\n c </a>", { words: "a b c" }],
    ["a line break is a space", "<a href=/x>a<br>b</a>", { words: "a b" }],
    ["entities in the address", '<a href="/x?a&amp;b">a</a>', { href: "/x?a&b" }],
    ["entities in the words stay as they are written", "<a href=/x>a &amp; b</a>", { words: "a &amp; b" }],
    ["no value is an empty one", "<a href>a</a>", { href: "" }],
    ["the first of two attributes", "<a href=/x href=/y rel=me rel=you>a</a>", { href: "/x", rel: "me" }],
    [
      "a picture's alternative text",
      '<a href=/x><img src=/p.svg alt="A lamp"></a>',
      { words: "A lamp", anchor: "image", picture: "/p.svg" },
    ],
    [
      "words beside a picture",
      "<a href=/x>See <img src=/p.svg alt=this> now</a>",
      { words: "See this now", anchor: "image" },
    ],
    ["the first of two pictures", "<a href=/x><img src=/1><img src=/2></a>", { picture: "/1" }],
    [
      "title, target and override",
      "<a href=/x title='T' target=_top data-override='ugc=on'>a</a>",
      { title: "T", target: "_top", override: "ugc=on" },
    ],
    ["an area", "<area href=/x alt='North'>", { words: "North", anchor: "image", nested: false }],
    ["a link that is never closed", "<p><a href=/x>a b", { words: "a b" }],
  ];
  for (const [says, html, expected] of rows)
    test(says, () => {
      const [link] = findLinks(html);
      for (const [name, value] of Object.entries(expected))
        assert.deepEqual(link![name as keyof LinkInHtml], value, name);
    });

  test("one that begins inside another ends it", () => {
    const found = findLinks("<a href=/1>one <a href=/2>two</a> three</a>");
    assert.deepEqual(
      found.map(({ href, words, nested }) => [href, words, nested]),
      [
        ["/1", "one", false],
        ["/2", "two", true],
      ],
    );
  });

  test("its tag is told by offsets into the document", () => {
    const html = "<p>é😀 <A\n HREF='/x' rel=me>a</A>";
    const [{ tag } = { tag: undefined }] = findLinks(html);
    assert.equal(html.slice(tag!.start, tag!.end), "<A\n HREF='/x' rel=me>");
    assert.deepEqual(
      tag!.attributes.map(({ name, start, end }) => [name, html.slice(start, end)]),
      [
        ["href", "HREF='/x'"],
        ["rel", "rel=me"],
      ],
    );
  });
});

test("base elements are heard, the first of each attribute", () => {
  const scanner = new LinkScanner(() => {});
  scanner.write(
    '<base target="_blank"><base href="https://a.example/" target="x"><base href="https://b.example/">',
  );
  scanner.end();
  assert.deepEqual(scanner.base, { href: "https://a.example/", target: "_blank" });
});

test("it keeps no more than it may still need", () => {
  const scanner = new LinkScanner(() => {});
  const settledAfter = (piece: string): number => {
    scanner.write(piece);
    return scanner.settled;
  };
  assert.equal(settledAfter("<p>text "), 8);
  assert.equal(settledAfter("<a hre"), 8);
  assert.equal(settledAfter("f=/x>wor"), 8, "an open link is kept from its start");
  assert.equal(settledAfter("ds</a> more"), 33);
});
