import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { readAs, type Reading } from "../../address/repair/read-as.ts";
import { repairAddress } from "../../address/repair/repair.ts";
import { readFrontMatter, withFrontMatter } from "./front-matter.ts";
import { readHtmlFile } from "./html-file.ts";
import { laidOut } from "./lay-out.ts";

describe("front matter", () => {
  test("is fenced by lines of their own: values may end in hyphens, and be nothing but hyphens", () => {
    for (const title of ["A break ---", "---", "--- x", "x\n---\ny", "a---"]) {
      const { meta, rest, faults } = readFrontMatter(
        withFrontMatter({ title, path: "/x" }, "Text\n---\nmore"),
      );
      assert.deepEqual([meta, rest, faults], [{ title, path: "/x" }, "Text\n---\nmore", []]);
    }
    const byHand = readFrontMatter("---\r\ntitle: Lamps ---\r\ncategory: a\r\n---\r\n\r\nText");
    assert.deepEqual(byHand, { meta: { title: "Lamps ---", category: "a" }, rest: "Text", faults: [] });
    assert.deepEqual(readFrontMatter("---\n---\nText"), { meta: {}, rest: "Text", faults: [] });
    assert.deepEqual(readFrontMatter("---\nno end ---"), { meta: {}, rest: "---\nno end ---", faults: [] });
  });

  test("is written and read back, empty fields left out", () => {
    const meta = { title: "A: b", path: "/a", description: "", inNavigation: true };
    const file = withFrontMatter(meta, "Text\n---\nmore");
    assert.equal(file, '---\ntitle: "A: b"\npath: /a\ninNavigation: true\n---\n\nText\n---\nmore');
    assert.deepEqual(readFrontMatter(file), {
      meta: { title: "A: b", path: "/a", inNavigation: true },
      rest: "Text\n---\nmore",
      faults: [],
    });
  });
  const cases: readonly (readonly [says: string, text: string, rest: string, fault: RegExp | undefined])[] = [
    ["none", "Just text", "Just text", undefined],
    ["a byte order mark", "\uFEFFText", "Text", undefined],
    ["Windows line ends", "---\r\ntitle: T\r\n---\r\nText", "Text", undefined],
    ["a field that is not ours", "---\ncolour: red\n---\nText", "Text", /field “colour” was left out/],
    ["a field of the wrong kind", "---\ntitle: [a, b]\n---\nText", "Text", /field “title” was left out/],
    ["what is no YAML", "---\n: : :\n  - {\n---\nText", "Text", /cannot be read/],
    [
      "aliases that multiply",
      `---\na: &a [x, x]\nb: &b [*a, *a]\nc: [*b, *b]\n---\nText`,
      "Text",
      /cannot be read/,
    ],
    ["an empty one", "---\n---\nText", "Text", undefined],
  ];
  for (const [says, text, rest, fault] of cases) {
    test(says, () => {
      const read = readFrontMatter(text);
      assert.equal(read.rest, rest);
      if (fault) assert.match(read.faults.join(" "), fault);
      else assert.deepEqual(read.faults, []);
    });
  }
});

describe("an HTML file", () => {
  test("gives its title, its description and its body; the first heading is the title", () => {
    const file =
      "<!doctype html><title>The &amp; title</title><meta name=description content='Short'><body class=x>\n<h1>The <i>title</i></h1><p>Text</p></body>";
    assert.deepEqual(readHtmlFile(file), {
      meta: { title: "The & title", description: "Short" },
      html: "<p>Text</p>",
    });
  });
  test("may be a fragment, whose heading stays when words stand before it", () => {
    assert.deepEqual(readHtmlFile("<h1>Moon</h1><p>x</p>"), { meta: { title: "Moon" }, html: "<p>x</p>" });
    assert.deepEqual(readHtmlFile("<p>x</p><h1>Moon</h1>"), { meta: {}, html: "<p>x</p><h1>Moon</h1>" });
  });
});

describe("source is laid out a block a line", () => {
  for (const [html, lines] of [
    ["<p>a</p><p>b</p>", "<p>a</p>\n<p>b</p>"],
    [
      "<ul><li><p>a</p></li><li><p>b</p></li></ul><p>c</p>",
      "<ul>\n<li><p>a</p></li>\n<li><p>b</p></li>\n</ul>\n<p>c</p>",
    ],
    [
      "<pre><code>&lt;p&gt;</code></pre><blockquote><p>q</p></blockquote>",
      "<pre><code>&lt;p&gt;</code></pre>\n<blockquote>\n<p>q</p></blockquote>",
    ],
    ["<p>one <strong>line</strong></p>", "<p>one <strong>line</strong></p>"],
  ] as const)
    test(html, () => assert.equal(laidOut(html), lines));
});

describe("typed text is read as what the person says it is", () => {
  const cases: readonly (readonly [typed: string, reading: Reading, address: string])[] = [
    ["resources", "inside", "/resources"],
    ["our tools", "inside", "/our-tools"],
    ["/resources", "outside", "https://resources/"],
    ["fernhill.html", "outside", "https://fernhill.html/"],
    ["http://fernhill", "inside", "/fernhill"],
    ["post@lowlantern.example", "mail", "mailto:post@lowlantern.example"],
    ["020 7946 0018", "phone", "tel:02079460018"],
    ["+44 20 7946 0018", "phone", "tel:+442079460018"],
    ["Under the sky", "heading", "#Under-the-sky"],
  ];
  for (const [typed, reading, address] of cases) {
    test(`“${typed}” as ${reading}`, () => {
      const repaired = repairAddress(readAs(typed, reading));
      assert.equal(repaired.ok && repaired.address, address);
    });
  }
});
