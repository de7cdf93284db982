import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { isPaid, ruleFindings, type RuledLink, type RuledPage } from "./rule-findings.ts";

const LIMITS = { paidLimit: 2, paidLimitLong: 4, longWords: 1_000 };
const PAGE: RuledPage = { words: 300, disclosed: true };

function link(index: number, more: Partial<RuledLink> = {}): RuledLink {
  return {
    index,
    reach: "external",
    words: `link ${index}`,
    rel: [],
    target: null,
    ruledTarget: null,
    programs: [],
    needsReferrer: false,
    ...more,
  };
}

function codes(links: readonly RuledLink[], page: Partial<RuledPage> = {}): [string, number | null][] {
  return ruleFindings(links, { ...PAGE, ...page }, LIMITS).map(({ code, link: at }) => [code, at]);
}

describe("what is said of links as rules leave them", () => {
  const rows: [
    says: string,
    links: RuledLink[],
    page: Partial<RuledPage>,
    expected: [string, number | null][],
  ][] = [
    ["nothing of plain links", [link(0), link(1, { reach: "internal" })], {}, []],
    [
      "a paid link that says neither sponsored nor nofollow",
      [link(0, { programs: ["Shop"] })],
      {},
      [["paid-unmarked", 0]],
    ],
    ["one that says sponsored", [link(0, { programs: ["Shop"], rel: ["sponsored"] })], {}, []],
    ["one that says nofollow", [link(0, { programs: ["Shop"], rel: ["nofollow"] })], {}, []],
    [
      "a link to ourselves that says sponsored",
      [link(0, { reach: "internal", rel: ["sponsored"] })],
      {},
      [["sponsored-inside", 0]],
    ],
    [
      "a referrer withheld from who pays by it",
      [link(0, { programs: ["Shop"], rel: ["nofollow", "noreferrer"], needsReferrer: true })],
      {},
      [["referrer-withheld", 0]],
    ],
    [
      "a referrer withheld from who does not care",
      [link(0, { programs: ["Shop"], rel: ["nofollow", "noreferrer"] })],
      {},
      [],
    ],
    [
      "an inside link that opens a new tab against the rules",
      [link(0, { reach: "internal", target: "_blank" })],
      {},
      [["inside-new-tab", 0]],
    ],
    [
      "an inside link that opens a new tab by the rules",
      [link(0, { reach: "internal", target: "_blank", ruledTarget: "_blank" })],
      {},
      [],
    ],
    [
      "an outside link that takes the page away against the rules",
      [link(0, { target: null, ruledTarget: "_blank" })],
      {},
      [["outside-same-tab", 0]],
    ],
    ["as many paid links as the limit", [0, 1].map((at) => link(at, { rel: ["sponsored"] })), {}, []],
    [
      "one more than the limit: the first beyond it",
      [0, 1, 2].map((at) => link(at, { rel: ["sponsored"] })),
      {},
      [["too-many-paid", 2]],
    ],
    [
      "one more than the limit on a long page",
      [0, 1, 2].map((at) => link(at, { rel: ["sponsored"] })),
      { words: 1_000 },
      [],
    ],
    [
      "more than a long page bears",
      [0, 1, 2, 3, 4].map((at) => link(at, { rel: ["sponsored"] })),
      { words: 5_000 },
      [["too-many-paid", 4]],
    ],
    [
      "a paid link and nothing that tells readers",
      [link(0, { rel: ["sponsored"] })],
      { disclosed: false },
      [["undisclosed", null]],
    ],
    ["no paid link and nothing that tells readers", [link(0)], { disclosed: false }, []],
    [
      "a document that need not tell readers",
      [link(0, { rel: ["sponsored"] })],
      { disclosed: undefined },
      [],
    ],
  ];
  for (const [says, links, page, expected] of rows)
    test(says, () => assert.deepEqual(codes(links, page), expected));

  test("each finding says what, why, and what can be done", () => {
    const links = [
      link(0, { programs: ["Shop"], rel: ["noreferrer"], needsReferrer: true, ruledTarget: "_blank" }),
      link(1, { reach: "internal", rel: ["sponsored"], target: "_blank" }),
    ];
    const found = ruleFindings(links, { words: 10, disclosed: false }, { ...LIMITS, paidLimit: 0 });
    assert.equal(found.length, 7);
    for (const { message, why, fixes, link: at } of found) {
      assert.match(message, /\.$/);
      assert.match(why, /\.$/);
      assert.ok(fixes.length > 0 || at === null);
    }
  });
});

test("paid is what is marked so, and what leads to a partner", () => {
  assert.equal(isPaid({ rel: [], programs: [] }), false);
  assert.equal(isPaid({ rel: ["nofollow"], programs: [] }), false);
  assert.equal(isPaid({ rel: ["sponsored"], programs: [] }), true);
  assert.equal(isPaid({ rel: [], programs: ["Shop"] }), true);
});
