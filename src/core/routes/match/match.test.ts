import assert from "node:assert/strict";
import { describe, test } from "node:test";
import fc from "fast-check";
import { caseFoldedKey, pathKey } from "../../address/path-key.ts";
import { addressFault, captureCount, readRouteKey, routeKey } from "./address-form.ts";
import { captureFault, capturesHost, withCaptures } from "./captures.ts";
import { compilePattern, literalHead, literalLength, patternFault, patternGroups } from "./pattern.ts";
import { before, literalOf, PatternTable, type PatternAddress } from "./pattern-table.ts";
import { samplesOf } from "./samples.ts";

describe("prefix, wildcard and pattern routes", () => {
  const answers: readonly (readonly [
    match: PatternAddress["match"],
    address: string,
    path: string,
    captures: readonly string[] | undefined,
  ])[] = [
    ["prefix", "/old", "/old", [""]],
    ["prefix", "/old", "/old/", [""]],
    ["prefix", "/old", "/old/a/b", ["a/b"]],
    ["prefix", "/old", "/older", undefined],
    ["prefix", "/", "/anything/at/all", ["anything/at/all"]],
    ["wildcard", "/blog/*", "/blog/2019/eyepieces", ["2019/eyepieces"]],
    ["wildcard", "/blog/*", "/blog", undefined],
    ["wildcard", "/*/review-*", "/shop/review-dob", ["shop", "dob"]],
    ["wildcard", "/a*b*c", "/aXbYbZc", ["X", "YbZ"]],
    ["wildcard", "/a*a", "/a", undefined],
    ["wildcard", "/*.html", "/notes/first.html", ["notes/first"]],
    ["pattern", "/(\\d{4})/(\\d\\d)/(.+)", "/2019/04/first-night", ["2019", "04", "first-night"]],
    ["pattern", "/(\\d{4})/(\\d\\d)/(.+)", "/2019/4/first-night", undefined],
    ["pattern", "/(?:en|de)/(.*)", "/de/los", ["los"]],
    ["pattern", "^/item(-\\d+)?$", "/item", [""]],
    ["pattern", "/with-slash/(\\w+)/", "/with-slash/end", ["end"]],
    ["pattern", "/part", "/party", undefined],
  ];
  for (const [match, address, path, captures] of answers) {
    test(`${match} ${address} ${captures ? "answers" : "leaves"} ${path}`, () => {
      const table = new PatternTable<string>();
      const { key } = readRouteKey(routeKey(address, false, match));
      table.add({ match, host: null, key, caseInsensitive: false }, "it", 1);
      assert.deepEqual(table.find("any.example", pathKey(path))[0]?.captures, captures);
    });
  }

  test("the longest literal part goes first, then the host's own, then the older", () => {
    const table = new PatternTable<string>();
    const add = (
      entry: string,
      match: PatternAddress["match"],
      key: string,
      host: string | null,
      age: number,
    ) => table.add({ match, host, key, caseInsensitive: false }, entry, age);
    add("everything", "wildcard", "/*", null, 1);
    add("blog, everywhere", "wildcard", "/blog/*", null, 2);
    add("blog, here", "wildcard", "/blog/*", "a.example", 5);
    add("blog, a number", "pattern", "/blog/(\\d+)", null, 3);
    add("below blog/2019", "prefix", "/blog/2019", null, 4);
    assert.deepEqual(
      table.find("a.example", "/blog/2019").map(({ entry }) => entry),
      ["below blog/2019", "blog, here", "blog, everywhere", "blog, a number", "everything"],
    );
    assert.deepEqual(table.find("b.example", "/blog/x")[0]?.entry, "blog, everywhere");
  });

  test("a caseInsensitive one forgives letter case and keeps it in what it captures", () => {
    const table = new PatternTable<string>();
    table.add({ match: "wildcard", host: null, key: "/to/*", caseInsensitive: true }, "w", 1);
    table.add({ match: "prefix", host: null, key: "/go", caseInsensitive: true }, "p", 2);
    table.add({ match: "pattern", host: null, key: "/get/([a-z]+)", caseInsensitive: true }, "r", 3);
    assert.deepEqual(table.find("h", "/TO/Dob")[0], { entry: "w", captures: ["Dob"] });
    assert.deepEqual(table.find("h", "/Go/Dob")[0], { entry: "p", captures: ["Dob"] });
    assert.deepEqual(table.find("h", "/GET/Dob")[0], { entry: "r", captures: ["Dob"] });
  });

  test("is patched in place: what was taken out answers no more", () => {
    const table = new PatternTable<string>();
    const kinds: PatternAddress[] = [
      { match: "prefix", host: null, key: "/a", caseInsensitive: false },
      { match: "wildcard", host: null, key: "/a/*", caseInsensitive: false },
      { match: "pattern", host: null, key: "/a/(.*)", caseInsensitive: false },
    ];
    for (const [age, address] of kinds.entries()) table.add(address, address.match, age);
    assert.equal(table.find("h", "/a/x").length, 3);
    for (const address of kinds) {
      table.delete(address, "somebody else's");
      assert.ok(table.find("h", "/a/x").some(({ entry }) => entry === address.match));
      table.delete(address, address.match);
      assert.ok(!table.find("h", "/a/x").some(({ entry }) => entry === address.match));
    }
    assert.equal(table.size, 0);
  });

  test("longer paths than anybody makes are not compared", () => {
    const table = new PatternTable<string>();
    table.add({ match: "pattern", host: null, key: "/.*", caseInsensitive: false }, "r", 1);
    assert.equal(table.find("h", `/${"x".repeat(1023)}`).length, 1);
    assert.equal(table.find("h", `/${"x".repeat(1024)}`).length, 0);
  });

  test("ten thousand patterns made to be slow are answered", () => {
    const table = new PatternTable<number>();
    for (let n = 0; n < 2_000; n += 1)
      table.add({ match: "pattern", host: null, key: `/(a+)+(a|aa)+${n}$`, caseInsensitive: false }, n, n);
    assert.equal(table.find("h", `/${"a".repeat(1_000)}!`).length, 0);
    assert.deepEqual(
      table.find("h", `/${"a".repeat(40)}7`).map(({ entry }) => entry),
      [7],
    );
  });

  // The slow, obvious way: each route on its own, each kind as a backtracking expression, sorted afterwards.
  interface Naive {
    address: PatternAddress;
    age: number;
  }
  function naive(routes: readonly Naive[], host: string, key: string): number[] {
    const source = ({ match, key: text }: PatternAddress): string => {
      const plain = (part: string): string => part.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");
      if (match === "pattern") return text;
      if (match === "prefix") return text === "/" ? "/(.*)" : `${plain(text)}(?:/(.*))?`;
      const pieces = text.split("*").map(plain);
      return pieces.join("(.*?)");
    };
    return routes
      .filter(({ address }) => address.host === null || address.host === host)
      .filter(({ address }) =>
        new RegExp(`^(?:${source(address)})$`, address.caseInsensitive ? "i" : "").test(key),
      )
      .map((route) => ({ ...route, literal: literalOf(route.address) }))
      .sort(before)
      .map(({ age }) => age);
  }

  test("the table finds what a naive reading finds, in the same order", () => {
    const segment = fc.constantFrom("a", "b", "ab", "A", "x-1", "2019");
    const path = fc.array(segment, { minLength: 1, maxLength: 4 }).map((parts) => `/${parts.join("/")}`);
    const address = fc.oneof(
      path.map((key) => ({ match: "prefix" as const, key })),
      fc
        .array(fc.oneof(segment, fc.constant("*")), { minLength: 1, maxLength: 4 })
        .filter((parts) => parts.includes("*"))
        .map((parts) => ({ match: "wildcard" as const, key: `/${parts.join("/")}` })),
      fc
        .array(fc.constantFrom("a", "(\\d+)", "(a|ab)", "[a-z]+", "(.*)"), { minLength: 1, maxLength: 3 })
        .map((parts) => ({ match: "pattern" as const, key: `/${parts.join("/")}` })),
    );
    const route = fc.record({
      address,
      host: fc.constantFrom(null, "one.example"),
      caseInsensitive: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(route, { maxLength: 12 }), fc.array(path, { maxLength: 8 }), (routes, paths) => {
        const table = new PatternTable<number>();
        const held = routes.map(({ address: { match, key }, host, caseInsensitive }, age) => ({
          address: {
            match,
            host,
            caseInsensitive,
            key: caseInsensitive && match !== "pattern" ? caseFoldedKey(key) : key,
          },
          age,
        }));
        for (const { address: one, age } of held) table.add(one, age, age);
        for (const one of paths)
          for (const host of ["one.example", "two.example"])
            assert.deepEqual(
              table.find(host, one).map(({ entry }) => entry),
              naive(held, host, one),
              `${host}${one}`,
            );
      }),
      { numRuns: 300 },
    );
  });
});

