import assert from "node:assert/strict";
import { test } from "node:test";
import { readCookie } from "./cookies.ts";

test("a value is found by its name, whatever stands beside it", () => {
  const cookies = "other=1; maprope_widths_ledger=page%3A120%2Crel%3A90; maprope_zone=UTC";
  assert.equal(readCookie("widths_ledger", cookies), "page:120,rel:90");
  assert.equal(readCookie("zone", cookies), "UTC");
  assert.equal(readCookie("widths", cookies), "");
});

test("what is not there, or not written as it should be, is nothing", () => {
  assert.equal(readCookie("zone", ""), "");
  assert.equal(readCookie("zone", "maprope_zone=%E0%A4"), "");
  assert.equal(readCookie("zone", "maprope_zone="), "");
});
