import assert from "node:assert/strict";
import { setTimeout as later } from "node:timers/promises";
import { describe, test } from "node:test";
import type { FrontChanges } from "../../../core/origin/front/front-rewriter.ts";
import { PagesBefore } from "./pages-before.ts";

const RULES = [
  {
    name: "Shops",
    enabled: true,
    match: { domains: ["shop.example"] },
    set: { sponsored: "on" },
    mode: "overwrite",
  },
] as unknown as FrontChanges["rules"];

function changes(): FrontChanges {
  const site = { hosts: ["site.example"], answers: () => undefined, routeDestination: () => undefined };
  return { rules: RULES, site, page: "/p", category: "" };
}

function page(links: number, words = "words "): string {
  const link = `<p>${words.repeat(40)}<a href="https://shop.example/x">a shop</a></p>\n`;
  return `<!doctype html><title>A page</title>${link.repeat(links)}`;
}

interface Passed {
  out: string;
  links: number;
  changed: number;
  /** How often the page was read. */
  reads: number;
}

// Passes a page in pieces of these sizes by turns.
function pass(pages: PagesBefore, html: string, sizes: readonly number[], key = "site /p"): Passed {
  let reads = 0;
  const counted = (): FrontChanges => {
    reads += 1;
    return changes();
  };
  const passing = pages.passing(key, counted, () => assert.fail("nothing waited"));
  const bytes = Buffer.from(html);
  const out: Buffer[] = [];
  for (let at = 0, turn = 0; at < bytes.length; turn += 1) {
    const size = sizes[turn % sizes.length]!;
    out.push(passing.take(bytes.subarray(at, at + size)));
    at += size;
  }
  out.push(passing.rest());
  return { out: Buffer.concat(out).toString(), links: passing.links, changed: passing.changed, reads };
}

const became = (html: string): string =>
  html.replaceAll('<a href="https://shop.example/x">', '<a href="https://shop.example/x" rel="sponsored">');

describe("a page that comes as it came", () => {
  test("becomes what it became, counted alike and not read again, whatever its pieces are", () => {
    const html = page(80);
    const pages = new PagesBefore();
    const first = pass(pages, html, [5_000]);
    assert.deepEqual(first, { out: became(html), links: 80, changed: 80, reads: 1 });
    for (const sizes of [[100_000], [1, 16_384, 77], [8_192], [9_000, 3]])
      assert.deepEqual(pass(pages, html, sizes), { ...first, reads: 0 }, String(sizes));
    assert.equal(pass(pages, html, [100_000], "site /other").reads, 1, "another page is read");
  });

  test("and differs somewhere, ends before or goes on is read, and is what it would be", () => {
    const html = page(80);
    const middle = `${html.slice(0, 11_000)}<a href="https://shop.example/x">new</a>${html.slice(11_000)}`;
    const others = [
      `<b>${html}`,
      middle.replace(/<a[^>]*>new/, '<a href="https://shop.example/x">new'),
      html.slice(0, 12_345),
      html.slice(0, -1),
      `${html}<a href="https://shop.example/x">more</a>`,
      page(81),
      "",
    ];
    for (const other of others)
      for (const sizes of [[100_000], [4_000], [8_192, 1]]) {
        const pages = new PagesBefore();
        pass(pages, html, [7_000]);
        const alone = pass(new PagesBefore(), other, sizes);
        assert.deepEqual(pass(pages, other, sizes), alone, `${other.length} in ${String(sizes)}`);
        // And it is the one that is known from now on.
        assert.deepEqual(pass(pages, other, sizes), { ...alone, reads: 0 });
      }
  });

  test("but stops half-way has what came on its way soon", async () => {
    const html = page(80);
    const pages = new PagesBefore();
    pass(pages, html, [100_000]);
    const late: Buffer[] = [];
    const passing = pages.passing("site /p", changes, (bytes) => void late.push(bytes));
    const bytes = Buffer.from(html);
    const at = html.indexOf("</p>", 3_000) + 4;
    const before = passing.take(bytes.subarray(0, at));
    while (late.length === 0) await later(5);
    assert.equal(Buffer.concat([before, ...late]).toString(), became(html.slice(0, at)));
    const rest = [passing.take(bytes.subarray(at)), passing.rest()];
    assert.equal(Buffer.concat([before, ...late, ...rest]).toString(), became(html));
  });

  test("is not kept when it is long, and goes through all the same", () => {
    const html = page(5_000);
    assert.ok(html.length > 1_200_000);
    const pages = new PagesBefore();
    for (const _ of [1, 2]) {
      const { out, reads } = pass(pages, html, [65_536]);
      assert.equal(reads, 1);
      assert.ok(out === became(html));
    }
  });
});
