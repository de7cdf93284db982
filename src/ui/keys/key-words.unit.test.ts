import assert from "node:assert/strict";
import { test } from "node:test";
import { keysOf } from "./key-words.ts";

test("a screen's own keys stand in front of those that are everywhere", () => {
  const titles = (screen: string) => keysOf(screen).map(({ title }) => title);
  assert.deepEqual(titles("routes"), ["On this screen", "Everywhere"]);
  assert.deepEqual(titles("pages/17"), ["On this screen", "Everywhere"]);
  assert.deepEqual(titles("pages"), ["Everywhere"]);
  assert.ok(keysOf("pages/17")[0]!.keys.some(({ keys }) => keys.includes("Ctrl K")));
  assert.ok(!keysOf("routes")[0]!.keys.some(({ keys }) => keys.includes("Ctrl K")));
});
