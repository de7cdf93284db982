import assert from "node:assert/strict";
import { test } from "node:test";
import type { LinkResolver } from "../../rules/resolve/link-facts.ts";
import { countWords, plainText } from "../../links/plain-text.ts";
import { placedDisclosure } from "./disclosure.ts";

const SITE: LinkResolver = {
  hosts: ["own.example"],
  answers: (_host, key) => (key === "/go" ? "route" : "page"),
  routeDestination: (_host, key) => (key === "/go" ? "https://shop.example/" : undefined),
  partners: [{ name: "Shop", network: "", domains: ["shop.example"], needsReferrer: false }],
};
const TOLD = { text: "Some links are paid.", place: true };

const rows: [says: string, delivered: string[], disclosure: typeof TOLD, expected: string | undefined][] = [
  ["a link to a partner", ['<a href="https://shop.example/x">x</a>'], TOLD, TOLD.text],
  ["a short link that ends there", ['<a href="/go">x</a>'], TOLD, TOLD.text],
  ["a sponsored link to anybody", ['<a href="https://a.example/" rel="sponsored">x</a>'], TOLD, TOLD.text],
  ["one in a block beside the text", ["<p>text</p>", '<a href="/go">x</a>'], TOLD, TOLD.text],
  ["no paid link", ['<a href="https://a.example/">x</a><a href="/page">y</a>'], TOLD, undefined],
  ["a page that tells already", ['<p>some  LINKS are\n<b>paid</b>.</p><a href="/go">x</a>'], TOLD, undefined],
  ["a site that does not place it", ['<a href="/go">x</a>'], { ...TOLD, place: false }, undefined],
];
for (const [says, delivered, disclosure, expected] of rows)
  test(`the disclosure with ${says}`, () =>
    assert.equal(placedDisclosure(delivered, disclosure, SITE), expected));

test("words are counted as readers count them", () => {
  const slowly = (text: string): number => text.match(/[\p{L}\p{N}][\p{L}\p{M}\p{N}’'-]*/gu)?.length ?? 0;
  for (const text of [
    "",
    "one",
    " two  words ",
    "it's a well-known thing",
    "don’t",
    "—dash— and 3,5 m",
    "émigré naïve Ångström",
    "日本語 です",
    "e\u0301clair",
    "-- '' a-",
    "𝒜𝒷 😀 x",
  ])
    assert.equal(countWords(text), slowly(text), text);
  assert.deepEqual(plainText("<P>a b</P><ul><LI>c</LI></ul>").words, 3);
});