describe("patterns", () => {
  const refused: readonly (readonly [pattern: string, says: RegExp])[] = [
    ["blog/(.*)", /starts with a slash/],
    ["/(unclosed", /no pattern/],
    ["/(?=ahead)", /Look-ahead/],
    ["/(?<!behind)x", /Look-ahead and look-behind/],
    ["/(a)\\1", /Back-references/],
    [`/${"x".repeat(500)}`, /500 characters/],
    ["/(?:(?:a{1,50}){1,50}){1,50}", /too large|no pattern/],
  ];
  for (const [pattern, says] of refused)
    test(`${pattern.slice(0, 30)} is refused`, () => assert.match(patternFault(pattern) ?? "", says));

  const literals: readonly (readonly [pattern: string, length: number])[] = [
    ["/blog/(\\d+)", 6],
    ["/a/b", 4],
    ["/(x|y)/z", 3],
    ["/a|/b", 0],
    ["/ab?c", 3],
    ["/ab*c+", 3],
    ["/\\d\\.html", 6],
    ["/[abc]/d{2}e", 4],
  ];
  for (const [pattern, length] of literals)
    test(`${pattern} has ${length} characters that stand for themselves`, () =>
      assert.equal(literalLength(pattern), length));

  const heads: readonly (readonly [pattern: string, head: string])[] = [
    ["/blog/(\\d+)", "/blog/"],
    ["^/a\\.b/c", "/a.b/c"],
    ["/ab?c", "/a"],
    ["/ab+c", "/ab"],
    ["/a|/b", ""],
    ["/(a|b)/c", "/"],
    ["/a\\d", "/a"],
    ["/a{2}", "/"],
    ["/x[|]y", "/x"],
  ];
  for (const [pattern, head] of heads)
    test(`${pattern} begins with “${head}”`, () => assert.equal(literalHead(pattern), head));

  test("count their groups, named and plain ones, and not those that capture nothing", () => {
    assert.equal(patternGroups("/(a)(?P<b>b)(?:c)"), 2);
    assert.equal(captureCount("/*/*", "wildcard", patternGroups), 2);
    assert.equal(captureCount("/a", "prefix", patternGroups), 1);
    assert.equal(captureCount("/a", "exact", patternGroups), 0);
  });

  test("samples of an address are answered by it, of the usual kinds of pattern too", () => {
    for (const source of [
      "/(\\d{4})/(\\d\\d)/(.+)",
      "/(?:en|de)/([a-z-]+)",
      "/p/[^/]+",
      "/a(b|c)?d",
      "/item-(\\w+)\\.html",
    ]) {
      const compiled = compilePattern(source, false);
      assert.ok(compiled.ok);
      assert.ok(
        samplesOf(source, "pattern").some((sample) => compiled.pattern.match(sample)),
        `${source}: ${samplesOf(source, "pattern").join(" ")}`,
      );
    }
    assert.deepEqual(samplesOf("/a/*", "wildcard")[0], "/a/x");
    assert.deepEqual(samplesOf("/a/", "exact"), ["/a"]);
  });
});

