import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { findLinks } from "../../src/core/links/find.ts";
import {
  LinkRewriter,
  rewriteLinks,
  type DeliveredAttributes,
} from "../../src/core/links/rewrite/rewrite.ts";
import { html5libDocuments, nastyDocuments } from "./html-documents.ts";
import { linksIn, readByParse5 } from "./html-oracle.ts";
import { asked } from "./random.ts";

// A link at the end shows whether a document was left in the right state.
const PROBE = ' <a href="https://probe.example/">probe</a>';
const SEEDS = [1, 2, 3];
const documents = [
  ...html5libDocuments(),
  ...SEEDS.flatMap((seed) => [...nastyDocuments(seed, asked(700, 10_000))]),
].map((html) => html + PROBE);

const WANTED: readonly DeliveredAttributes[] = [
  { rel: "nofollow sponsored", target: "_blank" },
  { rel: null, target: null },
  { rel: "me", target: null, override: 'rel="x"' },
  { rel: null, target: "_self", href: "https://other.example/?a&b" },
  { rel: null, target: null, href: null },
];

describe("tags are found as parse5 finds them", () => {
  test("the same links, at the same places, with the same addresses", () => {
    let links = 0;
    for (const html of documents) {
      const { tags, elements } = readByParse5(html);
      const theirs = linksIn(tags);
      const ours = findLinks(html);
      assert.deepEqual(
        ours.map(({ tag, href }) => [tag.start, tag.end, href]),
        theirs.map(({ start, end, attributes }) => [
          start,
          end,
          attributes.get("href") ?? attributes.get("xlink:href"),
        ]),
        JSON.stringify(html),
      );
      // What parse5 drops of them stands where browsers of today keep it, or in a frameset, where there is nothing to follow.
      const dropped = theirs.filter(({ start }) => !elements.has(start));
      if (dropped.length > 0) assert.match(html, /<(?:select|frameset|template)/i);
      links += theirs.length;
    }
    assert.ok(links > documents.length / 2);
  });

  test("wherever a document is cut", () => {
    for (const html of documents.slice(0, asked(1_200, 4_000))) {
      const whole = rewriteLinks(html, () => WANTED[0]!);
      for (let cut = 1; cut < html.length; cut += html.length > 200 ? 7 : 1)
        assert.equal(
          inPieces([html.slice(0, cut), html.slice(cut)]),
          whole,
          `${cut} in ${JSON.stringify(html)}`,
        );
      assert.equal(inPieces(html.split("")), whole, JSON.stringify(html));
    }
  });
});

describe("what is written is what parse5 reads", () => {
  const links = documents.map((html) => linksIn(readByParse5(html).tags));
  for (const wanted of WANTED)
    test(JSON.stringify(wanted), () => {
      for (const [at, html] of documents.entries()) {
        const written = rewriteLinks(html, () => wanted);
        const { tags } = readByParse5(written);
        // Every byte outside of links' start tags, and how many there are.
        const after =
          wanted.href === null ? tags.filter(({ name }) => name === "a" || name === "area") : linksIn(tags);
        let from = 0;
        let put = "";
        for (const link of links[at]!) {
          const start = put.length + link.start - from;
          const tag = after.find((one) => one.start === start);
          assert.ok(tag, `${JSON.stringify(html)} → ${JSON.stringify(written)}`);
          put += html.slice(from, link.start) + written.slice(tag.start, tag.end);
          from = link.end;
          const intended = new Map(link.attributes);
          set(
            intended,
            "rel",
            sameTokens(link.attributes.get("rel"), wanted.rel) ? link.attributes.get("rel")! : wanted.rel,
          );
          set(intended, "target", wanted.target);
          set(intended, "data-override", wanted.override ?? null);
          if (wanted.href !== undefined) set(intended, "href", wanted.href);
          if (wanted.href === null) intended.delete("xlink:href");
          assert.equal(
            sorted(tag.attributes),
            sorted(intended),
            `${JSON.stringify(html)} → ${JSON.stringify(written)}`,
          );
        }
        assert.equal(put + html.slice(from), written);
        assert.equal(
          rewriteLinks(written, () => wanted),
          written,
          `again: ${JSON.stringify(written)}`,
        );
      }
    });
});

function inPieces(pieces: readonly string[]): string {
  const rewriter = new LinkRewriter(() => WANTED[0]!);
  return pieces.map((piece) => rewriter.write(piece)).join("") + rewriter.end();
}

function set(attributes: Map<string, string>, name: string, value: string | null): void {
  if (value === null) attributes.delete(name);
  else attributes.set(name, value);
}

function sameTokens(is: string | undefined, wants: string | null): boolean {
  const tokens = (text: string): string => text.split(/\s+/).filter(Boolean).sort().join(" ");
  return is !== undefined && wants !== null && tokens(is) === tokens(wants);
}

function sorted(attributes: ReadonlyMap<string, string>): string {
  return JSON.stringify([...attributes].sort(([a], [b]) => (a < b ? -1 : 1)));
}
