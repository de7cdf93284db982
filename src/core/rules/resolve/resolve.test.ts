import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { ruleSchema, type Rule } from "../rule.ts";
import { linkAttributes } from "./link-attributes.ts";
import type { LinkOnPage, LinkResolver } from "./link-facts.ts";
import { formatOverride, parseOverride } from "../override.ts";

/** A site with one page, one short link that leads outside and one that leads to the page. */
export const RESOLVER: LinkResolver = {
  hosts: ["lowlantern.example", "lntn.example"],
  answers: (_host, key) =>
    key === "/resources" ? "page" : key === "/dob" || key === "/here" ? "route" : undefined,
  routeDestination: (_host, key) =>
    ({ "/dob": "https://shop.example/dobsonian", "/here": "/resources" })[key],
};

const OUT = "https://shop.example/lamp";
const rule = (name: string, rest: object): Rule => ruleSchema.parse({ name, ...rest });
const newTab = rule("new tab", { match: { destination: "external" }, set: { target: "new" } });
const nofollow = rule("nofollow", {
  match: { destination: "external" },
  set: { nofollow: "on" },
  mode: "overwrite",
});

interface Case {
  says: string;
  rules: Rule[];
  link: LinkOnPage;
  rel: string;
  target: string | null;
}

const CASES: readonly Case[] = [
  {
    says: "without rules a link stays as it was written",
    rules: [],
    link: { href: OUT, rel: "nofollow me", target: "_top" },
    rel: "nofollow me",
    target: "_top",
  },
  {
    says: "an outside link opens in a new tab, which implies noopener",
    rules: [newTab],
    link: { href: OUT },
    rel: "noopener",
    target: "_blank",
  },
  {
    says: "an inside link is not an outside link",
    rules: [newTab],
    link: { href: "/resources" },
    rel: "",
    target: null,
  },
  {
    says: "a broken path is not an outside link",
    rules: [newTab],
    link: { href: "/missing" },
    rel: "",
    target: null,
  },
  {
    says: "mail and phone lead neither outside nor inside",
    rules: [newTab, rule("inside", { match: { destination: "internal" }, set: { target: "new" } })],
    link: { href: "mailto:a@b.example" },
    rel: "",
    target: null,
  },
  {
    says: "a short link that leads outside is an outside link",
    rules: [newTab],
    link: { href: "/dob" },
    rel: "noopener",
    target: "_blank",
  },
  {
    says: "a short link with its host is seen through too",
    rules: [rule("shop", { match: { domains: ["shop.example"] }, set: { sponsored: "on" } })],
    link: { href: "https://lntn.example/dob" },
    rel: "sponsored",
    target: null,
  },
  {
    says: "a short link that leads to a page is an inside link",
    rules: [newTab],
    link: { href: "/here" },
    rel: "",
    target: null,
  },
  {
    says: "an override beats every rule",
    rules: [newTab, nofollow],
    link: { href: OUT, override: "target=same nofollow=off" },
    rel: "",
    target: null,
  },
  {
    says: "an override alone sets what no rule sets",
    rules: [],
    link: { href: OUT, override: "ugc=on target=new" },
    rel: "ugc noopener",
    target: "_blank",
  },
  {
    says: "an override may ask for the opener",
    rules: [newTab],
    link: { href: OUT, override: "noopener=off" },
    rel: "",
    target: "_blank",
  },
  {
    says: "a rule may not ask for the opener",
    rules: [newTab, rule("opener", { match: {}, set: { noopener: "off" }, mode: "overwrite" })],
    link: { href: OUT },
    rel: "noopener",
    target: "_blank",
  },
  {
    says: "fill respects a rel that the author wrote",
    rules: [rule("fill", { match: {}, set: { nofollow: "on" } })],
    link: { href: OUT, rel: "me" },
    rel: "me",
    target: null,
  },
  {
    says: "fill respects a target that the author wrote",
    rules: [newTab],
    link: { href: OUT, target: "_self" },
    rel: "",
    target: "_self",
  },
  {
    says: "fill is per attribute: a written rel does not keep the target",
    rules: [newTab],
    link: { href: OUT, rel: "nofollow" },
    rel: "nofollow noopener",
    target: "_blank",
  },
  {
    says: "an empty rel is nothing written",
    rules: [rule("fill", { match: {}, set: { nofollow: "on" } })],
    link: { href: OUT, rel: "  " },
    rel: "nofollow",
    target: null,
  },
  {
    says: "overwrite takes off what the author wrote",
    rules: [rule("off", { match: {}, set: { nofollow: "off", target: "same" }, mode: "overwrite" })],
    link: { href: OUT, rel: "nofollow ugc", target: "_blank" },
    rel: "ugc",
    target: null,
  },
  {
    says: "a silent fill lets a more general overwrite speak",
    rules: [rule("page", { match: { pages: ["/a"] }, set: { nofollow: "off" } }), nofollow],
    link: { href: OUT, rel: "ugc", page: "/a" },
    rel: "nofollow ugc",
    target: null,
  },
  {
    says: "a chosen page beats a path pattern",
    rules: [
      rule("pattern", { match: { pages: ["/reviews/*"] }, set: { nofollow: "on" } }),
      rule("page", { match: { pages: ["/reviews/a"] }, set: { nofollow: "off" } }),
    ],
    link: { href: OUT, page: "/reviews/a" },
    rel: "",
    target: null,
  },
  {
    says: "a path pattern beats a domain",
    rules: [
      rule("domain", { match: { domains: ["shop.example"] }, set: { nofollow: "on" } }),
      rule("pattern", { match: { pages: ["/reviews/*"] }, set: { nofollow: "off" } }),
    ],
    link: { href: OUT, page: "/reviews/a" },
    rel: "",
    target: null,
  },
  {
    says: "the longer domain beats the shorter",
    rules: [
      rule("short", { match: { domains: ["*.example"] }, set: { nofollow: "on" } }),
      rule("long", { match: { domains: ["*.shop.example"] }, set: { nofollow: "off" } }),
    ],
    link: { href: "https://a.shop.example/" },
    rel: "",
    target: null,
  },
  {
    says: "a domain beats a category, and a category all outside links",
    rules: [
      nofollow,
      rule("category", {
        match: { categories: ["Reviews"] },
        set: { nofollow: "off", ugc: "on" },
        mode: "overwrite",
      }),
      rule("domain", { match: { domains: ["shop.example"] }, set: { ugc: "off" }, mode: "overwrite" }),
    ],
    link: { href: OUT, category: "Reviews" },
    rel: "",
    target: null,
  },
  {
    says: "among equals the higher one decides",
    rules: [
      rule("first", { match: {}, set: { nofollow: "on" } }),
      rule("second", { match: {}, set: { nofollow: "off" } }),
    ],
    link: { href: OUT },
    rel: "nofollow",
    target: null,
  },
  {
    says: "a rule that is off is silent",
    rules: [rule("off", { enabled: false, match: {}, set: { nofollow: "on" } })],
    link: { href: OUT },
    rel: "",
    target: null,
  },
  {
    says: "d is d itself and not its subdomains",
    rules: [rule("d", { match: { domains: ["shop.example"] }, set: { nofollow: "on" } })],
    link: { href: "https://www.shop.example/" },
    rel: "",
    target: null,
  },
  {
    says: "*.d is d's subdomains and not d itself",
    rules: [rule("d", { match: { domains: ["*.shop.example"] }, set: { nofollow: "on" } })],
    link: { href: OUT },
    rel: "",
    target: null,
  },
  {
    says: "*.d does not match a name that merely ends alike",
    rules: [rule("d", { match: { domains: ["*.shop.example"] }, set: { nofollow: "on" } })],
    link: { href: "https://evilshop.example/" },
    rel: "",
    target: null,
  },
  {
    says: "every named field must match",
    rules: [rule("both", { match: { domains: ["shop.example"], anchor: "image" }, set: { nofollow: "on" } })],
    link: { href: OUT, anchor: "text" },
    rel: "",
    target: null,
  },
  {
    says: "an exception takes the link out by any of its fields",
    rules: [
      rule("most", {
        match: {},
        except: { domains: ["shop.example"], categories: ["News"] },
        set: { nofollow: "on" },
      }),
    ],
    link: { href: OUT, category: "Reviews" },
    rel: "",
    target: null,
  },
  {
    says: "an exception that does not apply leaves the rule in force",
    rules: [rule("most", { match: {}, except: { categories: ["News"] }, set: { nofollow: "on" } })],
    link: { href: OUT, category: "Reviews" },
    rel: "nofollow",
    target: null,
  },
  {
    says: "tokens come out in one order, each once, others behind",
    rules: [
      rule("all", {
        match: {},
        set: { external: "on", sponsored: "on", noreferrer: "on", nofollow: "on" },
        mode: "overwrite",
      }),
    ],
    link: { href: OUT, rel: "license UGC me ugc license" },
    rel: "nofollow sponsored ugc noreferrer external license me",
    target: null,
  },
  {
    says: "letter case of managed tokens and of _blank does not count",
    rules: [],
    link: { href: OUT, rel: "NoFollow", target: "_BLANK" },
    rel: "nofollow noopener",
    target: "_blank",
  },
];

