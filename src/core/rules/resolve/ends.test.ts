import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { ruleSchema, type Rule } from "../rule.ts";
import { adviseRules } from "../sets/advice.ts";
import { linkFacts, type LinkResolver } from "./link-facts.ts";
import { NOTHING_WRITTEN, resolve } from "./resolve.ts";

const named = (name: string, match: object, more: object = {}): Rule =>
  ruleSchema.parse({ name, match, ...more });

describe("a program's tracked link", () => {
  const partners = [
    {
      name: "Lens House",
      network: "Ferry",
      domains: ["lens-house.example"],
      trackingId: "LL-1",
      needsReferrer: false,
      template: "https://ferry.example/c/{id}/lens?to={destination}&s={sub}",
    },
    {
      name: "Wool",
      network: "Ferry",
      domains: ["*.wool.example", "wool.example"],
      trackingId: "W-1",
      needsReferrer: false,
      template: "https://ferry.example/w/{id}?to={destination}",
    },
  ];
  const site: LinkResolver = {
    hosts: ["own.example"],
    partners,
    answers: (_, key) => (key === "/to/lens" || key === "/to/plain" ? "route" : undefined),
    routeDestination: (_, key) =>
      key === "/to/lens" ? LENS : key === "/to/plain" ? "https://lens-house.example/" : undefined,
  };
  const LENS = "https://ferry.example/c/LL-1/lens?to=https%3A%2F%2Flens-house.example%2Fitem%2F7&s=x";
  const cases: readonly (readonly [href: string, domains: string[], matched: string | undefined])[] = [
    [LENS, ["lens-house.example"], "lens-house.example, where this tracked link ends"],
    [LENS, ["ferry.example"], "ferry.example, as it is written"],
    [LENS, ["*.example", "lens-house.example"], "lens-house.example, where this tracked link ends"],
    [LENS, ["wool.example"], undefined],
    [
      LENS.replace("LL-1", "SOMEBODY"),
      ["lens-house.example"],
      "lens-house.example, where this tracked link ends",
    ],
    [
      "https://ferry.example/c/LL-1/lens",
      ["lens-house.example"],
      "lens-house.example, where this tracked link ends",
    ],
    ["https://ferry.example/about", ["lens-house.example"], undefined],
    [
      "https://ferry.example/w/W-1?to=https%3A%2F%2Fshop.wool.example%2F",
      ["*.wool.example"],
      "shop.wool.example, where this tracked link ends",
    ],
    ["https://ferry.example/w/W-1", ["wool.example"], undefined],
    ["https://lens-house.example/item/7", ["lens-house.example"], "lens-house.example, as it is written"],
    ["/to/lens", ["lens-house.example"], "lens-house.example, where this tracked link ends"],
    ["/to/lens", ["ferry.example"], "ferry.example, where this short link ends"],
    ["/to/plain", ["lens-house.example"], "lens-house.example, where this short link ends"],
  ];
  for (const [href, domains, matched] of cases)
    test(`${href} and a rule for ${domains.join(", ")}`, () => {
      const rules = [named("it", { domains }, { set: { sponsored: "on" } })];
      const { trace, rel } = resolve(rules, linkFacts({ href }, site), NOTHING_WRITTEN);
      assert.equal(trace[0]?.matched, matched);
      assert.equal(rel.includes("sponsored"), matched !== undefined);
    });

  test("is taken out by an exception for either of its hosts", () => {
    for (const domains of [["ferry.example"], ["lens-house.example"]]) {
      const rules = [named("it", {}, { set: { sponsored: "on" }, except: { domains } })];
      assert.deepEqual(resolve(rules, linkFacts({ href: LENS }, site), NOTHING_WRITTEN).rel, []);
    }
  });

  test("advice says when a domain is reached by both ways, and when it is not", () => {
    const said = (domains: string[]) =>
      adviseRules([named("it", { domains }, { set: { sponsored: "on" } })], { ...site, partners })
        .filter(({ code }) => code === "both-ways")
        .map(({ message }) => message);
    assert.match(said(["lens-house.example"]).join(), /by both ways.*ferry\.example/);
    assert.match(said(["ferry.example"]).join(), /straight to its own pages are not covered/);
    assert.deepEqual(said(["ferry.example", "lens-house.example", "wool.example"]), []);
    assert.deepEqual(said(["other.example"]), []);
  });
});
