import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { findLinks } from "../links/find.ts";
import { ruleSchema } from "../rules/rule.ts";
import type { LinkResolver } from "../rules/resolve/link-facts.ts";
import { occurrencesIn, type Occurrence, type Standing } from "./occurrence.ts";

const SITE: LinkResolver = {
  hosts: ["own.example", "s.example"],
  answers(_host, key) {
    if (key === "/go" || key === "/on" || key === "/in") return "route";
    if (key === "/files/a.pdf") return "file";
    return key === "/page" || key === "/new-path" ? "page" : undefined;
  },
  routeDestination: (_host, key) =>
    ({ "/go": "https://shop.example/lamp", "/on": "/go", "/in": "/page" })[key],
  partners: [{ name: "Shop", network: "Net", domains: ["shop.example"], needsReferrer: false }],
  pagePath: (id) => (id === "7" ? "/new-path" : undefined),
};
const RULES = [
  { name: "Shop", match: { programs: ["Shop"] }, set: { sponsored: "on" } },
  { name: "Out", match: { destination: "external" }, set: { target: "new" } },
  { name: "Pictures", match: { anchor: "image" }, set: { external: "on" } },
].map((rule) => ruleSchema.parse(rule));
const STANDING: Standing = {
  page: "/here",
  category: "Reviews",
  bound: { "/old-path": "7" },
  variables: { shop: "shop.example", id: "a b" },
};

function one(html: string): Occurrence {
  const [first] = occurrencesIn(findLinks(html), STANDING, RULES, SITE);
  return first!;
}

describe("an entry of the ledger", () => {
  const rows: [says: string, href: string, expected: Partial<Occurrence>][] = [
    [
      "an outside address",
      "https://news.example/a?b",
      {
        kind: "external",
        reach: "external",
        host: "news.example",
        ends: "https://news.example/a?b",
        ownKey: null,
        destinationKey: "//news.example/a?b",
        programs: [],
      },
    ],
    [
      "an address of a partner",
      "http://SHOP.example",
      { kind: "external", host: "shop.example", programs: ["Shop"], networks: ["Net"] },
    ],
    [
      "a short link that leads outside",
      "https://s.example/go",
      {
        kind: "route",
        reach: "external",
        host: "shop.example",
        ends: "https://shop.example/lamp",
        ownKey: "/go",
        programs: ["Shop"],
      },
    ],
    [
      "a route that leads through another",
      "/on",
      { kind: "route", reach: "external", ends: "https://shop.example/lamp", ownKey: "/on" },
    ],
    [
      "a route that leads to a page",
      "/in",
      { kind: "route", reach: "internal", host: "", ends: "/page", ownKey: "/in" },
    ],
    ["a page", "/page#part", { kind: "page", reach: "internal", host: "", ownKey: "/page" }],
    [
      "a page that has moved",
      "/old-path?x#y",
      { kind: "page", href: "/old-path?x#y", address: "/new-path?x#y", ownKey: "/new-path" },
    ],
    ["a file", "/files/a.pdf", { kind: "file", reach: "internal", ownKey: "/files/a.pdf" }],
    ["a path that nothing answers", "/nowhere", { kind: "broken", reach: "internal" }],
    ["a heading", "#part", { kind: "heading", reach: "internal", ownKey: null }],
    ["mail", "mailto:a@b.example", { kind: "mail", reach: "none", host: "" }],
    ["phone", "tel:+123", { kind: "phone", reach: "none", host: "" }],
    [
      "variables, filled in where it is delivered and left where it is stored",
      "https://{{shop}}/x?id={{id}}",
      { href: "https://{{shop}}/x?id={{id}}", host: "shop.example", kind: "external" },
    ],
  ];
  for (const [says, href, expected] of rows)
    test(says, () => {
      const entry = one(`<a href="${href}">words</a>`);
      for (const [name, value] of Object.entries(expected))
        assert.deepEqual(entry[name as keyof Occurrence], value, name);
    });

  test("holds what is written, what is delivered, and who decided, rel before the tab", () => {
    const entry = one(
      '<a href="/go" rel="me" target="_top" data-override="ugc=on"><img src="/files/x.svg" alt="A lamp"></a>',
    );
    assert.deepEqual(
      [entry.storedRel, entry.storedTarget, entry.override, entry.words, entry.anchor],
      ["me", "_top", "ugc=on", "A lamp", "image"],
    );
    assert.deepEqual(entry.delivered, { rel: ["ugc", "me"], target: "_top", treatment: "ugc", rules: [] });
    const ruled = one('<a href="/go"><img src="/files/x.svg" alt=""></a>');
    assert.deepEqual(ruled.delivered, {
      rel: ["sponsored", "noopener", "external"],
      target: "_blank",
      treatment: "sponsored",
      rules: ["Shop", "Pictures", "Out"],
    });
  });

  test("links are counted in the order of the text", () => {
    const html =
      '<p><a href="/page">one</a></p><ul><li><a href="/in">two</a> <a href="/go">three</a></li></ul>';
    const entries = occurrencesIn(findLinks(html), STANDING, RULES, SITE);
    assert.deepEqual(
      entries.map(({ ordinal, words }) => [ordinal, words]),
      [
        [0, "one"],
        [1, "two"],
        [2, "three"],
      ],
    );
  });
});
