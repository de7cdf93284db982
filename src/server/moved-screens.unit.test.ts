import assert from "node:assert/strict";
import { test } from "node:test";
import { movedScreen } from "./moved-screens.ts";

for (const [asked, now] of [
  ["/low-lantern/write", "/low-lantern/pages"],
  ["/low-lantern/write/6?view=preview&x=/write", "/low-lantern/pages/6?view=preview&x=/write"],
  ["/low-lantern/mends?code=loop", "/low-lantern/routes/findings?code=loop"],
  ["/low-lantern/earlier-rules/", "/low-lantern/rules/earlier"],
  ["/low-lantern/routes", undefined],
  ["/low-lantern/mends/6", undefined],
  ["/low-lantern/constructor", undefined],
  ["//elsewhere.example/write", undefined],
  ["/api/v1/write", undefined],
  ["/api/write", undefined],
] as const)
  test(`${asked} ${now ? `is now ${now}` : "has not moved"}`, () => assert.equal(movedScreen(asked), now));
