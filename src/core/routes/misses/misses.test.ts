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
