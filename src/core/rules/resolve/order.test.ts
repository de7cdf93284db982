import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { ruleSchema, type Rule } from "../rule.ts";
import { MANAGED_TOKENS } from "../choices.ts";
import { linkAttributes } from "./link-attributes.ts";
import type { LinkOnPage, LinkResolver } from "./link-facts.ts";

// The whole of how rules decide, sentence by sentence: who is asked first, and what comes of it.

const SITE: LinkResolver = {
  hosts: ["own.example"],
  answers: (_host, key) => (key === "/go" ? "route" : key.startsWith("/page") ? "page" : undefined),
  routeDestination: (_host, key) => (key === "/go" ? "https://a.b.shop.example/lamp" : undefined),
  partners: [
    { name: "Shop", network: "Net", domains: ["*.shop.example"], needsReferrer: false },
    { name: "Shelf", network: "", domains: ["shelf.example"], needsReferrer: false },
  ],
};
const LINK: LinkOnPage = {
  href: "https://a.b.shop.example/lamp",
  page: "/page/reviews/one",
  category: "Reviews",
};

/** One rule for each way to name the link, the closest first. */
const BY_CLOSENESS: [level: string, match: Rule["match"]][] = [
  ["chosen page", { pages: ["/page/reviews/one"] }],
  ["longer path pattern", { pages: ["/page/reviews/*"] }],
  ["shorter path pattern", { pages: ["/page/*"] }],
  ["the domain itself", { domains: ["a.b.shop.example"] }],
  ["its subdomains, longer", { domains: ["*.b.shop.example"] }],
  ["its subdomains, shorter", { domains: ["*.shop.example"] }],
  ["program", { programs: ["Shop"] }],
  ["network", { networks: ["Net"] }],
  ["category", { categories: ["Reviews"] }],
  ["all external", { destination: "external" }],
];
const named = (name: string, match: object, more: object = {}): Rule =>
  ruleSchema.parse({ name, match, set: { nofollow: "on" }, ...more });
const decider = (rules: readonly Rule[], link = LINK): string | undefined =>
  linkAttributes(link, rules, SITE).trace.find(({ attribute }) => attribute === "nofollow")?.by;

describe("a page, however its path is written", () => {
  for (const [pattern, page, is] of [
    ["/café/*", "/caf%C3%A9/menu", true],
    ["/café/*", "/caf%c3%a9/menu", true],
    ["/caf%c3%a9/menu", "/café/menu", true],
    ["/~mara", "/%7Emara", true],
    ["/tides", "/tides/", true],
    ["/tides/", "/tides", true],
    ["/tides/*", "/tides/", true],
    ["/", "/", true],
    ["/item", "/item?number=3", true],
    ["/item/*", "/item/?sort=price", true],
    ["/tides", "/Tides", false],
    ["/tides", "/tides/springs", false],
    ["/a%2Fb", "/a/b", false],
    ["/cafe/*", "/café/menu", false],
  ] as const)
    test(`${pattern} and ${page}`, () => {
      const on = named("on", { pages: [pattern] });
      assert.equal(decider([on], { ...LINK, page }), is ? "on" : undefined);
      const all = named("all", {}, { except: { pages: [pattern] } });
      assert.equal(decider([all], { ...LINK, page }), is ? undefined : "all", "as an exception");
    });
});

