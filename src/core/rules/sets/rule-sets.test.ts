import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { ruleSchema, type Rule } from "../rule.ts";
import type { Partner } from "../../programs/partner.ts";
import { adviseRules } from "./advice.ts";
import { compareSets } from "./compare-sets.ts";
import { partnersAt } from "../partners.ts";
import { startingSets } from "./starting-sets.ts";
import { RuleTrial } from "./try-rules.ts";
import { otherAnswer } from "../why.ts";

const rule = (name: string, match: object, set: object = { nofollow: "on" }, more: object = {}): Rule =>
  ruleSchema.parse({ name, match, set, ...more });
const PARTNERS: Partner[] = [
  { name: "Shop", network: "Net", domains: ["shop.example", "*.shop.example"], needsReferrer: true },
  { name: "Shelf", network: "Net", domains: ["shelf.example"], needsReferrer: false },
];
const SITE = { hosts: ["own.example"], partners: PARTNERS };
const OUT = { destination: "external" };

describe("advice", () => {
  const rows: [says: string, rules: Rule[], codes: string[]][] = [
    [
      "a good set",
      [rule("a", { domains: ["shop.example"] }, { sponsored: "on" }), rule("b", OUT, { target: "new" })],
      [],
    ],
    ["a rule that sets nothing", [rule("a", OUT, {})], ["sets-nothing"]],
    ["our own host as a domain", [rule("a", { domains: ["own.example"] })], ["never-matches"]],
    ["our own host among others", [rule("a", { domains: ["own.example", "x.example"] })], ["never-matches"]],
    [
      "inside links to a domain",
      [rule("a", { destination: "internal", domains: ["x.example"] })],
      ["never-matches"],
    ],
    [
      "an exception that takes all out",
      [rule("a", { domains: ["x.example"] }, { ugc: "on" }, { except: { destination: "external" } })],
      ["never-matches"],
    ],
    ["a pattern for every page", [rule("a", { pages: ["/*"] })], ["names-everything"]],
    ["a program that nobody is called", [rule("a", { programs: ["Nobody"] })], ["unknown-program"]],
    ["a network that nobody is of", [rule("a", { networks: ["Nowhere"] })], ["unknown-program"]],
    [
      "noreferrer for who pays by the referrer",
      [rule("a", { domains: ["*.shop.example"] }, { noreferrer: "on" })],
      ["referrer-withheld"],
    ],
    [
      "noreferrer by the network",
      [rule("a", { networks: ["Net"] }, { noreferrer: "on" })],
      ["referrer-withheld"],
    ],
    [
      "noreferrer for who does not care",
      [rule("a", { domains: ["shelf.example"] }, { noreferrer: "on" })],
      [],
    ],
    [
      "sponsored taken off paid links",
      [rule("a", { programs: ["Shelf"] }, { sponsored: "off" })],
      ["paid-unmarked"],
    ],
    ["… but nofollow put on", [rule("a", { programs: ["Shelf"] }, { sponsored: "off", nofollow: "on" })], []],
    ["sponsored for links to ourselves", [rule("a", {}, { sponsored: "on" })], ["sponsored-inside"]],
    [
      "the same name twice",
      [rule("a", { domains: ["x.example"] }), rule("a", { domains: ["y.example"] })],
      ["same-name"],
    ],
    ["one above that says it all first", [rule("a", OUT), rule("b", OUT)], ["never-decides"]],
    ["one above that speaks of something else", [rule("a", OUT, { ugc: "on" }), rule("b", OUT)], []],
    [
      "one below that names more closely",
      [rule("a", OUT), rule("b", { domains: ["x.example"] }, { nofollow: "off" })],
      [],
    ],
    [
      "one that fills above one that overwrites",
      [rule("a", OUT), rule("b", OUT, { nofollow: "on" }, { mode: "overwrite" })],
      [],
    ],
    [
      "two that say opposite things at one level",
      [rule("a", { categories: ["x", "y"] }), rule("b", { categories: ["y", "z"] }, { nofollow: "off" })],
      ["contradiction"],
    ],
    [
      "opposite things for different links",
      [rule("a", { categories: ["x"] }), rule("b", { categories: ["z"] }, { nofollow: "off" })],
      [],
    ],
    ["rules that are off", [rule("a", {}, {}, { enabled: false })], []],
  ];
  for (const [says, rules, codes] of rows)
    test(says, () =>
      assert.deepEqual(
        adviseRules(rules, SITE).map(({ code }) => code),
        codes,
      ),
    );

  test("the starting sets earn none, with partners and without", () => {
    for (const partners of [[], PARTNERS])
      for (const { key, rules } of startingSets(partners))
        assert.deepEqual(adviseRules(rules, { hosts: ["own.example"], partners }), [], key);
  });
});

