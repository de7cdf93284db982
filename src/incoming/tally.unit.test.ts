import assert from "node:assert/strict";
import { test } from "node:test";
import { createTally, TIME_BOUNDS } from "./tally.ts";

test("answers are counted by kind, each in the first span that it fits in", () => {
  const tally = createTally(["page", "miss"]);
  for (const ms of [0.5, 0.51, 4, 9_000]) tally.add("page", 100, 100 + ms);
  const { page, miss } = tally.read();
  assert.equal(page.count, 4);
  assert.ok(Math.abs(page.sum - 9.00501) < 1e-9);
  const filled = page.spans.flatMap((count, span) => (count > 0 ? [[TIME_BOUNDS[span], count]] : []));
  assert.deepEqual(filled, [
    [0.0005, 1],
    [0.001, 1],
    [0.005, 1],
    [undefined, 1],
  ]);
  assert.equal(miss.count, 0);
});