describe("the first that speaks decides", () => {
  for (const [index, [level, match]] of BY_CLOSENESS.entries())
    for (const [other, less] of BY_CLOSENESS.slice(index + 1))
      test(`${level} before ${other}, wherever they stand in the list`, () => {
        const [near, far] = [named(level, match), named(other, less)];
        assert.equal(decider([near, far]), level);
        assert.equal(decider([far, near]), level);
      });

  test("the override before all of them, and each is named as beaten, in order", () => {
    const rules = BY_CLOSENESS.map(([level, match]) => named(level, match)).reverse();
    const { trace, rel } = linkAttributes({ ...LINK, override: "nofollow=off" }, rules, SITE);
    assert.deepEqual(trace, [
      {
        attribute: "nofollow",
        value: "off",
        by: "override on this link",
        overridden: BY_CLOSENESS.map(([level]) => level),
        decider: { kind: "override" },
      },
    ]);
    assert.deepEqual(rel, []);
  });

  test("among equals the one higher in the list", () => {
    for (const [, match] of BY_CLOSENESS)
      assert.equal(decider([named("higher", match), named("lower", match)]), "higher");
  });

  test("one that says nothing of it is passed over, one that is off too", () => {
    const silent = named("silent", { pages: ["/page/reviews/one"] }, { set: { ugc: "on" } });
    const off = named("off", { pages: ["/page/reviews/one"] }, { enabled: false });
    assert.equal(decider([silent, off, named("speaks", {})]), "speaks");
  });

  test("attribute by attribute: two rules may each decide their own", () => {
    const rules = [
      named("near", { domains: ["*.shop.example"] }, { set: { sponsored: "on" } }),
      named("far", {}, { set: { sponsored: "off", nofollow: "on", target: "new" } }),
    ];
    const { rel, target, trace } = linkAttributes(LINK, rules, SITE);
    assert.deepEqual([rel, target], [["nofollow", "sponsored", "noopener"], "_blank"]);
    assert.deepEqual(
      trace.map(({ attribute, by }) => [attribute, by]),
      [
        ["nofollow", "far"],
        ["sponsored", "near"],
        ["target", "far"],
        ["noopener", "a new tab implies noopener"],
      ],
    );
  });
});

describe("what a rule matches", () => {
  const rows: [says: string, match: object, link: Partial<LinkOnPage>, matches: boolean][] = [
    ["no field: every link", {}, {}, true],
    ["every field that is present", { destination: "external", categories: ["Reviews"] }, {}, true],
    ["not when one of them fails", { destination: "external", categories: ["News"] }, {}, false],
    ["outside links", { destination: "external" }, { href: "/page" }, false],
    ["inside links", { destination: "internal" }, { href: "/page" }, true],
    ["a broken path is no outside link", { destination: "external" }, { href: "/nowhere" }, false],
    ["mail is neither outside", { destination: "external" }, { href: "mailto:a@b.example" }, false],
    ["nor inside", { destination: "internal" }, { href: "mailto:a@b.example" }, false],
    ["any takes mail too", { destination: "any" }, { href: "mailto:a@b.example" }, true],
    [
      "a short link is where it leads",
      { destination: "external", programs: ["Shop"] },
      { href: "/go" },
      true,
    ],
    [
      "an own host written out is inside",
      { destination: "internal" },
      { href: "https://own.example/page" },
      true,
    ],
    [
      "the star is for subdomains alone",
      { domains: ["*.shop.example"] },
      { href: "https://shop.example/" },
      false,
    ],
    [
      "the name alone is for itself",
      { domains: ["shop.example"] },
      { href: "https://a.shop.example/" },
      false,
    ],
    [
      "letter case of a host does not count",
      { domains: ["shelf.example"] },
      { href: "HTTPS://Shelf.Example/" },
      true,
    ],
    ["a port does not count", { domains: ["shelf.example"] }, { href: "https://shelf.example:8443/" }, true],
    [
      "a domain outside ASCII in its ASCII form",
      { domains: ["Bücher.example"] },
      { href: "https://xn--bcher-kva.example/" },
      true,
    ],
    [
      "a program without a network",
      { networks: [""].map(() => "Net") },
      { href: "https://shelf.example/" },
      false,
    ],
    ["a pattern with two stars", { pages: ["/page/*/on*"] }, {}, true],
    ["a pattern is for the whole path", { pages: ["/page/*/on"] }, {}, false],
    ["a page that is not told matches no page", { pages: ["/*"] }, { page: undefined }, false],
    ["on words", { anchor: "text" }, {}, true],
    ["on pictures", { anchor: "image" }, {}, false],
    ["on pictures, where it is one", { anchor: "image" }, { anchor: "image" }, true],
    ["a page without a category is in none", { categories: ["Reviews"] }, { category: undefined }, false],
  ];
  for (const [says, match, link, matches] of rows)
    test(says, () =>
      assert.equal(decider([named("it", match)], { ...LINK, ...link }), matches ? "it" : undefined),
    );

  test("any field of its exception takes a link out, whatever level names it", () => {
    const excepts: [object, boolean][] = [
      [{ domains: ["*.shop.example"] }, true],
      [{ domains: ["other.example"], categories: ["Reviews"] }, true],
      [{ domains: ["other.example"], categories: ["News"] }, false],
      [{ programs: ["Shop"] }, true],
      [{ networks: ["Net"] }, true],
      [{ anchor: "image" }, false],
      [{ pages: ["/page/reviews/*"] }, true],
      [{ destination: "internal" }, false],
    ];
    for (const [, match] of BY_CLOSENESS)
      for (const [except, isOut] of excepts)
        assert.equal(
          decider([named("it", match, { except })]),
          isOut ? undefined : "it",
          JSON.stringify(except),
        );
  });
});

