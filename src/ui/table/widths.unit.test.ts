import assert from "node:assert/strict";
import { test } from "node:test";
import { MIN_PX, MAX_PX, readWidths, withoutWidth, writeWidths } from "./widths.ts";

test("widths are read as they were written", () => {
  const widths = { page: 120, destination: 333 };
  assert.deepEqual(readWidths(writeWidths(widths)), widths);
  assert.equal(writeWidths({ page: 120.6 }), "page:121");
});

test("what is none is left out, and none goes beyond its bounds", () => {
  assert.deepEqual(readWidths(""), {});
  assert.deepEqual(readWidths("page,rel:x,:20,host:-5,tags:99999"), {});
  assert.deepEqual(readWidths("page:1,rel:9999"), { page: MIN_PX, rel: MAX_PX });
});

test("one column gives its width back", () => {
  assert.deepEqual(withoutWidth({ page: 120, rel: 90 }, "page"), { rel: 90 });
  assert.deepEqual(withoutWidth({ rel: 90 }, "page"), { rel: 90 });
});
