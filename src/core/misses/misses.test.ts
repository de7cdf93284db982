import { Random } from "../../../tests/oracles/random.ts";
import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { closestAddresses, closestMatch } from "./closest.ts";
import { isProbe } from "./probe.ts";
import { proposePatterns } from "./propose-patterns.ts";

describe("what was meant by a missed address", () => {
  const known = ["/calendar/november", "/resources", "/reviews/harbour-eight-inch", "/dob", "/dobs"].map(
    (address) => ({
      address,
      title: "",
    }),
  );

  test("is told with the reason", () => {
    const [best] = closestAddresses("/calender/november", known, 3);
    assert.deepEqual([best!.address, best!.reason], ["/calendar/november", "one letter differs"]);
    const [words] = closestAddresses("/tests/harbour-eight", known, 3);
    assert.deepEqual(
      [words!.address, words!.reason],
      ["/reviews/harbour-eight-inch", "has “harbour”, “eight” in it"],
    );
  });

  test("is the one match only when it is good and no other is nearly as good", () => {
    assert.equal(closestMatch(closestAddresses("/resource", known, 2))?.address, "/resources");
    assert.equal(closestMatch(closestAddresses("/dobb", known, 2)), undefined, "/dob and /dobs are as close");
    assert.equal(
      closestMatch(closestAddresses("/tests/harbour-eight", known, 2)),
      undefined,
      "words alone are a guess",
    );
    assert.equal(closestMatch([]), undefined);
  });
});

describe("slips of the finger", () => {
  const words =
    "lamp dob moth chair print boots tea almanack thirteen dark-sky eyepiece harbour mount red-torch star-atlas".split(
      " ",
    );
  const pages =
    "/about /resources /first-nights /first-nights/warm-clothes /calendar/november /calendar/december /reviews/eight-inch /instruments/dobsonian".split(
      " ",
    );
  const addresses = [
    ...pages,
    ...words.map((word) => `/to/${word}`),
    ...words.slice(0, 5).map((word) => `/${word}`),
  ];
  const known = addresses.map((address) => ({ address, title: "" }));
  const random = new Random(3);
  const letter = (): string => "abcdefghijklmnopqrstuvwxyz"[random.below(26)]!;

  function slipped(address: string): string {
    const at = 1 + random.below(address.length - 1);
    const [before, behind] = [address.slice(0, at), address.slice(at)];
    const kind = random.below(4);
    if (kind === 0) return before + behind.slice(1);
    if (kind === 1) return before + letter() + behind;
    if (kind === 2 || behind.length < 2) return before + letter() + behind.slice(1);
    return before + behind[1]! + behind[0]! + behind.slice(2);
  }

  function foundFirst(slips: number): number {
    let found = 0;
    for (let n = 0; n < 800; n += 1) {
      const meant = random.one(addresses);
      const missed = Array.from({ length: slips }).reduce<string>((address) => slipped(address), meant);
      if (closestAddresses(missed, known, 1)[0]?.address === meant) found += 1;
    }
    return found / 800;
  }

  test("one of them leaves the address that was meant first, nine times of ten", () =>
    assert.ok(foundFirst(1) >= 0.9));
  test("two of them, seven times of ten", () => assert.ok(foundFirst(2) >= 0.7));

  test("two letters in each other’s place are one, in the shortest addresses too", () => {
    for (const [missed, meant] of [
      ["/odb", "/dob"],
      ["/dbo", "/dob"],
      ["/mtoh", "/moth"],
      ["/lmap", "/lamp"],
    ] as const)
      assert.equal(closestMatch(closestAddresses(missed, known, 2))?.address, meant);
  });

  test("several spellings of one are no doubt", () => {
    const spelled = ["/dob", "/dobs", "/dobz"].map((address) => ({ address, title: "", of: "1" }));
    assert.equal(closestMatch(closestAddresses("/dobb", spelled, 2))?.address, "/dob");
    assert.equal(closestAddresses("/dobb", spelled, 3).length, 1);
  });
});

describe("scanners", () => {
  for (const key of [
    "/wp-login.php",
    "/.env",
    "/.git/config",
    "/admin/config.ini",
    "/cgi-bin/x",
    "/a%00",
    "/x%2e%2e/y",
    "/vendor/phpunit/x",
    "/backup.tar.gz",
    "/api/union%20select",
  ])
    test(`ask for ${key}`, () => assert.ok(isProbe(key)));
  for (const key of [
    "/almanack",
    "/therteen",
    "/reviews/harbour-eight",
    "/environment",
    "/notes/2019.html",
    "/php-for-beginners",
    "/gitarre",
    "/robots.txt",
  ])
    test(`do not ask for ${key}`, () => assert.ok(!isProbe(key)));
});

describe("patterns proposed for many misses", () => {
  const miss = (address: string, times = 1) => ({ host: "own.example", address, times });
  const known = ["/first-nights", "/first-nights/warm", "/first-nights/dark", "/print"];

  test("lead below the parent where most of them stand now", () => {
    const [one] = proposePatterns([miss("/blog/warm", 5), miss("/blog/dark", 2), miss("/blog/other")], known);
    assert.deepEqual(
      [one!.match, one!.address, one!.destination, one!.times, one!.answers.length],
      ["wildcard", "/blog/*", "/first-nights/$1", 8, 3],
    );
    assert.match(one!.reason, /2 of 3 stand below \/first-nights now/);
  });

  test("take addresses together that differ only in their numbers", () => {
    const [one] = proposePatterns(
      [miss("/issue-12.txt"), miss("/issue-7.txt"), miss("/issue-103.txt")],
      known,
    );
    assert.deepEqual([one!.match, one!.address, one!.destination], ["pattern", "/issue-(\\d+)\\.txt", "/"]);
    assert.ok(new RegExp(`^${one!.address}$`).test("/issue-7.txt"));
  });

  test("leave few, scanners, and those of other hosts apart", () => {
    assert.deepEqual(proposePatterns([miss("/blog/warm"), miss("/blog/dark")], known), []);
    assert.deepEqual(
      proposePatterns(
        ["a", "b", "c"].map((name) => miss(`/print/${name}.php`)),
        known,
      ),
      [],
    );
    const elsewhere = { host: "other.example", address: "/blog/x", times: 1 };
    assert.deepEqual(proposePatterns([miss("/blog/warm"), miss("/blog/dark"), elsewhere], known), []);
  });
});
