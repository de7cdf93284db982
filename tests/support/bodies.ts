import fc from "fast-check";
import { admitBody } from "../../src/core/pages/body/admit.ts";
import type { Body } from "../../src/core/pages/body/body.ts";

interface Piece {
  type: string;
  [field: string]: unknown;
}

// Signs that HTML and Markdown read, letters from several scripts, right-to-left, combining marks, pictographs.
const word = fc.oneof(
  { weight: 3, arbitrary: fc.constantFrom("moon", "a", "the", "Saturn", "lens", "10×50") },
  fc.constantFrom(
    "a_b",
    "*star*",
    "_x_",
    "1.",
    "#",
    "-",
    "+",
    ">",
    "`",
    "[x]",
    "(y)",
    "<b>",
    "&amp;",
    "&",
    "\\",
    "~~",
    "!",
    "|",
    "==",
    "http://x.example",
  ),
  fc.constantFrom("שלום", "مرحبا", "e\u0301", "👩‍🚀", "星", "ﬁ"),
);
const words = fc.array(word, { minLength: 1, maxLength: 5 }).map((list) => list.join(" "));
const link = fc.record({
  type: fc.constant("link"),
  attrs: fc.record({
    href: fc.constantFrom(
      "/a",
      "https://s.example/?a=1&b=2",
      "#h",
      "mailto:x@y.example",
      "/files/a%20(1).pdf",
    ),
    title: fc.constantFrom(null, 'say "x"'),
    rel: fc.constantFrom(null, "nofollow me"),
    target: fc.constantFrom(null, "_top"),
    download: fc.constantFrom(null, ""),
    override: fc.constantFrom(null, "target=same"),
  }),
});
const mark = fc.oneof(fc.constantFrom({ type: "bold" }, { type: "italic" }, { type: "strike" }), link);
// Code stands alone: it excludes every other mark.
const marks = fc.oneof(
  fc.constant([{ type: "code" }]),
  fc.uniqueArray(mark, { maxLength: 2, selector: ({ type }) => type }),
);
const text = fc
  .tuple(words, marks)
  .map(([value, set]): Piece => ({ type: "text", text: value, ...(set.length > 0 ? { marks: set } : {}) }));
const inline = fc
  .array(text, { minLength: 1, maxLength: 4 })
  .map((pieces) =>
    pieces.flatMap((piece, at): Piece[] => (at === 0 ? [piece] : [{ type: "text", text: " " }, piece])),
  );
const paragraph = inline.map((content): Piece => ({ type: "paragraph", content }));
const heading = fc
  .tuple(fc.constantFrom(2, 3, 4), words, fc.constantFrom(null, "own-id"))
  .map(([level, value, id]): Piece => ({
    type: "heading",
    attrs: { level, id },
    content: [{ type: "text", text: value }],
  }));
const list = fc
  .tuple(fc.constantFrom("bulletList", "orderedList"), fc.array(paragraph, { minLength: 1, maxLength: 3 }))
  .map(([type, items]): Piece => ({
    type,
    content: items.map((item) => ({ type: "listItem", content: [item] })),
  }));
const picture = fc
  .record({
    alt: words,
    width: fc.constantFrom(null, "small", "full"),
    align: fc.constantFrom(null, "left"),
    href: fc.constantFrom(null, "https://s.example/item"),
    caption: fc.option(inline),
  })
  .map(({ caption, ...attrs }): Piece => ({
    type: "image",
    attrs: { src: "/files/a.png", ...attrs },
    ...(caption ? { content: caption } : {}),
  }));
const block = fc.oneof(
  { weight: 4, arbitrary: paragraph },
  heading,
  list,
  picture,
  paragraph.map((content): Piece => ({ type: "blockquote", content: [content] })),
  words.map((code): Piece => ({
    type: "codeBlock",
    content: [{ type: "text", text: `${code}\n\n  ${code}` }],
  })),
  fc.constant<Piece>({ type: "horizontalRule" }),
);

/** Any body that an author could have written. */
export const bodies: fc.Arbitrary<Body> = fc
  .array(block, { minLength: 1, maxLength: 5 })
  .map((content) => admitBody({ type: "doc", content }).body);
