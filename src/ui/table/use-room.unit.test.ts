import assert from "node:assert/strict";
import { test } from "node:test";
import { readRoom } from "./use-room.ts";

test("the room for rows is what the browser told, as far as a window can have it", () => {
  assert.deepEqual(readRoom("212 1080"), { abovePx: 212, windowPx: 1080 });
  assert.deepEqual(readRoom("0 9000"), { abovePx: 0, windowPx: 3000 });
});

test("what is no room is that of a usual window", () => {
  for (const told of ["", "much", "-5 800", "12", "1e3 800", "200 12345"])
    assert.deepEqual(readRoom(told), { abovePx: 240, windowPx: 800 }, told);
});