test("partners are found by the domain, its subdomains' wildcard, and nothing like it", () => {
  assert.deepEqual(partnersAt(PARTNERS, "shop.example").programs, ["Shop"]);
  assert.deepEqual(partnersAt(PARTNERS, "a.b.shop.example"), {
    programs: ["Shop"],
    networks: ["Net"],
    needsReferrer: true,
    end: undefined,
  });
  assert.deepEqual(partnersAt(PARTNERS, "a.shelf.example").programs, []);
  assert.deepEqual(partnersAt(PARTNERS, "myshop.example").programs, []);
  assert.deepEqual(partnersAt(PARTNERS, undefined).programs, []);
});

describe("sets compared", () => {
  const a = rule("a", OUT);
  const b = rule("b", { domains: ["x.example"] });
  const c = rule("c", OUT, { target: "new" });
  const rows: [says: string, before: Rule[], after: Rule[], expected: string[]][] = [
    ["the same", [a, b], [a, b], []],
    ["one more", [a], [a, b], ["added b"]],
    ["one less", [a, b], [b], ["removed a"]],
    ["one moved to the front", [a, b, c], [c, a, b], ["moved c"]],
    ["switched off", [a], [{ ...a, enabled: false }], ["switched off a"]],
    [
      "changed and switched on",
      [{ ...a, enabled: false }],
      [rule("a", OUT, { ugc: "on" })],
      ["changed a", "switched on a"],
    ],
    ["all at once", [a, b, c], [c, rule("b", OUT)], ["moved b", "changed b", "removed a"]],
  ];
  for (const [says, before, after, expected] of rows)
    test(says, () => {
      const found = compareSets(before, after).map(({ change, name }) => `${change} ${name}`);
      assert.deepEqual(found.sort(), [...expected].sort());
    });
});

test("a trial counts links, pages, hosts and groups, and what each rule decides", () => {
  const kept: string[] = [];
  const trial = new RuleTrial(
    [],
    [
      rule("out", OUT, { nofollow: "on", target: "new" }),
      rule("x", { domains: ["x.example"] }, { nofollow: "off", ugc: "on" }),
    ],
    (change, { id }) => kept.push(`${id} ${change}`),
  );
  const facts = (domain: string | undefined) => ({
    reach: domain ? ("external" as const) : ("internal" as const),
    domain,
    end: undefined,
    short: false,
    page: "/p",
    category: undefined,
    anchor: "text" as const,
    programs: [],
    networks: [],
  });
  const link = (id: string, place: string, rel: string | null = null) => ({
    id,
    place,
    words: id,
    href: "/",
    rel,
    target: null,
    override: null,
  });
  trial.add(link("1", "/p"), facts("x.example"));
  trial.add(link("2", "/p"), facts("y.example"));
  trial.add(link("3", "/q", "nofollow"), facts("y.example"));
  trial.add(link("4", "/r"), facts(undefined));
  const { links, pages, changed, changedPages, groups, hosts, decides } = trial.result();
  assert.deepEqual([links, pages, changed, changedPages, decides], [4, 3, 3, 2, [3, 1]]);
  assert.deepEqual(
    groups.map(({ change, links: count, pages: on }) => [change, count, on]),
    [
      ["+noopener new tab", 1, 1],
      ["+nofollow +noopener new tab", 1, 1],
      ["+ugc +noopener new tab", 1, 1],
    ].sort((x, y) => (x[0]! < y[0]! ? -1 : 1)),
  );
  assert.deepEqual(
    hosts.map(({ host, after }) => [host, after.nofollow, after.ugc]),
    [
      ["y.example", 2, 0],
      ["x.example", 0, 1],
    ],
  );
  assert.deepEqual(kept, [
    "1 +ugc +noopener new tab",
    "2 +nofollow +noopener new tab",
    "3 +noopener new tab",
  ]);
});

test("what to change is said for whoever decided", () => {
  const say = (
    decider: Parameters<typeof otherAnswer>[0]["decider"],
    attribute: "nofollow" | "target" = "nofollow",
  ) => otherAnswer({ attribute, value: "on", by: "", overridden: [], decider });
  assert.match(say({ kind: "rule", index: 0, name: "Out" }), /change “Out”, or make an exception/);
  assert.match(say({ kind: "override" }), /Leave it to the rules/);
  assert.match(say({ kind: "author" }), /The author wrote it/);
  assert.match(say({ kind: "implied" }), /new tab/);
  assert.match(say({ kind: "author" }, "target"), /another tab/);
});
