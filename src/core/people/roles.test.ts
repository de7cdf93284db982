import assert from "node:assert/strict";
import { describe, test } from "node:test";
import fc from "fast-check";
import type { Actor } from "./actor.ts";
import { ROLES, type Role } from "./choices.ts";
import { ofToken, onSite, reaches, roleOn } from "./roles.ts";

const role = fc.constantFrom(...ROLES);
const actors = fc.record({
  name: fc.constant("Ida"),
  role: fc.option(role),
  sites: fc.dictionary(fc.constantFrom("1", "2", "3"), role),
});

describe("what somebody may do on a site", () => {
  const cases: readonly (readonly [
    says: string,
    actor: Omit<Actor, "name">,
    on: string,
    may: Role | null,
  ])[] = [
    ["what the site says", { role: null, sites: { "1": "editor" } }, "1", "editor"],
    ["nothing where neither says anything", { role: null, sites: { "1": "owner" } }, "2", null],
    ["what holds everywhere", { role: "reader" }, "7", "reader"],
    ["the higher of the two", { role: "reader", sites: { "1": "owner" } }, "1", "owner"],
    ["the higher of the two, the other way", { role: "owner", sites: { "1": "reader" } }, "1", "owner"],
  ];
  for (const [says, actor, on, may] of cases)
    test(says, () => assert.equal(roleOn({ name: "Ida", ...actor }, on), may));

  test("nobody without a role reaches anything; an owner everything", () => {
    for (const needed of ROLES) {
      assert.equal(reaches(null, needed), false);
      assert.equal(reaches("owner", needed), true);
    }
  });

  test("as they act there, they carry nothing of other sites", () => {
    assert.deepEqual(onSite({ name: "Ida", role: null, sites: { "1": "editor", "2": "owner" } }, "1"), {
      name: "Ida",
      role: "editor",
    });
  });
});

describe("a person's token", () => {
  test("may never do more than its person, nor more than its role, and nothing on sites that it does not name", () => {
    fc.assert(
      fc.property(
        actors,
        role,
        fc.option(fc.array(fc.constantFrom("1", "2", "3", "4"))),
        fc.constantFrom("1", "2", "3", "4"),
        (person, most, sites, on) => {
          const may = roleOn({ name: "t", ...ofToken(person, { role: most, sites }) }, on);
          const theirs = roleOn(person, on);
          if (may !== null) assert.ok(reaches(theirs, may) && reaches(most, may));
          if (sites && !sites.includes(on)) assert.equal(may, null);
          else if (theirs) assert.equal(may, reaches(theirs, most) ? most : theirs);
        },
      ),
    );
  });
});
