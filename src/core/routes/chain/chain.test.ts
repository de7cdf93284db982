import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { followOwn } from "./follow.ts";
import { inEffect, type ScheduledRoute } from "./in-effect.ts";
import type { OwnAnswer, OwnSite } from "./own-site.ts";
import { parametersFault, withParameters } from "./parameters.ts";
import { judge, type TraceHop } from "../../trace/trace.ts";

const site = (answers: Record<string, Partial<OwnAnswer>>): OwnSite => ({
  hosts: ["own.example", "short.example"],
  primary: "own.example",
  absolute: (path) => `https://own.example${path}`,
  answerAt: (host, key) =>
    ({
      by: "miss",
      status: 404,
      destination: null,
      rule: "help",
      ...(answers[key] ? { by: "route", status: 301, query: "drop", id: key } : {}),
      ...answers[key],
      ...(host === "short.example" && key === "/page" ? { by: "miss", status: 404 } : {}),
    }) as OwnAnswer,
});

describe("following an address through our own site", () => {
  const own = site({
    "/old": { destination: "/new" },
    "/new": { destination: "https://shop.example/x?own=1", query: "merge" },
    "/asked": { destination: "/new", query: "forward" },
    "/gone": { destination: null, status: 410 },
    "/page": { by: "page", id: "7", title: "Page", status: 200 },
    "/to-page": { destination: "https://short.example/page" },
    "/east": { destination: "/west" },
    "/west": { destination: "/east" },
  });
  const cases: readonly (readonly [
    address: string,
    hops: string[],
    next: string | null,
    endless?: string,
  ])[] = [
    ["/old", ["https://own.example/old 301", "https://own.example/new 301"], "https://shop.example/x?own=1"],
    [
      "/asked?own=2&b=3",
      ["https://own.example/asked?own=2&b=3 301", "https://own.example/new?own=2&b=3 301"],
      "https://shop.example/x?own=1&b=3",
    ],
    ["/gone", ["https://own.example/gone 410"], null],
    ["/page", ["https://own.example/page 200"], null],
    ["/to-page", ["https://own.example/to-page 301", "https://short.example/page 404"], null],
    ["/nothing", ["https://own.example/nothing 404"], null],
    ["/east", ["https://own.example/east 301", "https://own.example/west 301"], null, "loop"],
    ["https://shop.example/", [], "https://shop.example/"],
  ];
  for (const [address, hops, next, endless] of cases)
    test(address, () => {
      const way = followOwn(address, own);
      assert.deepEqual(
        [way.hops.map((hop) => `${hop.address} ${hop.answer.status}`), way.next, way.endless],
        [hops, next, endless],
      );
    });

  test("a way without end and without a circle is broken off", () => {
    const endless: OwnSite = {
      ...own,
      answerAt: (_host, key) => ({
        by: "route",
        id: "1",
        status: 301,
        query: "drop",
        destination: `${key}x`,
      }),
    };
    assert.equal(followOwn("/a", endless).endless, "too-long");
  });
});

describe("a route in its time", () => {
  const route: ScheduledRoute = {
    status: 302,
    destination: "/during/$1",
    from: 100,
    until: 200,
    afterEnd: "nothing",
    endDestination: null,
  };
  const cases: readonly (readonly [
    says: string,
    more: Partial<ScheduledRoute>,
    now: number,
    answer: string,
  ])[] = [
    ["nothing before its beginning", {}, 99, "none"],
    ["its destination from the first moment", {}, 100, "302 /during/a"],
    ["its destination up to the last", {}, 199, "302 /during/a"],
    ["nothing after its end", {}, 200, "none"],
    ["gone after its end, when it says so", { afterEnd: "gone" }, 200, "410 null"],
    [
      "another destination after its end",
      { afterEnd: "destination", endDestination: "/after" },
      5_000,
      "302 /after",
    ],
    ["gone while it is gone", { destination: null, status: 410 }, 150, "410 null"],
  ];
  for (const [says, more, now, answer] of cases)
    test(`answers ${says}`, () => {
      const effect = inEffect({ ...route, ...more }, now, ["a"]);
      assert.equal(effect ? `${effect.status} ${effect.destination}` : "none", answer);
    });
});

