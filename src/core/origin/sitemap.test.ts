import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { MOST_ADDRESSES, readNamedAddresses } from "./sitemap.ts";

const addresses = (text: string) => {
  const read = readNamedAddresses(text);
  return read.kind === "unreadable"
    ? read.reason
    : read.addresses.map(({ address, changed }) => `${address} ${changed ?? "-"}`);
};

describe("addresses that a site names to machines", () => {
  test("a sitemap, with its last changes; what is no web address is passed over", () => {
    assert.deepEqual(
      addresses(
        `<?xml version="1.0"?><urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9"><url><loc> https://a.example/?a=1&amp;b=2 </loc><lastmod>2026-05-04</lastmod></url>
         <url><loc><![CDATA[https://a.example/b]]></loc><lastmod>yesterday</lastmod></url><url><loc>javascript:x</loc></url></urlset>`,
      ),
      ["https://a.example/?a=1&b=2 2026-05-04T00:00:00.000Z", "https://a.example/b -"],
    );
  });

  test("an index, and pictures of pages are no pages", () => {
    const read = readNamedAddresses(
      `<sitemapindex><sitemap><loc>https://a.example/1.xml.gz</loc></sitemap></sitemapindex>`,
    );
    assert.equal(read.kind, "index");
    assert.deepEqual(
      addresses(
        `<urlset><url><loc>https://a.example/</loc><image:image><image:loc>https://a.example/x.png</image:loc></image:image></url></urlset>`,
      ),
      ["https://a.example/ -"],
    );
  });

  test("both kinds of feeds", () => {
    assert.deepEqual(
      addresses(
        `<rss><channel><link>https://a.example/</link><item><link>https://a.example/one</link><pubDate>Mon, 04 May 2026 10:00:00 GMT</pubDate></item></channel></rss>`,
      ),
      ["https://a.example/one 2026-05-04T10:00:00.000Z"],
    );
    assert.deepEqual(
      addresses(
        `<feed><link href="https://a.example/"/><entry><link rel="edit" href="https://a.example/edit/1"/><link href="https://a.example/1"/><updated>2026-05-04T10:00:00Z</updated></entry></feed>`,
      ),
      ["https://a.example/1 2026-05-04T10:00:00.000Z"],
    );
  });

  test("a plain list", () => {
    assert.deepEqual(addresses("https://a.example/1\r\nhttps://a.example/2\n\n"), [
      "https://a.example/1 -",
      "https://a.example/2 -",
    ]);
  });

  test("what comes before a fault counts", () => {
    assert.deepEqual(addresses(`<urlset><url><loc>https://a.example/1</loc></url><url><loc>https://a.ex`), [
      "https://a.example/1 -",
    ]);
    assert.deepEqual(addresses(`<urlset><url><loc>https://a.example/1</loc></url><url>&nbsp;<loc>`), [
      "https://a.example/1 -",
    ]);
  });

  for (const [what, text, reason] of [
    ["a page that says not found", "<html><body>Not found</body></html>", /neither a sitemap nor a feed/],
    ["nothing", "", /no list/],
    ["prose", "There is no sitemap here, sorry.", /no list/],
    ["a broken start", "<urlset><", /not well-formed/],
  ] as const)
    test(`${what} is unreadable, with the reason`, () => {
      const read = readNamedAddresses(text);
      assert.match(read.kind === "unreadable" ? read.reason : JSON.stringify(read), reason);
    });

  test("no more than one may hold; entities do not multiply", () => {
    const many = readNamedAddresses(
      `<urlset>${"<url><loc>https://a.example/x</loc></url>".repeat(MOST_ADDRESSES + 2)}</urlset>`,
    );
    assert.deepEqual(many.kind === "pages" && [many.addresses.length, many.isCut], [MOST_ADDRESSES, true]);
    const bomb = `<!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;">]><urlset><url><loc>https://a.example/&b;</loc></url></urlset>`;
    assert.ok(JSON.stringify(readNamedAddresses(bomb)).length < 200);
  });
});
