import assert from "node:assert/strict";
import { describe, test } from "node:test";
import fc from "fast-check";
import { bodies } from "../../../tests/support/bodies.ts";
import { bodyToHtml } from "../../core/pages/body/to-html.ts";
import { readFrontMatter, withFrontMatter } from "../../core/pages/formats/front-matter.ts";
import { readHtmlFile, writeHtmlFile } from "../../core/pages/formats/html-file.ts";
import { markdownToHtml } from "../../core/pages/formats/markdown.ts";
import { exactMarkdown } from "./transfer/exact-markdown.ts";
import { sanitizeHtml } from "./sanitize-html.ts";

const META = {
  search: {
    title: "Moss & stone",
    noindex: true,
    canonical: "https://other.example/?a=1&b=2",
    language: "de",
  },
  title: "A: “b” & <c>",
  path: "/a/b",
  description: "It's 3 > 2",
  category: "Reviews",
};

describe("what goes out and comes in again is the same", () => {
  test("as HTML", () => {
    fc.assert(
      fc.property(bodies, (body) => {
        const html = bodyToHtml(body);
        const taken = sanitizeHtml(html);
        assert.deepEqual(taken.dropped, []);
        assert.equal(bodyToHtml(taken.body), html);
      }),
      { numRuns: 80 },
    );
  });
  test("as an HTML file with its metadata", () => {
    fc.assert(
      fc.property(bodies, (body) => {
        const html = bodyToHtml(body);
        const read = readHtmlFile(writeHtmlFile({ ...META, inNavigation: true }, html));
        assert.deepEqual(read.meta, { ...META, inNavigation: true });
        assert.equal(bodyToHtml(sanitizeHtml(read.html).body), html);
      }),
      { numRuns: 30 },
    );
  });
  test("as Markdown with front matter", () => {
    fc.assert(
      fc.property(bodies, (body) => {
        const file = withFrontMatter(META, exactMarkdown(body));
        const { meta, rest, faults } = readFrontMatter(file);
        assert.deepEqual([meta, faults], [META, []]);
        assert.equal(bodyToHtml(sanitizeHtml(markdownToHtml(rest)).body), bodyToHtml(body));
      }),
      { numRuns: 30 },
    );
  });
  test("and plain writing stays plain Markdown", () => {
    const { body } = sanitizeHtml(
      '<h2>Under the sky</h2><p>On the <strong>moon</strong> it is <em>ruthless</em>; see <a href="/a">this page</a>.</p><ul><li><p>one</p></li><li><p>two</p></li></ul>',
    );
    assert.equal(
      exactMarkdown(body),
      "## Under the sky\n\nOn the **moon** it is *ruthless*; see [this page](/a).\n\n- one\n\n- two\n",
    );
  });
});
