import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { domainPattern } from "../address/domain-pattern.ts";
import { ledgerFilterSchema, linkActionSchema, linkBulkSchema } from "../ledger/ledger.ts";
import { disclosureSchema } from "../programs/partner.ts";
import { ruleSchema, rulesInputSchema } from "./rule.ts";

describe("a domain", () => {
  const good: [typed: string, taken: string][] = [
    ["shop.example", "shop.example"],
    [" Shop.Example ", "shop.example"],
    ["*.shop.example", "*.shop.example"],
    ["Bücher.example", "xn--bcher-kva.example"],
    ["*.bücher.example", "*.xn--bcher-kva.example"],
    ["127.0.0.1", "127.0.0.1"],
    ["localhost", "localhost"],
  ];
  for (const [typed, taken] of good)
    test(`${typed} is taken as ${taken}`, () => assert.equal(domainPattern.parse(typed), taken));

  const bad: [typed: string, message: RegExp][] = [
    ["https://shop.example", /is an address/],
    ["https://shop.example/lamp?x", /is an address/],
    ["*", /star stands alone in front/],
    ["*.", /star stands alone/],
    ["*shop.example", /star stands alone/],
    ["shop.*", /star stands alone/],
    ["a.*.example", /star stands alone/],
    ["**.shop.example", /star stands alone/],
    ["", /is not a domain/],
    ["shop example", /is not a domain/],
    ["shop.example/lamp", /is not a domain/],
    ["user@shop.example", /is not a domain/],
    ["shop.example:8080", /is not a domain/],
    ["shop\\example", /is not a domain/],
  ];
  for (const [typed, message] of bad)
    test(`“${typed}” is refused`, () => {
      const { success, error } = domainPattern.safeParse(typed);
      assert.equal(success, false);
      assert.match(error!.issues[0]!.message, message);
    });
});

describe("a rule", () => {
  const pathOf = (rule: unknown): string => {
    const checked = ruleSchema.safeParse(rule);
    return checked.success ? "" : checked.error.issues[0]!.path.join(".");
  };
  const base = { name: "R", match: {}, set: {} };

  test("is on, matches all and fills unless it says otherwise", () => {
    const { enabled, match, mode, except } = ruleSchema.parse({ name: "R", set: { ugc: "on" } });
    assert.deepEqual([enabled, match, mode, except], [true, {}, "fill", undefined]);
  });

  const bad: [says: string, rule: object, path: string][] = [
    ["without a name", { ...base, name: "" }, "name"],
    ["with a line break in its name", { ...base, name: "a\nb" }, "name"],
    ["without a set", { name: "R", match: {} }, "set"],
    ["with a token that there is not", { ...base, set: { dofollow: "on" } }, "set"],
    ["with a token that is half on", { ...base, set: { ugc: "maybe" } }, "set.ugc"],
    ["with another target", { ...base, set: { target: "_top" } }, "set.target"],
    ["with an empty list", { ...base, match: { domains: [] } }, "match.domains"],
    ["with a page that is no path", { ...base, match: { pages: ["reviews/*"] } }, "match.pages.0"],
    ["with a query in a page", { ...base, match: { pages: ["/a?b"] } }, "match.pages.0"],
    ["with another reach", { ...base, match: { destination: "abroad" } }, "match.destination"],
    ["with a field that there is not", { ...base, match: { colour: "red" } }, "match"],
    ["with a bad domain in its exception", { ...base, except: { domains: ["a.*"] } }, "except.domains.0"],
    ["with another mode", { ...base, mode: "always" }, "mode"],
  ];
  for (const [says, rule, path] of bad)
    test(`${says} is refused at ${path}`, () => assert.equal(pathOf(rule), path));

  test("a set has at most a thousand", () => {
    const rules = Array.from({ length: 1_001 }, (_, at) => ({ ...base, name: `R ${at}` }));
    assert.equal(rulesInputSchema.safeParse({ version: 0, rules }).success, false);
    assert.equal(rulesInputSchema.safeParse({ version: 0, rules: rules.slice(1) }).success, true);
    assert.equal(rulesInputSchema.safeParse({ version: -1, rules: [] }).success, false);
  });
});

describe("the disclosure", () => {
  test("is not placed without words", () => {
    assert.equal(disclosureSchema.safeParse({ text: "", place: false }).success, true);
    assert.equal(disclosureSchema.safeParse({ text: "  ", place: true }).success, false);
    assert.equal(disclosureSchema.safeParse({ text: "Paid.", place: true }).success, true);
  });
});

describe("questions to the ledger", () => {
  const bad: [name: string, value: string][] = [
    ["edition", "drafts"],
    ["place", "footer"],
    ["kind", "outside"],
    ["reach", "abroad"],
    ["anchor", "video"],
    ["target", "_blank"],
    ["treatment", "dofollow"],
    ["finding", "ugly"],
    ["health", "sick"],
    ["byHand", "yes"],
    ["short", "2"],
  ];
  for (const [name, value] of bad)
    test(`${name}=${value} is refused at its name`, () => {
      const { error } = ledgerFilterSchema.safeParse({ [name]: value });
      assert.equal(error?.issues[0]?.path[0], name);
    });

  test("nothing asked is everything", () => assert.deepEqual(ledgerFilterSchema.parse({}), {}));
});

describe("what is done to many links", () => {
  const good: object[] = [
    { do: "override", set: { sponsored: "on", target: "clear" } },
    { do: "clear-overrides" },
    { do: "destination", find: "/a", replace: "https://a.example/" },
    { do: "host", find: "a.example", replace: "b.example" },
    { do: "parameter", name: "tag", value: null },
    { do: "shorten" },
  ];
  for (const action of good)
    test(`taken: ${JSON.stringify(action)}`, () => assert.ok(linkActionSchema.safeParse(action).success));

  const bad: object[] = [
    {},
    { do: "delete" },
    { do: "override", set: {} },
    { do: "override", set: { dofollow: "on" } },
    { do: "override", set: { sponsored: "maybe" } },
    { do: "destination", find: "", replace: "/b" },
    { do: "host", find: "a.example" },
    { do: "parameter", name: "", value: "1" },
    { do: "shorten", host: "x" },
  ];
  for (const action of bad)
    test(`refused: ${JSON.stringify(action)}`, () =>
      assert.equal(linkActionSchema.safeParse(action).success, false));

  test("links are chosen by ids or by a filter, not by both", () => {
    const action = { do: "shorten" };
    assert.equal(linkBulkSchema.safeParse({ action }).success, false);
    assert.equal(linkBulkSchema.safeParse({ action, ids: ["1"], filter: {} }).success, false);
    assert.equal(linkBulkSchema.safeParse({ action, ids: [] }).success, false);
    const { published, routes, dryRun } = linkBulkSchema.parse({ action, ids: ["1"] });
    assert.deepEqual([published, routes, dryRun], [false, true, false]);
  });
});
