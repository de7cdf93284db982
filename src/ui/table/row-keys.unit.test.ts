import assert from "node:assert/strict";
import { test } from "node:test";
import { rowAfter, rowKey } from "./row-keys.ts";

const from = (at: number, key: string, rows = 50): number => rowAfter(at, rowKey(key), rows);

test("arrows and letters walk a row, pages walk twenty, Home and End go to the ends", () => {
  assert.deepEqual([from(5, "ArrowDown"), from(5, "j"), from(5, "ArrowUp"), from(5, "k")], [6, 6, 4, 4]);
  assert.deepEqual([from(5, "PageDown"), from(45, "PageUp")], [25, 25]);
  assert.deepEqual([from(5, "Home"), from(5, "End")], [0, 49]);
});

test("nobody walks off the table, however short it is", () => {
  assert.deepEqual([from(0, "ArrowUp"), from(49, "ArrowDown"), from(3, "PageUp")], [0, 49, 0]);
  assert.deepEqual([from(0, "ArrowDown", 0), from(0, "End", 0)], [0, 0]);
});

test("Space marks; every other key is the owner’s", () => {
  assert.equal(rowKey(" "), "mark");
  for (const key of ["Enter", "s", "Escape", "Tab"]) assert.equal(rowKey(key), undefined);
});
