import assert from "node:assert/strict";
import { test } from "node:test";
import { setTimeout as rest } from "node:timers/promises";
import { inTime } from "./in-time.ts";

test("steps are waited for side by side, and nothing is told of those that end", async () => {
  const told: string[] = [];
  const done: string[] = [];
  const step = (name: string, ms: number) => rest(ms).then(() => void done.push(name));
  await inTime({ slow: step("slow", 20), quick: step("quick", 1) }, 60_000, (said) => told.push(said));
  assert.deepEqual([done, told], [["quick", "slow"], []]);
});

test("one that never ends is told of by its name and left behind", async () => {
  const told: string[] = [];
  const never = new Promise<void>(() => undefined);
  await inTime({ "the copying of clicks": never, quick: rest(1) }, 30, (said) => told.push(said));
  assert.equal(told.length, 1);
  assert.match(told[0]!, /the copying of clicks/);
});

test("one that fails, fails the end", async () => {
  const broken = Promise.reject(new Error("the disk is gone"));
  await assert.rejects(
    inTime({ broken, never: new Promise(() => undefined) }, 60_000, () => undefined),
    /the disk is gone/,
  );
});
