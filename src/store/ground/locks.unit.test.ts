import assert from "node:assert/strict";
import { test } from "node:test";
import { LOCKS } from "./locks.ts";

// PostgreSQL keeps locks of one number and locks of two apart (documentation, section 9.28.10).
const OF_A_SITE: ReadonlySet<string> = new Set(["labels", "ledger"]);

test("no two locks of an installation have one number", () => {
  for (const isOfSite of [false, true]) {
    const numbers = Object.entries(LOCKS).flatMap(([name, number]) =>
      OF_A_SITE.has(name) === isOfSite ? [number] : [],
    );
    assert.equal(new Set(numbers).size, numbers.length);
  }
});
