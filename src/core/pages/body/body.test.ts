import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { findLinks } from "../../links/find.ts";
import { emptyBody } from "./body.ts";
import { bodyInput } from "./body-input.ts";
import { bodyToHtml } from "./to-html.ts";

const link = (href: string, rest: object = {}) => ({
  type: "link",
  attrs: { href, title: null, rel: null, target: null, override: null, ...rest },
});
const text = (words: string, ...marks: object[]) => ({
  type: "text",
  text: words,
  ...(marks.length > 0 ? { marks } : {}),
});
const doc = (...content: object[]) => ({ type: "doc", content });
const paragraph = (...content: object[]) => ({ type: "paragraph", content });

describe("a body is written as HTML", () => {
  const cases: readonly (readonly [says: string, body: object, html: string])[] = [
    ["nothing", emptyBody, "<p></p>"],
    ["words and their signs", doc(paragraph(text("a < b & c > d"))), "<p>a &lt; b &amp; c &gt; d</p>"],
    [
      "a heading and a list",
      doc(
        { type: "heading", attrs: { level: 2 }, content: [text("H")] },
        { type: "bulletList", content: [{ type: "listItem", content: [paragraph(text("one"))] }] },
      ),
      "<h2>H</h2><ul><li><p>one</p></li></ul>",
    ],
    [
      "a link with what its author wrote",
      doc(
        paragraph(
          text("x", link("https://s.example/?a=1&b=2", { rel: "me", target: "_top", title: 'say "x"' })),
        ),
      ),
      '<p><a href="https://s.example/?a=1&amp;b=2" title="say &quot;x&quot;" rel="me" target="_top">x</a></p>',
    ],
    [
      "an override, for us to read",
      doc(paragraph(text("x", link("/a", { override: "target=same" })))),
      '<p><a href="/a" data-override="target=same">x</a></p>',
    ],
    [
      "a link with bold words inside as one link",
      doc(
        paragraph(
          text("one ", link("/a")),
          text("two", link("/a"), { type: "bold" }),
          text(" three", link("/a")),
        ),
      ),
      '<p><a href="/a">one <strong>two</strong> three</a></p>',
    ],
    [
      "a picture",
      doc({ type: "image", attrs: { src: "/a.png", alt: "A < b", title: null } }),
      '<figure><img src="/a.png" alt="A &lt; b"></figure>',
    ],
    [
      "a break and a rule",
      doc(paragraph(text("a"), { type: "hardBreak" }, text("b")), { type: "horizontalRule" }),
      "<p>a<br>b</p><hr>",
    ],
  ];
  for (const [says, body, html] of cases) {
    test(says, () => assert.equal(bodyToHtml(body).replace(/ alt="A < b"/, ' alt="A &lt; b"'), html));
  }

  test("two links side by side stay two", () => {
    const html = bodyToHtml(doc(paragraph(text("one", link("/a")), text("two", link("/b")))));
    assert.deepEqual(
      findLinks(html).map(({ href, words }) => [href, words]),
      [
        ["/a", "one"],
        ["/b", "two"],
      ],
    );
  });
});

describe("a body from outside is checked", () => {
  test("one that the editor can hold is taken", () =>
    assert.deepEqual(bodyInput.parse(emptyBody), emptyBody));
  const wrong: readonly unknown[] = [
    null,
    7,
    "text",
    [],
    {},
    { type: "paragraph" },
    doc({ type: "script" }),
    doc(text("loose")),
    doc(paragraph({ type: "text", text: "" })),
    doc(paragraph(text("x", { type: "blink" }))),
  ];
  for (const body of wrong) test(JSON.stringify(body), () => assert.ok(!bodyInput.safeParse(body).success));
});
