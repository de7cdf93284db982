import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { ruleSchema, rulesInputSchema } from "./rule.ts";
import { ruleSentence } from "./sentence.ts";

describe("a rule reads as a sentence", () => {
  const cases: readonly (readonly [rule: object, sentence: string])[] = [
    [
      { match: { destination: "external" }, set: { target: "new" } },
      "Links to outside hosts: open in a new tab, where the author set nothing.",
    ],
    [
      {
        match: { domains: ["*.harbour-optics.localhost"] },
        set: { sponsored: "on", nofollow: "on", target: "new" },
        mode: "overwrite",
      },
      "Links to *.harbour-optics.localhost: add nofollow and sponsored and open in a new tab, replacing what the author set.",
    ],
    [
      {
        match: { categories: ["Reviews"], anchor: "image" },
        except: { domains: ["a.example"], pages: ["/b"] },
        set: { ugc: "off" },
      },
      "Links on pictures on pages in Reviews, except those to a.example or on /b: remove ugc, where the author set nothing.",
    ],
    [
      {
        match: { programs: ["Shop"], networks: ["Net"] },
        except: { pages: ["/press/*"] },
        set: { sponsored: "on", noreferrer: "off" },
        mode: "overwrite",
      },
      "Links of the program Shop of the network Net, except those on /press/*: add sponsored and remove noreferrer, replacing what the author set.",
    ],
    [
      { match: { destination: "internal", anchor: "text" }, set: { target: "same", external: "off" } },
      "Links on words inside the site: remove external and open in the same tab, where the author set nothing.",
    ],
    [{ match: {}, set: {} }, "All links: change nothing."],
    [
      {
        match: { domains: ["a.example", "b.example", "c.example", "d.example", "e.example"] },
        set: { target: "same" },
      },
      "Links to a.example, b.example, c.example and 2 more: open in the same tab, where the author set nothing.",
    ],
  ];
  for (const [rule, sentence] of cases)
    test(sentence, () => assert.equal(ruleSentence(ruleSchema.parse({ name: "x", ...rule })), sentence));
});

describe("a rule that makes no sense is refused at its field", () => {
  const cases: readonly (readonly [rule: object, path: string])[] = [
    [{ name: "", set: {} }, "name"],
    [{ name: "x", set: { nofollow: "yes" } }, "set.nofollow"],
    [{ name: "x", set: { target: "_blank" } }, "set.target"],
    [{ name: "x", set: {}, match: { domains: ["shop.*"] } }, "match.domains.0"],
    [{ name: "x", set: {}, match: { domains: ["https://shop.example/"] } }, "match.domains.0"],
    [{ name: "x", set: {}, match: { domains: [] } }, "match.domains"],
    [{ name: "x", set: {}, match: { pages: ["reviews"] } }, "match.pages.0"],
    [{ name: "x", set: {}, match: { colour: "red" } }, "match"],
    [{ name: "x", set: {}, mode: "sometimes" }, "mode"],
  ];
  for (const [rule, path] of cases) {
    test(JSON.stringify(rule), () => {
      const result = rulesInputSchema.safeParse({ version: 0, rules: [rule] });
      assert.ok(!result.success);
      assert.ok(
        result.error.issues.some((issue) => issue.path.slice(2).join(".") === path),
        JSON.stringify(result.error.issues),
      );
    });
  }

  test("domains are kept in their ASCII form", () => {
    const rule = ruleSchema.parse({ name: "x", set: {}, match: { domains: ["*.MÜNCHEN.example"] } });
    assert.deepEqual(rule.match.domains, ["*.xn--mnchen-3ya.example"]);
  });
});