describe("fill and overwrite", () => {
  const fill = named("rule", {}, { set: { nofollow: "on", target: "new" } });
  const overwrite = named("rule", {}, { set: { nofollow: "on", target: "new" }, mode: "overwrite" });
  const rows: [says: string, rule: Rule, link: Partial<LinkOnPage>, rel: string, target: string | null][] = [
    ["fill speaks where nothing is written", fill, {}, "nofollow noopener", "_blank"],
    ["fill keeps a written rel, and fills the tab", fill, { rel: "ugc" }, "ugc noopener", "_blank"],
    ["fill keeps a written tab, and fills rel", fill, { target: "_self" }, "nofollow", "_self"],
    ["a rel of tokens that are not managed is a rel", fill, { rel: "me" }, "noopener me", "_blank"],
    ["a rel of white space is none", fill, { rel: " \t" }, "nofollow noopener", "_blank"],
    [
      "overwrite replaces what it speaks of, and only that",
      overwrite,
      { rel: "ugc me", target: "_top" },
      "nofollow ugc noopener me",
      "_blank",
    ],
    [
      "overwrite takes off what is written",
      named("rule", {}, { set: { ugc: "off" }, mode: "overwrite" }),
      { rel: "ugc me" },
      "me",
      null,
    ],
    [
      "same tab takes a written target away",
      named("rule", {}, { set: { target: "same" }, mode: "overwrite" }),
      { target: "_blank" },
      "",
      null,
    ],
  ];
  for (const [says, rule, link, rel, target] of rows)
    test(says, () => {
      const resolved = linkAttributes({ ...LINK, ...link }, [rule], SITE);
      assert.deepEqual([resolved.rel.join(" "), resolved.target], [rel, target]);
    });
});

describe("afterwards", () => {
  test("a new tab implies noopener, unless the override asks for the opener", () => {
    const rules = [named("tab", {}, { set: { target: "new", noopener: "off" } })];
    assert.deepEqual(linkAttributes(LINK, rules, SITE).rel, ["noopener"]);
    assert.deepEqual(linkAttributes({ ...LINK, override: "noopener=off" }, rules, SITE).rel, []);
  });

  test("tokens come in their fixed order, each once, those that are not managed behind them as they were", () => {
    const all = named(
      "all",
      {},
      { set: Object.fromEntries(MANAGED_TOKENS.map((token) => [token, "on"])), mode: "overwrite" },
    );
    assert.deepEqual(linkAttributes({ ...LINK, rel: "me UGC License ugc ME author" }, [all], SITE).rel, [
      ...MANAGED_TOKENS,
      "me",
      "License",
      "author",
    ]);
  });

  test("switching a rule off gives back what was there", () => {
    const link = { ...LINK, rel: "ugc me", target: "_top" };
    const rule = named("rule", {}, { set: { ugc: "off", target: "same" }, mode: "overwrite" });
    const { rel, target } = linkAttributes(link, [{ ...rule, enabled: false }], SITE);
    assert.deepEqual([rel.join(" "), target], ["ugc me", "_top"]);
  });
});
