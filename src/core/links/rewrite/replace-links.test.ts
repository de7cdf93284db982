import assert from "node:assert/strict";
import { describe, test } from "node:test";
import fc from "fast-check";
import { bodies } from "../../../../tests/support/bodies.ts";
import { bodyToHtml } from "../../pages/body/to-html.ts";
import { findLinks } from "../find.ts";
import { replaceLinks } from "./replace-links.ts";

describe("whole links", () => {
  test("give way to what is put in their place; all else stays", () => {
    const html =
      '<p>See <a href="/a">the <em>first</em> one</a>, <a href="/b">b</a >.</p><figure><a href="/c"><img src="/x.png" alt="x"></a></figure>';
    const seen: string[] = [];
    const out = replaceLinks(html, (link, inside, ordinal) => {
      seen.push(`${ordinal} ${link.href} ${inside}`);
      return link.href === "/b" ? undefined : inside;
    });
    assert.deepEqual(seen, ["0 /a the <em>first</em> one", "1 /b b", '2 /c <img src="/x.png" alt="x">']);
    assert.equal(
      out,
      '<p>See the <em>first</em> one, <a href="/b">b</a >.</p><figure><img src="/x.png" alt="x"></figure>',
    );
  });

  test("of any body: taken off, no link is left and every word; left, every byte", () => {
    const words = (html: string): string => html.replace(/<[^>]*>/g, "");
    fc.assert(
      fc.property(bodies, (body) => {
        const html = bodyToHtml(body);
        assert.equal(
          replaceLinks(html, () => undefined),
          html,
        );
        const off = replaceLinks(html, (_link, inside) => inside);
        assert.deepEqual(findLinks(off), []);
        assert.equal(words(off), words(html));
      }),
      { numRuns: 200 },
    );
  });
});
