import { titleIn } from "./title.ts";
import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { anchorOf, headingAnchors, withHeadingIds } from "../pages/body/headings.ts";
import { linkDifference, pageText, wordDifference } from "./difference.ts";
import {
  adoptPlaceholders,
  fillAddress,
  fillVariables,
  findPlaceholders,
  variableNames,
} from "./variables.ts";

describe("site variables", () => {
  const variables = { account: "LL-2291", motto: 'dark & "quiet" <skies>' };
  test("are filled in text and addresses, escaped as HTML wants it", () => {
    assert.equal(
      fillVariables('<a href="/?a={{account}}">{{ Motto }}</a>', variables),
      '<a href="/?a=LL-2291">dark &amp; &quot;quiet&quot; &lt;skies&gt;</a>',
    );
  });
  test("also where repair has encoded the braces", () =>
    assert.equal(
      fillAddress("https://s.example/%7B%7Baccount%7D%7D", variables),
      "https://s.example/LL-2291",
    ));
  test("a name without a value stays as it is", () =>
    assert.equal(fillVariables("{{nobody}}", variables), "{{nobody}}"));
  test("are named once each", () => assert.deepEqual(variableNames("{{a}} {{B}} {{a}} {x}"), ["a", "b"]));

  const placeholders: readonly (readonly [snippet: string, text: string, variable: string | undefined])[] = [
    ['<a href="https://n.example/?id=YOUR_ACCOUNT_ID">', "YOUR_ACCOUNT_ID", "account"],
    ['<a href="https://n.example/{account}">', "{account}", "account"],
    ['<a href="https://n.example/[ACCOUNT-ID]">', "[ACCOUNT-ID]", "account"],
    ['<a href="https://n.example/%%account%%">', "%%account%%", "account"],
    ['<a href="https://n.example/{{account name}}">', "{{account name}}", "account"],
    ['<a href="https://n.example/YOUR_TAG">', "YOUR_TAG", undefined],
  ];
  for (const [snippet, text, variable] of placeholders)
    test(`${text} in a snippet`, () =>
      assert.deepEqual(findPlaceholders(snippet, variables), [{ text, variable }]));
  test("known placeholders become places", () => {
    const snippet = '<a href="https://n.example/YOUR_ACCOUNT_ID?t=YOUR_TAG">x</a>';
    assert.equal(
      adoptPlaceholders(snippet, findPlaceholders(snippet, variables)),
      '<a href="https://n.example/{{account}}?t=YOUR_TAG">x</a>',
    );
  });
});

describe("headings", () => {
  test("are called by their words, in any script", () => {
    assert.equal(anchorOf("  Under the Sky! "), "under-the-sky");
    assert.equal(anchorOf("Größe & Gewicht"), "größe-gewicht");
    assert.equal(anchorOf("שמיים"), "שמיים");
    assert.equal(anchorOf("🌒"), "heading");
  });
  test("are called by the words that readers see, not by how HTML writes them", () =>
    assert.deepEqual(headingAnchors("<h2>Dew &amp; frost</h2>"), [
      { id: "dew-frost", words: "Dew & frost", level: 2 },
    ]));
  test("get ids that differ, and keep those they have", () => {
    const html = '<h2>A</h2><p>x</p><h3 id="own">B</h3><h2>A</h2><h2 id="a-3">C</h2>';
    assert.equal(
      withHeadingIds(html),
      '<h2 id="a">A</h2><p>x</p><h3 id="own">B</h3><h2 id="a-2">A</h2><h2 id="a-3">C</h2>',
    );
    assert.deepEqual(
      headingAnchors(html).map(({ id, level }) => [id, level]),
      [
        ["a", 2],
        ["own", 3],
        ["a-2", 2],
        ["a-3", 2],
      ],
    );
    assert.equal(withHeadingIds(withHeadingIds(html)), withHeadingIds(html));
  });
});

describe("the difference of two texts", () => {
  test("is told word by word", () => {
    assert.deepEqual(
      wordDifference("<p>The old lamp</p>", "<p>The new lamp</p>").filter(({ change }) => change !== "same"),
      [
        { text: "old", change: "removed" },
        { text: "new", change: "added" },
      ],
    );
    assert.equal(pageText("<h2>A &amp; B</h2><ul><li><p>one</p></li></ul>"), "A & B\n\none");
  });
  test("and link by link: added, removed, changed; one that moved is none", () => {
    const before = '<a href="/a">one</a><a href="/b">two</a><a href="/c">three</a>';
    const after = '<a href="/c">three</a><a href="/a" rel="me">one</a><a href="/d">four</a>';
    assert.deepEqual(linkDifference(before, after), [
      { change: "changed", words: "one", before: "/a", after: "/a rel=“me”" },
      { change: "added", words: "four", before: undefined, after: "/d" },
      { change: "removed", words: "two", before: "/b", after: undefined },
    ]);
    assert.deepEqual(linkDifference(before, before), []);
  });
});

describe("the title of an outside page", () => {
  const cases: readonly (readonly [html: string, title: string | null])[] = [
    ["<head><TITLE lang=en>\n A &amp; B </TITLE>", "A & B"],
    ["<!-- <title>not this</title> --><title>this</title>", "this"],
    ["<title>never closed", null],
    ["<titles>x</titles><title/>y</title>", "y"],
    ["<body><title>too late</title>", null],
    ["<title></title>", null],
    ["<title", null],
    ["", null],
  ];
  for (const [html, title] of cases) test(JSON.stringify(html), () => assert.equal(titleIn(html), title));
});