describe("fixed parameters", () => {
  const cases: readonly (readonly [destination: string, parameters: string, result: string])[] = [
    ["/a", "", "/a"],
    ["/a", "from=booklet", "/a?from=booklet"],
    ["/a?own=1", "from=booklet&n=2", "/a?own=1&from=booklet&n=2"],
    ["/a?", "from=booklet", "/a?from=booklet"],
    ["/a?own=1#part", "b=c", "/a?own=1&b=c#part"],
    ["/a", "name=Zoë", "/a?name=Zo%C3%AB"],
  ];
  for (const [destination, parameters, result] of cases)
    test(`${destination} with ${parameters || "none"}`, () =>
      assert.equal(withParameters(destination, parameters), result));

  test("are name=value pairs", () => {
    assert.equal(parametersFault("a=1&b"), undefined);
    assert.match(parametersFault("a=1 2") ?? "", /without spaces/);
    assert.match(parametersFault("a=1&&b=2") ?? "", /has a name/);
    assert.match(parametersFault("=1") ?? "", /has a name/);
  });
});

describe("the verdict of a trace", () => {
  const own = (status: number): TraceHop => ({
    address: `https://own.example/${status}`,
    status,
    by: "route",
    id: "1",
  });
  const out = (address: string, status: number | null, note?: string): TraceHop => ({
    address,
    status,
    by: "outside",
    note,
  });
  const cases: readonly (readonly [says: string, hops: TraceHop[], verdict: string, note: RegExp])[] = [
    [
      "a page",
      [{ address: "https://own.example/", status: 200, by: "page", note: "Front" }],
      "fine",
      /^Arrives\.$/,
    ],
    ["one redirect of ours", [own(301), out("https://shop.example/", 200)], "fine", /Arrives/],
    [
      "two redirects of ours",
      [own(301), own(302), out("https://shop.example/", 200)],
      "chain",
      /straight at the end/,
    ],
    ["not found", [own(301), out("https://shop.example/x", 404)], "not-found", /not found/],
    [
      "a not found that says 200",
      [out("https://shop.example/x", 200, "says 200, but its page is called “Not found”.")],
      "not-found",
      /says 200/,
    ],
    ["gone", [out("https://shop.example/x", 410)], "gone", /gone/],
    ["a failure", [out("https://shop.example/x", 503)], "failing", /failure/],
    [
      "nobody",
      [out("https://shop.example/x", null, "shop.example has no address.")],
      "unreachable",
      /has no address/,
    ],
    ["nothing at all", [], "refused", /no address/],
  ];
  for (const [says, hops, verdict, note] of cases)
    test(`of a way that ends at ${says}`, () => {
      const trace = judge("typed", hops, undefined);
      assert.equal(trace.verdict, verdict);
      assert.match(trace.note, note);
    });

  test("of a circle, which has no end", () => {
    const trace = judge("typed", [own(301)], "loop");
    assert.deepEqual([trace.verdict, trace.end], ["loop", null]);
  });

  test("sees what our own hops lose, and takes what arrives by another name for arrived", () => {
    const us = (address: string, status: number, by: TraceHop["by"] = "route"): TraceHop => ({
      address,
      status,
      by,
    });
    const lost = (...hops: TraceHop[]): string[] =>
      judge("typed", hops, undefined).tracking.flatMap(({ name, arrived }) => (arrived ? [] : [name]));
    const old = us("https://own.example/old?utm_source=letter&ref=A-17", 301);
    assert.deepEqual(lost(old, us("https://own.example/new", 200, "page")), ["utm_source", "ref"]);
    assert.deepEqual(lost(old, us("https://own.example/new?utm_source=letter&ref=A-17", 200, "page")), []);
    assert.deepEqual(lost(old, out("https://shop.example/?campaign=letter", 200)), ["ref"]);
    assert.deepEqual(
      lost(
        us("https://own.example/a", 302),
        us("https://own.example/b?partner=LL-2291", 301),
        us("https://own.example/c", 200, "page"),
      ),
      ["partner"],
    );
    assert.deepEqual(lost(us("https://own.example/page?utm_source=letter", 200, "page")), []);
    assert.equal(
      judge("typed", [old, us("https://own.example/new", 200, "page")], undefined).verdict,
      "lost-tracking",
    );
  });

  test("names the parameters that are lost, and where they were seen last", () => {
    const hops = [
      out("https://net.example/c/LL-2291/shop?sub=review&to=%2Fitem%2Flamp", 302),
      out("https://hop.example/?sub=review&id=LL-2291&path=/item/lamp", 302),
      out("https://shop.example/item/lamp?partner=LL-2291", 200),
    ];
    const trace = judge("typed", hops, undefined, ["LL-2291", "never there"]);
    assert.equal(trace.verdict, "lost-tracking");
    assert.deepEqual(
      trace.tracking.map(({ name, arrived, lastSeen }) => [name, arrived, lastSeen]),
      [
        ["sub", false, "https://hop.example/?sub=review&id=LL-2291&path=/item/lamp"],
        ["to", true, undefined],
        ["LL-2291", true, undefined],
      ],
    );
    assert.match(trace.note, /sub does not/);
  });
});