describe("addresses and how they match", () => {
  const faults: readonly (readonly [
    address: string,
    match: "exact" | "prefix" | "wildcard",
    says: RegExp | undefined,
  ])[] = [
    ["/ok", "exact", undefined],
    ["/a/*", "wildcard", undefined],
    ["/a", "wildcard", /has a \*/],
    [`/${"*/".repeat(10)}`, "wildcard", /at most 9/],
    ["/a/../b", "prefix", /\.\. segments/],
    ["/a%2e%2e/b", "prefix", undefined],
    ["/%2e%2e/b", "exact", /\.\. segments/],
    ["/a%0d%0ab", "exact", /control character/],
  ];
  for (const [address, match, says] of faults)
    test(`${match} ${address} ${says ? "is refused" : "is fine"}`, () => {
      const fault = addressFault(address, match);
      if (says) assert.match(fault ?? "", says);
      else assert.equal(fault, undefined);
    });

  test("the stored key tells an exact address from all below it", () => {
    assert.equal(routeKey("/Old/", false), "/Old");
    assert.equal(routeKey("/Old/", true, "prefix"), "prefix:/old");
    assert.deepEqual(readRouteKey("wildcard:/a/*"), { match: "wildcard", key: "/a/*" });
    assert.deepEqual(readRouteKey("/a:b"), { match: "exact", key: "/a:b" });
    assert.deepEqual(readRouteKey(routeKey("/(\\d+):x", true, "pattern")), {
      match: "pattern",
      key: "/(\\d+):x",
    });
  });
});

