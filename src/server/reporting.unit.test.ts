import assert from "node:assert/strict";
import { mock, test } from "node:test";
import { reportTo } from "./reporting.ts";

type Line = readonly [fields: { times?: number; err?: Error }, message: string];

test("what fails again and again is told once a minute, with its count", () => {
  mock.timers.enable({ apis: ["setTimeout"] });
  const lines: Line[] = [];
  const { report, stop } = reportTo({
    warn: ((fields: Line[0], message: string) => lines.push([fields, message])) as never,
  });
  for (let time = 0; time < 5; time += 1) report("The lamp is out.", new Error(`${time}`));
  report("The well is dry.", undefined);
  assert.deepEqual(
    lines.map(([{ times }, message]) => [message, times]),
    [
      ["The lamp is out.", undefined],
      ["The well is dry.", undefined],
    ],
  );
  mock.timers.tick(60_000);
  assert.deepEqual(
    [lines[2]?.[1], lines[2]?.[0].times, lines[2]?.[0].err?.message],
    ["The lamp is out.", 4, "4"],
  );
  assert.equal(lines.length, 3);
  // Nothing more was said of either: the next one is told at once again.
  mock.timers.tick(60_000);
  report("The lamp is out.", new Error("later"));
  report("The lamp is out.", new Error("last"));
  assert.equal(lines[3]?.[0].err?.message, "later");
  report("The lamp is out.", new Error("last"));
  stop();
  assert.deepEqual([lines[4]?.[0].times, lines.length], [2, 5]);
  mock.timers.reset();
});
