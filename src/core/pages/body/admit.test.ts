import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { admitBody } from "./admit.ts";
import type { WrittenBody } from "./body.ts";
import { bodyToHtml } from "./to-html.ts";

const linked = (attrs: object): object => ({ type: "text", text: "words", marks: [{ type: "link", attrs }] });
const paragraph = (...content: object[]): object => ({ type: "paragraph", content });
const picture = (attrs: object, ...content: object[]): object => ({ type: "image", attrs, content });
const doc = (...content: object[]): WrittenBody => ({ type: "doc", content });

const cases: readonly (readonly [says: string, body: WrittenBody, html: string, dropped: string[]])[] = [
  [
    "a link that runs a script leaves its words",
    doc(paragraph(linked({ href: "javascript:x()" }))),
    "<p>words</p>",
    ["the address “javascript:x()” on <a>"],
  ],
  [
    "so does one deep in a list",
    doc({
      type: "bulletList",
      content: [{ type: "listItem", content: [paragraph(linked({ href: "file:///etc/passwd" }))] }],
    }),
    "<ul><li><p>words</p></li></ul>",
    ["the address “file:///etc/passwd” on <a>"],
  ],
  [
    "an address that is no text",
    doc(paragraph(linked({ href: { toString: 1 } }))),
    "<p>words</p>",
    ["the address that is no text on <a>"],
  ],
  [
    "what can be made right is",
    doc(paragraph(linked({ href: "htps://shop.example/x" }))),
    '<p><a href="https://shop.example/x">words</a></p>',
    [],
  ],
  [
    "an override that says nothing",
    doc(paragraph(linked({ href: "/a", override: "x=y" }))),
    '<p><a href="/a">words</a></p>',
    ["the override “x=y”, which says nothing known"],
  ],
  [
    "a picture without a good address leaves its caption",
    doc(picture({ src: "data:text/html,x", alt: "a lamp" }, { type: "text", text: "Caption" })),
    "<p>Caption</p>",
    ["the address “data:text/html,x” on <img>"],
  ],
  [
    "or its alternative text",
    doc(picture({ src: "//ida:pw@host.example/x.png", alt: "a lamp" })),
    "<p>a lamp</p>",
    ["the address “//ida:pw@host.example/x.png” on <img>"],
  ],
  [
    "a picture's link goes alone",
    doc(picture({ src: "/a.png", alt: "", href: "vbscript:x", rel: "me" })),
    '<figure><img src="/a.png" alt=""></figure>',
    ["the address “vbscript:x” on <a>"],
  ],
  [
    "a heading's id",
    doc({ type: "heading", attrs: { level: 2, id: 'x" onclick="' }, content: [{ type: "text", text: "H" }] }),
    "<h2>H</h2>",
    ['the id “x" onclick="”'],
  ],
  [
    "a width that is none",
    doc(picture({ src: "/a.png", alt: "", width: "huge", pixelWidth: "1e9" })),
    '<figure><img src="/a.png" alt=""></figure>',
    ["the attribute width on <img>"],
  ],
];

describe("the gate of bodies", () => {
  for (const [says, written, html, dropped] of cases)
    test(says, () => {
      const admitted = admitBody(written);
      assert.equal(bodyToHtml(admitted.body), html);
      assert.deepEqual(admitted.dropped, dropped);
      // What was admitted is admitted again as it is.
      assert.deepEqual(admitBody(admitted.body), { body: admitted.body, dropped: [] });
    });
  test("the same thing many times is told once", () => {
    const { dropped } = admitBody(
      doc(...Array.from({ length: 3 }, () => paragraph(linked({ href: "about:x" })))),
    );
    assert.deepEqual(dropped, ["the address “about:x” on <a> (3 times)"]);
  });
});