describe("captures in a destination", () => {
  const faults: readonly (readonly [destination: string, available: number, says: RegExp | undefined])[] = [
    ["/new/$1", 1, undefined],
    ["/new/$2", 1, /no \$2.*one capture/],
    ["/new/$1", 0, /exact address has no captures/],
    ["/costs-$", 0, undefined],
    ["https://shop.example/$1?id=$2", 2, undefined],
    ["https://shop.example$1", 1, /chooses? whose site|choose whose site/],
    ["https://$1/", 1, /choose whose site/],
    ["https://$1.example/", 1, /choose whose site/],
    ["https://a$1.shop.example/", 1, /choose whose site/],
    ["https://$1.co.uk/", 1, /choose whose site/],
    ["https://www.$1.com.au/x", 1, /choose whose site/],
    ["https://$1.shop.co.uk/", 1, undefined],
    ["https://$1.shop.example/", 1, undefined],
  ];
  for (const [destination, available, says] of faults)
    test(`${destination} with ${available} ${says ? "is refused" : "is fine"}`, () => {
      const fault = captureFault(destination, available);
      if (says) assert.match(fault ?? "", says);
      else assert.equal(fault, undefined);
    });

  test("a reader's path never becomes another host's address", () => {
    assert.equal(withCaptures("/$1", ["/evil.example/x"]), "/evil.example/x");
    assert.equal(withCaptures("/$1", ["//evil.example/x"]), "/evil.example/x");
    assert.equal(withCaptures("/$1", ["\\evil.example"]), "/evil.example");
    assert.equal(withCaptures("https://$1.shop.example/", ["evil.example/"]), undefined);
    assert.equal(withCaptures("https://$1.shop.example/", ["de"]), "https://de.shop.example/");
    assert.ok(capturesHost("https://$1.shop.example/"));
    fc.assert(
      fc.property(
        fc.string({ unit: "binary" }),
        fc.constantFrom("/$1", "/a$1", "https://s.example/$1"),
        (capture, to) => {
          const key = pathKey(`/${capture}`).slice(1);
          const end = withCaptures(to, [key])!;
          assert.equal(
            new URL(end, "https://own.example").host,
            to.startsWith("/") ? "own.example" : "s.example",
          );
        },
      ),
    );
  });
});
