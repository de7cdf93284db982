import assert from "node:assert/strict";
import { test } from "node:test";
import { linkSource, sentenceOf } from "./todo.ts";

test("the sentence of a link is its block, whichever link of the page it is", () => {
  const html = `<p>One <a href="/a">first</a> two.</p>\n<li>Then <a href="/b">second</a> and <a href="/c">third</a></li>`;
  assert.equal(sentenceOf(html, 0), "One first two.");
  assert.equal(sentenceOf(html, 2), "Then second and third");
  assert.equal(sentenceOf(html, 3), "");
});

test("a long one is cut around the words", () => {
  const long = `<p>${"before ".repeat(60)}<a href="/a">the link</a>${" after".repeat(60)}</p>`;
  const sentence = sentenceOf(long, 0);
  assert.match(sentence, /^… before .*the link.* after( af?t?e?r?)? …$/);
  assert.ok(sentence.length < 260, String(sentence.length));
});

test("a link is written as one would write it", () => {
  assert.equal(
    linkSource({ href: "/a?b=1&c=2", rel: null, target: "_blank" }, "A & B"),
    `<a href="/a?b=1&amp;c=2" target="_blank">A &amp; B</a>`,
  );
});
