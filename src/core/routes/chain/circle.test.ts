import assert from "node:assert/strict";
import { describe, test } from "node:test";
import fc from "fast-check";
import { adviseRoute, type RouteSurroundings } from "../advise.ts";
import { lintRoutes } from "../lint.ts";
import { routeKey } from "../match/address-form.ts";
import { withCaptures } from "../match/captures.ts";
import { draftTable } from "../match/draft-table.ts";
import type { MatchKind } from "../match/match-kind.ts";
import { MAX_SUSPECTS, suspects } from "../match/suspects.ts";
import { circleFrom } from "./circle.ts";
import { leadsBack } from "./leads-back.ts";

const NOBODY: RouteSurroundings = {
  hosts: ["own.example", "sh.example"],
  primary: "own.example",
  absolute: (path) => `https://own.example${path}`,
  answerAt: () => ({ by: "miss", rule: "help", status: 404, destination: null }),
  claimAt: () => undefined,
  pageAt: () => undefined,
};
const draft = (match: MatchKind, address: string, destination: string) => ({
  host: null,
  match,
  addresses: [address],
  caseInsensitive: false,
  destination,
  replacesPage: false,
});
const linted = (match: MatchKind, address: string, destination: string) => [
  {
    id: "1",
    kind: "redirect" as const,
    host: null,
    match,
    address,
    keys: [routeKey(address, false, match)],
    destination,
  },
];
const SITE = { hosts: NOBODY.hosts, primary: NOBODY.primary, pageAt: () => undefined, hasFile: () => false };

describe("a destination that leads back", () => {
  const cases: readonly (readonly [destination: string, host: string | null, key: string, back: boolean])[] =
    [
      ["/c/c", "own.example", "/c/c", true],
      ["/c/c?from=old#part", "own.example", "/c/c", true],
      ["/c/%63", null, "/c/c", true],
      ["/c/c/", "own.example", "/c/c", true],
      ["/c/c", "sh.example", "/c/c", false],
      ["https://sh.example:4601/c", "sh.example", "/c", true],
      ["https://own.example/c", null, "/c", true],
      ["https://shop.example/?to=own.example/c", "own.example", "/c", false],
      ["https://own.example.shop.example/c", "own.example", "/c", false],
      ["/C", "own.example", "/c", false],
    ];
  for (const [destination, host, key, back] of cases)
    test(`${key} on ${host} to ${destination}: ${back}`, () =>
      assert.equal(leadsBack(destination, host, key, "own.example"), back));
});

