import assert from "node:assert/strict";
import { describe, test } from "node:test";
import fc from "fast-check";
import { AnyLetters } from "../address/any-letters.ts";
import { machineDocument, feedPath } from "./machine-documents.ts";
import { robotsFault, robotsText } from "./robots.ts";
import { spelledPath } from "./spelling.ts";
import { SLASHES } from "./choices.ts";

describe("the spelling of a path", () => {
  test("is one for all that mean the same page, by the site's choice of slash", () => {
    for (const [path, written, without, having] of [
      ["/", "/", "/", "/"],
      ["/moss", "/moss", "/moss", "/moss/"],
      ["/moss/", "/moss/", "/moss", "/moss/"],
      ["/%7Emoss//", "/~moss/", "/~moss", "/~moss/"],
      ["/a/./b/../moss", "/a/moss", "/a/moss", "/a/moss/"],
      ["/moos/grün", "/moos/gr%C3%BCn", "/moos/gr%C3%BCn", "/moos/gr%C3%BCn/"],
      ["/list.html", "/list.html", "/list.html", "/list.html"],
      ["/v1.2", "/v1.2", "/v1.2", "/v1.2"],
      ["/a.b/c", "/a.b/c", "/a.b/c", "/a.b/c/"],
    ] as const)
      assert.deepEqual(
        SLASHES.map((slashes) => spelledPath(path, slashes)),
        [written, without, having],
        path,
      );
  });
  test("spelling what is spelled changes nothing", () => {
    fc.assert(
      fc.property(fc.webPath(), fc.constantFrom(...SLASHES), (path, slashes) => {
        const once = spelledPath(`/${path}`, slashes);
        assert.equal(spelledPath(once, slashes), once);
      }),
    );
  });
});

test("keys are found in any letter case, themselves first, while they are there", () => {
  const letters = new AnyLetters();
  for (const key of ["/About", "/about", "/%C3%BCber"]) letters.add(key);
  assert.deepEqual(
    ["/about", "/About", "/ABOUT", "/%C3%BCBER", "/other"].map((key) => letters.find(key)),
    ["/about", "/About", "/About", "/%C3%BCber", undefined],
  );
  letters.delete("/About");
  letters.delete("/never");
  assert.equal(letters.find("/ABOUT"), "/about");
  letters.delete("/about");
  assert.equal(letters.find("/about"), undefined);
});

test("a document for machines is told by its path alone", () => {
  assert.deepEqual(machineDocument("/sitemap.xml"), { kind: "sitemap" });
  assert.deepEqual(machineDocument("/sitemap-12.xml"), { kind: "sitemap", part: 12 });
  for (const category of [null, "Field notes", "a/b", "Grün & so", "50 %"])
    assert.deepEqual(machineDocument(feedPath(category)), { kind: "feed", category });
  assert.deepEqual(machineDocument("/feed/%FF.atom"), { kind: "feed", category: "%FF" });
  for (const key of ["/sitemap-0.xml", "/feed/a/b.atom", "/feed", "/Robots.txt", "/a/robots.txt"])
    assert.equal(machineDocument(key), undefined, key);
});

describe("robots.txt", () => {
  test("takes what crawlers read", () => {
    for (const text of [
      "",
      "User-agent: *\nAllow: /",
      "# ours\nUSER-AGENT: a\nuser-agent: b # two\nDisallow:\nDisallow: /*.pdf$\n\nSitemap: https://moss.example/s.xml",
      "Sitemap: https://moss.example/s.xml\nUser-agent: *\nCrawl-delay: 10",
    ])
      assert.equal(robotsFault(text), undefined, text);
    assert.equal(robotsText.parse("  User-agent: *\r\nAllow: /\r\n"), "User-agent: *\nAllow: /");
  });
  test("says what is wrong in which line", () => {
    for (const [text, fault] of [
      ["User-agent: *\nnonsense", /^Line 2, “nonsense”, is no rule/],
      ["User-agent: *\nDissallow: /", /^Line 2: crawlers know no field “Dissallow”/],
      ["Disallow: /", /^Line 1 stands above the first User-agent/],
      ["User-agent: *\nAllow: moss", /^Line 2: a path in a rule begins/],
      ["User-agent:", /^Line 1: whom is it for/],
      ["Sitemap: /sitemap.xml", /^Line 1: a sitemap is named by its whole address/],
    ] as const)
      assert.match(robotsFault(text) ?? "", fault, text);
    assert.equal(robotsText.safeParse(`# ${"x".repeat(600_000)}`).success, false);
  });
});