describe("rel and target of a link", () => {
  for (const { says, rules, link, rel, target } of CASES) {
    test(says, () => {
      const resolved = linkAttributes(link, rules, RESOLVER);
      assert.deepEqual({ rel: resolved.rel.join(" "), target: resolved.target }, { rel, target });
    });
  }
});

describe("every decision carries its trace", () => {
  test("which rule decided, and which ones it overridden", () => {
    const page = rule("quiet page", { match: { pages: ["/a"] }, set: { target: "same" } });
    const { trace } = linkAttributes(
      { href: OUT, page: "/a", override: "nofollow=off" },
      [newTab, nofollow, page],
      RESOLVER,
    );
    assert.deepEqual(
      trace.map(({ attribute, value, by, overridden }) => ({ attribute, value, by, overridden })),
      [
        { attribute: "nofollow", value: "off", by: "override on this link", overridden: ["nofollow"] },
        { attribute: "target", value: "same", by: "quiet page", overridden: ["new tab"] },
      ],
    );
  });

  test("the author's own attribute is named as such", () => {
    const { trace } = linkAttributes({ href: OUT, rel: "ugc" }, [nofollow], RESOLVER);
    assert.deepEqual(
      trace.map(({ attribute, by }) => [attribute, by]),
      [
        ["nofollow", "nofollow"],
        ["ugc", "the author's own attribute"],
      ],
    );
  });

  test("implied noopener says why, and what it overridden", () => {
    const off = rule("no noopener", { match: {}, set: { noopener: "off" }, mode: "overwrite" });
    const { trace } = linkAttributes({ href: OUT }, [newTab, off], RESOLVER);
    const noopener = trace.find(({ attribute }) => attribute === "noopener");
    assert.equal(noopener?.by, "a new tab implies noopener");
    assert.deepEqual(noopener?.overridden, ["no noopener"]);
    assert.equal(trace.filter(({ attribute }) => attribute === "noopener").length, 1);
  });
});

describe("an override is read and written in one form", () => {
  test("it comes back as it was, in the fixed order", () => {
    const { override, unknown } = parseOverride(" target=same  sponsored=ON nofollow=off ");
    assert.deepEqual(override, { target: "same", sponsored: "on", nofollow: "off" });
    assert.deepEqual(unknown, []);
    assert.equal(formatOverride(override), "nofollow=off sponsored=on target=same");
  });

  test("what it does not know is named, not swallowed", () => {
    assert.deepEqual(parseOverride("me=on target=parent nofollow nofollow=maybe").unknown, [
      "me=on",
      "target=parent",
      "nofollow",
      "nofollow=maybe",
    ]);
  });

  test("one that says nothing is not written", () => assert.equal(formatOverride({}), undefined));
});
