import assert from "node:assert/strict";
import { describe, test } from "node:test";
import type { LinkResolver } from "../../rules/resolve/link-facts.ts";
import { swapsInputSchema } from "../../rules/swaps/swap.ts";
import { swapTable } from "../../rules/swaps/swapped.ts";
import { FrontRewriter, type FrontChanges } from "./front-rewriter.ts";

const { swaps } = swapsInputSchema.parse({
  version: 0,
  swaps: [
    { what: "host", find: "dead.example", replace: "alive.example" },
    { what: "address", find: "https://gone.example/x", replace: "/instead" },
  ],
});
const swap = swapTable(swaps);
const PARTNER = {
  name: "Owl Post",
  network: "",
  domains: ["shop.example"],
  needsReferrer: false,
  trackingId: "lantern",
  template: "{destination}?ref={id}&sub={sub}",
};

function passed(html: string, more: Partial<FrontChanges> = {}, partner: object = {}, size = 7): string {
  const site: LinkResolver = {
    hosts: ["site.example"],
    answers: () => undefined,
    routeDestination: () => undefined,
    partners: [{ ...PARTNER, ...partner }],
    swapped: (href) => swap(href)?.address,
    inContent: (href) => (href === "https://alive.example/kept" ? "https://s.example/k" : undefined),
  };
  const rewriter = new FrontRewriter({ rules: [], site, page: "/p", category: "", ...more }, () => undefined);
  let out = "";
  for (let at = 0; at < html.length; at += size) out += rewriter.write(html.slice(at, at + size));
  return out + rewriter.end();
}

describe("on the way to readers", () => {
  test("addresses are swapped, and what stands for the new one stands for it", () =>
    assert.equal(
      passed(`<p><a href=https://dead.example/a>a</a><a href="https://gone.example/x">b</a><a href='https://dead.example/kept' class=c>c</a>`),
      `<p><a href="https://alive.example/a">a</a><a href="/instead">b</a><a href="https://s.example/k" class=c>c</a>`,
    )); // prettier-ignore

  test("links without tracking get it where their program says so, and only there", () => {
    const html = `<a href="https://shop.example/owl">Owl</a> <a href="https://shop.example/?ref=lantern">ours</a>`;
    assert.equal(passed(html), html);
    assert.equal(
      passed(html, {}, { tracksOnTheWay: true }),
      html.replace("shop.example/owl", "shop.example/owl?ref=lantern&amp;sub=p-1"),
    );
    const unknown = { tracksOnTheWay: true, trackingId: "" };
    assert.equal(passed(html, {}, unknown), html, "what cannot be built is let be");
  });

  const disclosure = "Links with a <star> pay us – a little.";
  const told = `<p class="maprope-disclosure">Links with a &lt;star&gt; pay us &#8211; a little.</p>`;
  const PLACES: [where: string, html: string, expected: string][] = [
    ["where the main part begins", "<body><h1>T</h1><main class=m><p>x</main><article>", `<body><h1>T</h1><main class=m>${told}<p>x</main><article>`],
    ["where the article begins", "<nav><a href=/a>a</a></nav><article><p>x", `<nav><a href=/a>a</a></nav><article>${told}<p>x`],
    ["at the end of a page that marks nothing", "<body><p>x</p></body></html>", `<body><p>x</p>${told}</body></html>`],
    ["behind a link that nobody closed", "<a href=/x>open<main>in", `<a href=/x>open<main>${told}in`],
  ]; // prettier-ignore
  for (const [where, html, expected] of PLACES)
    test(`the disclosure stands ${where}, once`, () => {
      for (const size of [1, 5, 1000]) assert.equal(passed(html, { disclosure }, {}, size), expected);
      assert.equal(passed(html), html);
    });

  test("scripts and comments have no main part", () => {
    const html = `<!-- <main> --><script>"<main>"</script><main>x`;
    assert.equal(passed(html, { disclosure }), html.replace(/<main>x$/, `<main>${told}x`));
  });
});
