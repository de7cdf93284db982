import assert from "node:assert/strict";
import { describe, test } from "node:test";
import type { Route } from "../route.ts";
import { toApache } from "./apache.ts";
import { toNginx } from "./nginx.ts";
import { decodedPath, serverRules } from "./server-rules.ts";

let next = 1;
const route = (address: string, destination: string | null, more: Partial<Route> = {}): Route =>
  ({
    id: String(next++),
    kind: "redirect",
    host: null,
    match: "exact",
    address,
    aliases: [],
    destination,
    status: destination === null ? 410 : 301,
    query: "drop",
    parameters: "",
    notice: null,
    title: "",
    tags: [],
    robots: { noindex: false, nofollow: false },
    counted: true,
    enabled: true,
    replacesPage: false,
    validFrom: null,
    validUntil: null,
    afterEnd: "nothing",
    endDestination: null,
    inContent: "nowhere",
    contentPages: [],
    countedFrom: null,
    health: null,
    url: "",
    clicks: 0,
    lastClick: null,
    version: 1,
    createdAt: "",
    updatedAt: "",
    ...more,
  }) as Route;
const HOSTS = ["own.example", "sh.example"];
const rules = (...routes: Route[]) =>
  serverRules(routes, HOSTS, "own.example", (path) => `https://own.example${path}`);
const OPTIONS = { site: "Garden", listen: 8080, passes: ["/page"] };

describe("what another server can answer", () => {
  test("each route stands under each of its hosts, a path of ours written out on the others", () => {
    const { exact } = rules(route("/a", "/b"), route("/c", "/d", { host: "sh.example" }));
    assert.deepEqual(
      exact.map(({ host, path, destination }) => [host, path, destination]),
      [
        ["sh.example", "/c", "https://own.example/d"],
        ["own.example", "/a", "/b"],
        ["sh.example", "/a", "https://own.example/b"],
      ],
    );
  });

  const leftOut: readonly (readonly [says: RegExp, route: Route])[] = [
    [/notice page/, route("/a", "/b", { status: 200 })],
    [/schedule/, route("/a", "/b", { validUntil: "2030-01-01T00:00:00Z" })],
    [/schedule/, route("/a", "/b", { validFrom: "2030-01-01T00:00:00Z" })],
    [/merging/, route("/a", "https://s.example/?x=1", { query: "merge" })],
    [/merging/, route("/a", "https://s.example/", { query: "merge", parameters: "x=1" })],
    [/back to themselves/, route("/*/x", "/x/$1", { match: "wildcard" })],
    [/capture in the host/, route("/(\\w+)", "https://$1.s.example.com/", { match: "pattern" })],
    [/encoded slash/, route("/a%2Fb", "/b")],
    [/reserved/, route("/a%2Ab", "/b")],
  ];
  for (const [says, one] of leftOut)
    test(`${one.address} to ${one.destination} is left out: ${says.source}`, () => {
      const made = rules(one);
      assert.deepEqual([made.exact, made.patterns], [[], []]);
      assert.match(made.leftOut[0]!.reason, says);
      for (const text of [toNginx(made, OPTIONS), toApache(made, OPTIONS)])
        assert.match(text, /^# Left out: /m);
    });

  test("what is switched off is not there at all", () => {
    const made = rules(route("/off", "/x", { enabled: false }));
    assert.deepEqual([made.exact, made.leftOut], [[], []]);
  });

  test("patterns come longest literal part first, as the table has them", () => {
    const made = rules(
      route("/*", "/all/$1", { match: "wildcard", host: "own.example" }),
      route("/blog", "/notes/$1", { match: "prefix", host: "own.example" }),
      route("/blog/(\\d+)", "/n/$1", { match: "pattern", host: "own.example" }),
    );
    assert.deepEqual(
      made.patterns.map(({ source }) => source),
      ["/blog/(\\d+)", "/blog(?:/(.*))?", "/(.*)"],
    );
  });

  test("paths are compared decoded", () => {
    assert.equal(decodedPath("/caf%C3%A9"), "/café");
    assert.equal(decodedPath("/a%20b"), "/a b");
    for (const key of ["/a%2Fb", "/a%0Ab", "/a%3Bb", "/%FF"]) assert.equal(decodedPath(key), undefined);
  });
});

describe("an nginx configuration", () => {
  test("keeps addresses that differ in letter case apart, and the others in its hash", () => {
    const text = toNginx(
      rules(
        route("/Sky", "/a", { host: "own.example" }),
        route("/sky", "/b", { host: "own.example" }),
        route("/moon", "/c", { host: "own.example" }),
      ),
      OPTIONS,
    );
    assert.match(text, /"~\^own\\\\\.example\/Sky\\\\z" \d+;/);
    assert.match(text, /"own\.example\/moon" \d+;/);
  });

  test("writes quotes, backslashes and dollars so that they are themselves", () => {
    const text = toNginx(rules(route("/a", 'https://s.example/$x?q="\\', { host: "own.example" })), OPTIONS);
    assert.ok(text.includes('301 d - https://s.example/${maprope_dollar}x?q=\\"\\\\'));
  });

  test("passes pages by, and says its port and hosts", () => {
    const text = toNginx(rules(route("/*", "/x", { match: "wildcard" })), OPTIONS);
    assert.match(text, /"own\.example\/page" \d+;/);
    assert.match(text, /listen 8080;\n {2}server_name own\.example sh\.example;/);
  });
});

describe("an Apache configuration", () => {
  test("skips the rules of other hosts, counted as they are", () => {
    const text = toApache(
      rules(
        route("/a", "/b", { host: "own.example", query: "forward" }),
        route("/c", null, { host: "own.example" }),
      ),
      OPTIONS,
    );
    const lines = text.split("\n").map((line) => line.trim());
    const skip = lines.findIndex((line) => /^RewriteRule "\^" "-" \[S=\d+\]$/.test(line));
    const skipped = Number(/S=(\d+)/.exec(lines[skip]!)![1]);
    const end = lines.indexOf('Header always set X-Robots-Tag "noindex" env=maprope_n');
    assert.equal(lines.slice(skip + 1, end).filter((line) => line.startsWith("RewriteRule")).length, skipped);
  });

  test("escapes what a substitution would take for a back-reference", () => {
    const text = toApache(rules(route("/a", "https://s.example/%20$x", { host: "own.example" })), OPTIONS);
    assert.ok(text.includes('"https://s.example/\\%20\\$x" [R=301,L,NE,QSD]'));
    const captured = toApache(
      rules(route("/w/*", "/n/$1", { host: "own.example", match: "wildcard" })),
      OPTIONS,
    );
    assert.ok(captured.includes('"/n/%1" [R=301,L,NE,QSD]'));
  });

  test("robots, letter case and gone are flags of the rule", () => {
    const text = toApache(
      rules(
        route("/g", null, { host: "own.example", robots: { noindex: true, nofollow: false } }),
        route("/s", "/x", { kind: "short", host: "own.example" }),
      ),
      OPTIONS,
    );
    assert.match(text, /"\^\/g\/\*\$" "-" \[G,L,E=maprope_n:1\]/);
    assert.match(text, /"\^\/s\/\*\$" "\/x" \[R=301,L,NE,QSD,NC\]/);
  });
});
