import assert from "node:assert/strict";
import { test } from "node:test";
import { until } from "../../tests/support/ask.ts";
import { repeating } from "./repeating.ts";

test("work goes on turn by turn, with the rest that each turn asks for", async () => {
  let turns = 0;
  const work = repeating(
    {
      turn: async () => {
        turns += 1;
        return turns < 3 ? 1 : 60_000;
      },
      failure: "never",
      restMs: 1,
    },
    () => assert.fail("nothing failed"),
  );
  await until("three turns", () => turns === 3);
  await work.stop();
  assert.equal(turns, 3);
});

test("an outage is told once, and again only after it was over", async () => {
  const told: string[] = [];
  let turns = 0;
  const failing = [true, true, true, false, true, true];
  const work = repeating(
    {
      turn: async () => {
        turns += 1;
        if (failing[turns - 1]) throw new Error(`turn ${turns}`);
        return 1;
      },
      failure: "It failed.",
      restMs: 1,
    },
    (message, error) => told.push(`${message} ${(error as Error).message}`),
  );
  await until("six turns", () => turns >= 6);
  await work.stop();
  assert.deepEqual(told, ["It failed. turn 1", "It failed. turn 5"]);
});

test("stopping waits for the turn that runs, which learns of it, and no other begins", async () => {
  let began = 0;
  let ended = 0;
  const work = repeating(
    {
      turn: async (signal) => {
        began += 1;
        await new Promise((resolve) => signal.addEventListener("abort", resolve));
        ended += 1;
        return 1;
      },
      failure: "never",
      restMs: 1,
    },
    () => assert.fail("nothing failed"),
  );
  await until("the turn runs", () => began === 1);
  await work.stop();
  assert.deepEqual([began, ended], [1, 1]);
  await new Promise((resolve) => setTimeout(resolve, 20));
  assert.equal(began, 1);
});