describe("routes that come round at their edges", () => {
  const aside: readonly (readonly [match: MatchKind, address: string, destination: string, such: string])[] =
    [
      ["wildcard", "/*/reviews", "/reviews/$1", "/reviews/reviews"],
      ["pattern", "/(\\w+)/c", "/c/$1", "/c/c"],
      ["pattern", "/([a-z]+)/(\\d+)?/?tag", "/tag/$1", "/tag/tag"],
      ["wildcard", "/ab*", "/$1ab", "/ab"],
      ["wildcard", "/*.html", "/.html$1", "/.html"],
      ["wildcard", "/*/en/*", "/en/$1/$2", "/en/en/en"],
      ["pattern", "/(.+)/amp", "https://own.example/amp/$1", "/amp/amp"],
    ];
  for (const [match, address, destination, such] of aside)
    test(`${address} to ${destination} stands aside, and says for which`, () => {
      const said = adviseRoute(draft(match, address, destination), NOBODY).filter(
        ({ code }) => code === "loop",
      );
      assert.deepEqual(
        said.map(({ severity }) => severity),
        ["warning"],
        JSON.stringify(said),
      );
      const found = lintRoutes(linted(match, address, destination), SITE).filter(
        ({ code }) => code === "loop",
      );
      assert.equal(found[0]?.severity, "warning");
      for (const { message } of [said[0]!, found[0]!]) {
        const example = / such as (\S+?):/.exec(message)![1]!;
        const captures = draftTable([address], match, false).find("", example)[0]!.captures;
        assert.ok(leadsBack(withCaptures(destination, captures)!, null, example, "own.example"), example);
      }
      assert.ok(suspects(address, match, destination).includes(such), such);
    });

  const round: readonly (readonly [match: MatchKind, address: string, destination: string])[] = [
    ["prefix", "/old", "/old/new/$1"],
    ["wildcard", "/*/x", "/$1/y/x"],
    ["pattern", "/(\\w+)/(\\w+)", "/$2/$1"],
    ["pattern", "/a/(.*)", "/a/b/$1"],
  ];
  for (const [match, address, destination] of round)
    test(`${address} to ${destination} goes round and is refused`, () => {
      const said = adviseRoute(draft(match, address, destination), NOBODY);
      assert.deepEqual(
        said.map(({ code, severity }) => `${severity} ${code}`),
        ["error loop"],
      );
      const [found] = lintRoutes(linted(match, address, destination), SITE);
      assert.equal(found!.severity, "error");
    });

  test("one that leads all it answers to itself is refused", () => {
    const [said] = adviseRoute(draft("wildcard", "/shop-*", "/shop-$1"), NOBODY);
    assert.deepEqual([said!.code, said!.severity], ["loop", "error"]);
  });

  for (const [match, address, destination] of [
    ["wildcard", "/blog/*", "/notes/$1"],
    ["prefix", "/old", "/new/$1"],
    ["pattern", "/(\\d{4})/(.+)", "/archive/$1/$2"],
    ["wildcard", "/*/reviews", "https://shop.example/reviews/$1"],
  ] as const)
    test(`${address} to ${destination} is fine`, () => {
      assert.deepEqual(adviseRoute(draft(match, address, destination), NOBODY), []);
      assert.deepEqual(lintRoutes(linted(match, address, destination), SITE), []);
    });

  test("circles through two routes with captures are found in the table", () => {
    const routes = [
      ...linted("wildcard", "/en/*", "/$1/en"),
      { ...linted("wildcard", "/*/en", "/en/$1")[0]!, id: "2" },
    ];
    const found = lintRoutes(routes, SITE).filter(({ code }) => code === "loop");
    assert.ok(found.length > 0 && found.every(({ severity }) => severity === "error"));
  });

  test("no short address that comes back to itself is missed", () => {
    const piece = fc.constantFrom("", "/a", "/b", "/a/b", "-a");
    const every = (function* all(left: number): Generator<string> {
      yield "";
      if (left > 0)
        for (const rest of all(left - 1)) for (const word of ["a", "b", "x"]) yield `/${word}${rest}`;
    })(4);
    const paths = [...every].filter(Boolean);
    fc.assert(
      fc.property(piece, piece, piece, piece, (before, after, first, last) => {
        const [address, destination] = [`${before}/*${after}`, `${first}/$1${last}`];
        const table = draftTable([address], "wildcard", false);
        const isAside = (key: string): boolean => {
          const captures = table.find("", key)[0]?.captures;
          const to = captures && withCaptures(destination, captures);
          return to !== undefined && leadsBack(to, null, key, "own.example");
        };
        fc.pre(paths.some(isAside));
        assert.ok(suspects(address, "wildcard", destination).some(isAside), `${address} to ${destination}`);
      }),
      { numRuns: 400 },
    );
  });

  test("no more is tried of a route than is said", () => {
    for (const match of ["prefix", "wildcard", "pattern"] as const)
      assert.ok(suspects("/*/a/*/b/c/d/e", match, "/$1/f/g/h/$2").length <= MAX_SUSPECTS);
  });

  test("a way is followed until it ends, leaves, stands aside or has taken twenty hops", () => {
    const way = (step: Parameters<typeof circleFrom>[2]) =>
      circleFrom({ host: null, key: "/1" }, ["own.example"], step)?.kind;
    assert.equal(
      way(() => undefined),
      undefined,
    );
    assert.equal(
      way(() => ({ to: "https://shop.example/" })),
      undefined,
    );
    assert.equal(
      way((_, key) => (key === "/1" ? { to: "/2" } : "stands aside")),
      "stands aside",
    );
    assert.equal(
      way(() => ({ to: "/1" })),
      "round",
    );
    assert.equal(
      way((_, key) => ({ to: `/${Number(key.slice(1)) + 1}` })),
      "round",
    );
  });
});
