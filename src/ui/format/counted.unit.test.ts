import assert from "node:assert/strict";
import { test } from "node:test";
import { counted } from "./counted.ts";

test("what is counted has the form that its number asks for, none included", () => {
  const said = [0, 1, 2, 21, 1_001].map((number) => counted(number, "row", "rows"));
  assert.deepEqual(said, ["0 rows", "1 row", "2 rows", "21 rows", "1,001 rows"]);
});
