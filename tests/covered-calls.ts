import assert from "node:assert/strict";
import { readFileSync } from "node:fs";
import { test } from "node:test";
import { contract } from "../src/contract/contract.ts";

// Run behind the tests that call the API: each of them held what it was answered against the document
// (tests/support/documented.ts), and noted the call that answered well.
test("every call of the API was made, and answered as its document says", () => {
  const covered = new Set(readFileSync(process.env.COVERED_CALLS!, "utf8").trim().split("\n"));
  const calls = Object.entries(contract).flatMap(([subject, ofSubject]) =>
    Object.keys(ofSubject).map((name) => `${subject}.${name}`),
  );
  assert.deepEqual(
    calls.filter((name) => !covered.has(name)),
    [],
  );
});
