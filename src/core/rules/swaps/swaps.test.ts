import assert from "node:assert/strict";
import { describe, test } from "node:test";
import fc from "fast-check";
import { deliverHtml } from "../../links/rewrite/deliver.ts";
import { swapsInputSchema, type Swap } from "./swap.ts";
import { swapSentence } from "./sentence.ts";
import { swapTable } from "./swapped.ts";

const read = (...swaps: object[]): Swap[] => swapsInputSchema.parse({ version: 0, swaps }).swaps;
const address = (find: string, replace: string, more: object = {}): object => ({
  what: "address",
  find,
  replace,
  ...more,
});
const host = (find: string, replace: string): object => ({ what: "host", find, replace });
const parameter = (name: string, replace: string | null, more: object = {}): object => ({
  what: "parameter",
  name,
  replace,
  ...more,
});

const CASES: [what: string, swaps: object[], before: string, after: string | undefined][] = [
  ["an address", [address("https://old.example/a", "https://new.example/b")], "https://old.example/a", "https://new.example/b"],
  ["an address however it is spelled", [address("http://old.example/a/", "/b")], "HTTPS://OLD.example:443/a", "/b"],
  ["an address and its heading", [address("https://old.example/a", "/b")], "https://old.example/a#top", "/b#top"],
  ["an address with a heading of its own", [address("https://old.example/a", "/b#c")], "https://old.example/a#top", "/b#c"],
  ["no other address", [address("https://old.example/a", "/b")], "https://old.example/a?x=1", undefined],
  ["a path of the site", [address("/old", "/new")], "/old", "/new"],
  ["a host", [host("old.example", "new.example")], "https://old.example:8080/a?b#c", "https://new.example:8080/a?b#c"],
  ["a host that a tracked link carries", [host("old.example", "new.example")], "https://net.example/go?to=https%3A%2F%2Fold.example%2Fa", "https://net.example/go?to=https%3A%2F%2Fnew.example%2Fa"],
  ["no host below it", [host("old.example", "new.example")], "https://shop.old.example/", undefined],
  ["a parameter", [parameter("tag", "lantern-2")], "https://a.example/?x=%20&tag=l1&y", "https://a.example/?x=%20&tag=lantern-2&y"],
  ["a parameter away", [parameter("fb", null)], "https://a.example/p?fb=1#h", "https://a.example/p#h"],
  ["a parameter of what it says", [parameter("tag", "b", { find: "a" })], "https://a.example/?tag=a", "https://a.example/?tag=b"],
  ["no parameter that says something else", [parameter("tag", "b", { find: "a" })], "https://a.example/?tag=aa", undefined],
  ["no parameter where there is none", [parameter("tag", "b")], "https://a.example/?tags=1", undefined],
  ["a parameter on its hosts", [parameter("tag", "b", { domains: ["*.shop.example"] })], "https://a.shop.example/?tag=1", "https://a.shop.example/?tag=b"],
  ["no parameter elsewhere", [parameter("tag", "b", { domains: ["shop.example"] })], "https://a.example/?tag=1", undefined],
  ["what an earlier one has left", [host("a.example", "b.example"), address("https://b.example/x", "/y")], "https://a.example/x", "/y"],
  ["nothing by one that is off", [address("/old", "/new", { enabled: false })], "/old", undefined],
  ["nothing where one takes back what another did", [address("/a", "/b"), address("/b", "/a")], "/a", undefined],
  ["no mail", [host("a.example", "b.example")], "mailto:a@a.example", undefined],
]; // prettier-ignore

describe("a set of swaps changes", () => {
  for (const [what, swaps, before, after] of CASES)
    test(what, () => assert.equal(swapTable(read(...swaps))(before)?.address, after));

  test("and tells which of them did", () =>
    assert.deepEqual(
      swapTable(read(parameter("y", null), host("a.example", "b.example"), parameter("x", "2")))(
        "https://a.example/?x=1",
      ),
      { address: "https://b.example/?x=2", by: [1, 2] },
    ));

  test("nothing of an address that none is about, by a byte", () => {
    const table = swapTable(read(host("a.example", "b.example"), parameter("zz", "1"), address("/q", "/r")));
    fc.assert(
      fc.property(fc.webUrl({ withQueryParameters: true, withFragments: true }), (url) => {
        fc.pre(!/a\.example|[?&]zz=/.test(url));
        assert.equal(table(url), undefined);
      }),
    );
  });
});

test("links are swapped before rules judge them, and inside ones are delivered as spelled", () => {
  const swaps = swapTable(read(host("old.example", "paid.example")));
  const delivered = deliverHtml(
    `<a href="https://old.example/a">x</a> <a href="/here">y</a>`,
    [{ name: "Paid", enabled: true, match: { domains: ["paid.example"] }, set: { sponsored: "on" }, mode: "fill" }],
    { hosts: ["site.example"], answers: () => undefined, routeDestination: () => undefined, swapped: (href) => swaps(href)?.address },
    {},
  ); // prettier-ignore
  assert.equal(delivered, `<a href="https://paid.example/a" rel="sponsored">x</a> <a href="/here">y</a>`);
});

describe("a set is refused", () => {
  const REFUSED: [what: string, swaps: object[], path: string, message: RegExp][] = [
    ["that looks for the same twice", [address("http://a.example", "/b"), address("https://A.example/", "/c")], "swaps.1.find", /Swap 1 looks for the same/],
    ["that changes nothing", [host("a.example", "A.example")], "swaps.0.replace", /already/],
    ["with a host that is none", [host("a b", "c.example")], "swaps.0.find", /no host/],
    ["with an address that is none", [address("javascript:x", "/b")], "swaps.0.find", /./],
    ["with a parameter without a name", [parameter(" ", "x")], "swaps.0.name", /name is missing/],
    ["of another kind", [{ what: "path", find: "/a", replace: "/b" }], "swaps.0.what", /address, host or parameter/],
  ]; // prettier-ignore
  for (const [what, swaps, path, message] of REFUSED)
    test(what, () => {
      const { error } = swapsInputSchema.safeParse({ version: 0, swaps });
      const issue = error?.issues.find((one) => one.path.join(".") === path);
      assert.match(issue?.message ?? JSON.stringify(error?.issues), message);
    });
});

test("each swap is a sentence", () => {
  const sentences = read(
    address("/a", "/b"),
    host("a.example", "b.example"),
    parameter("tag", null, { find: "x", domains: ["a.example"] }),
    parameter("tag", "y"),
  ).map(swapSentence);
  assert.deepEqual(sentences, [
    "Links to /a lead to /b.",
    "Links to a.example lead to the same place on b.example.",
    "The parameter “tag”, where it says “x”, of links to a.example is left out.",
    "The parameter “tag” says “y”.",
  ]);
});
