import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { mistypings } from "./mistypings.ts";
import { mistakable, spoken } from "./spoken.ts";

describe("how an address is said aloud", () => {
  const cases: readonly (readonly [address: string, said: string])[] = [
    ["http://lntn.localhost:4601/dob", "L N T N dot localhost slash dob"],
    ["https://gdn.example/", "G D N dot example"],
    ["https://garden.example/to/red-torch", "garden dot example slash to slash red hyphen torch"],
    ["/13mm", "slash one three M M"],
    ["/a_b~c", "slash A underscore B tilde C"],
  ];
  for (const [address, said] of cases) test(address, () => assert.equal(spoken(address), said));
});

describe("what may be misheard or misread", () => {
  for (const slug of ["dob8", "a--b", "red_torch", "aaargh", "l1sten"])
    test(slug, () => assert.notEqual(mistakable(slug), undefined));
  for (const slug of ["dob", "red-torch", "thirteen", "8-inch"])
    test(`nothing of ${slug}`, () => assert.equal(mistakable(slug), undefined));
});

describe("spellings that people type instead", () => {
  const of = (slug: string, taken: string[] = []): string[] =>
    mistypings(slug, (one) => taken.includes(one)).map((one) => one.slug);

  test("come with hyphens left out, numbers as digits, singular and plural", () => {
    assert.ok(of("red-torch").includes("redtorch"));
    assert.ok(of("thirteen").includes("13"));
    assert.ok(of("8-inch").includes("eight-inch"));
    assert.ok(of("lamps").includes("lamp"));
    assert.ok(of("lamp").includes("lamps"));
    assert.ok(of("barlow").length > 0);
  });

  test("are never the slug itself, never taken, each once, each with a reason", () => {
    for (const slug of ["red-torch", "thirteen", "telescope", "colour", "glass"]) {
      const all = mistypings(slug, (one) => one === "redtorch");
      assert.ok(all.every((one) => one.slug !== slug && one.slug !== "redtorch" && one.reason !== ""));
      assert.equal(new Set(all.map((one) => one.slug)).size, all.length);
    }
  });
});
