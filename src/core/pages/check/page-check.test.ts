import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { ruleSchema } from "../../rules/rule.ts";
import type { ResolvedLink } from "../../links/resolved-link.ts";
import type { Finding, FindingCode } from "./finding.ts";
import { checkPage, type CheckAgainst } from "./page-check.ts";

const RESOLVED: readonly ResolvedLink[] = [
  { address: "/resources", kind: "page", ends: "/resources", title: "Resources" },
  { address: "/drafted", kind: "page", ends: "/drafted", title: "Not yet", draft: true },
  { address: "/old", kind: "route", ends: "/resources", redirect: true },
  { address: "/to/lamp", kind: "route", ends: "https://shop.example/lamp" },
  { address: "/files/a.png", kind: "file", ends: "/files/a.png" },
];
const RULES = [
  { name: "new tab", match: { destination: "external" }, set: { target: "new" } },
  {
    name: "paid",
    match: { domains: ["shop.example"] },
    set: { sponsored: "on", nofollow: "on" },
    mode: "overwrite",
  },
].map((rule) => ruleSchema.parse(rule));

const against = (more: Partial<CheckAgainst> = {}): CheckAgainst => ({
  hosts: ["own.example"],
  resolvedLinks: RESOLVED,
  rules: RULES,
  page: { path: "/", category: "" },
  variables: { account: "LL-1" },
  limits: { paidLimit: 3, paidLimitLong: 4, longWords: 50 },
  ...more,
});
const codes = (html: string, more?: Partial<CheckAgainst>): [FindingCode, number | null][] =>
  checkPage(html, against(more)).map(({ code, link }) => [code, link]);
const p = (inside: string): string => `<p>${inside}</p>`;
const out = (words: string, more = ""): string =>
  `<a href="https://away.example/${encodeURIComponent(words)}"${more}>${words}</a>`;
const paid = (n: number): string =>
  Array.from({ length: n }, (_, at) => p(`<a href="https://shop.example/${at}">Lamp number ${at}a</a>`)).join(
    "",
  );

describe("a page's links are checked", () => {
  const cases: readonly (readonly [
    says: string,
    html: string,
    findings: readonly (readonly [FindingCode, number | null])[],
  ])[] = [
    [
      "nothing is said of a page that is right",
      p(`Our ${out("long review")}`) + p('See <a href="/resources">what we lean on</a>'),
      [],
    ],
    [
      "two ways out in one paragraph",
      p(`${out("one shop")} or ${out("another shop")}`),
      [["crowded-paragraph", 1]],
    ],
    ["one way out in each of two paragraphs", p(out("one shop")) + p(out("another shop")), []],
    [
      "a short link that ends outside is a way out as well",
      p(`${out("one shop")} or <a href="/to/lamp">our lamp</a>`),
      [["crowded-paragraph", 1]],
    ],
    ["three paid links on a normal page", paid(3), []],
    ["four paid links on a normal page", paid(4), [["too-many-paid", 3]]],
    ["four paid links on a long page", paid(4) + p("word ".repeat(60)), []],
    [
      "five paid links on a long page, at the first beyond",
      paid(5) + p("word ".repeat(60)),
      [["too-many-paid", 4]],
    ],
    [
      "the same place twice",
      p('<a href="/resources">what we use</a>') + p('<a href="/resources/">the same again</a>'),
      [["same-destination", 1]],
    ],
    [
      "a picture and its caption to one place",
      `<figure><a href="https://away.example/x"><img src="/files/a.png" alt="A lamp"></a><figcaption>${'<a href="https://away.example/x">Its page</a>'}</figcaption></figure>`,
      [],
    ],
    [
      "words that say nothing",
      p(out("Click here!")) + p(out("here")) + p(out("read more")),
      [
        ["empty-words", 0],
        ["empty-words", 1],
        ["empty-words", 2],
      ],
    ],
    [
      "a bare address as words",
      p('<a href="https://away.example/a">https://away.example/a</a>'),
      [["empty-words", 0]],
    ],
    ["a lone number as words", p(out("1")) + p(out("№ 2 of the series")), [["empty-words", 0]]],
    ["an own short link spelt out", p('<a href="/to/lamp">/to/lamp</a>'), []],
    [
      "an inside link in a new tab",
      p('<a href="/resources" target="_blank">what we use</a>'),
      [["inside-new-tab", 0]],
    ],
    [
      "an outside link that stays in the tab",
      p(out("a shop", ' data-override="target=same"')),
      [["outside-same-tab", 0]],
    ],
    ["a path that nothing answers", p('<a href="/missing">a page</a> of ours'), [["broken", 0]]],
    [
      "a heading that is not there",
      p('<a href="#there">the part</a><a href="#gone">other part</a>') + "<h2>There</h2>",
      [["missing-heading", 1]],
    ],
    ["a link to a redirect", p('<a href="/old">what we use</a>'), [["redirected", 0]]],
    ["a link to a draft", p('<a href="/drafted">soon to come</a>'), [["draft", 0]]],
    ["http", p('<a href="http://away.example/">a shop</a>'), [["http", 0]]],
    ["http to a host of this machine", p('<a href="http://away.localhost:1/">a shop</a>'), []],
    [
      "a link in a link",
      p('<a href="/resources">one <a href="https://away.example/">two shops</a></a>'),
      [["nested", 1]],
    ],
    ["a link without words", p('<a href="/resources"></a>'), [["no-words", 0]]],
    [
      "a linked picture without alternative text",
      '<a href="/resources"><img src="/files/a.png" alt=""></a>',
      [["no-alternative", 0]],
    ],
    [
      "a picture that links to its own file",
      '<a href="/files/a.png"><img src="/files/a.png" alt="A lamp"></a>',
      [["links-to-itself", 0]],
    ],
    [
      "a title that repeats the words",
      p('<a href="/resources" title="what we use">what we use</a>'),
      [["repeated-title", 0]],
    ],
    [
      "one title for two places",
      p(out("one shop", ' title="T"')) + p(out("another shop", ' title="T"')),
      [["repeated-title", 1]],
    ],
    ["an address that is empty", p('<a href="">nowhere at all</a>'), [["broken", 0]]],
    ["a variable without a value", p("Our {{badge}} and {{account}}"), [["unfilled", null]]],
    [
      "an address filled from a variable is judged as filled",
      p('<a href="https://shop.example/?a={{account}}">the lamp</a>'),
      [],
    ],
    ["mail and phone", p('<a href="mailto:a@b.example">write</a> <a href="tel:+441">ring us</a>'), []],
  ];
  for (const [says, html, findings] of cases) test(says, () => assert.deepEqual(codes(html), findings));

  test("each finding says why it matters, and a mend gives the address", () => {
    const [finding] = checkPage(p('<a href="/old">what we use</a>'), against()) as [Finding];
    assert.match(finding.why, /redirect may go/);
    assert.deepEqual(finding.fixes, [{ do: "address", word: "Link to the end", address: "/resources" }]);
  });
  test("against rules that say nothing of tabs, nothing is said of tabs", () => {
    assert.deepEqual(codes(p(out("a shop", ' data-override="target=same"')), { rules: [] }), []);
  });
  test("a page of two thousand links is checked to its end", () => {
    const html = Array.from({ length: 2000 }, (_, at) =>
      p(`<a href="https://away.example/${at}">shop ${at}x</a>`),
    ).join("");
    assert.deepEqual(codes(html), []);
  });
});
