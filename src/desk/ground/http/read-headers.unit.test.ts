import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { MOST_PATIENCE_MS, USUAL_PATIENCE_MS } from "../../ledger/ready.ts";
import { Problem } from "../problem.ts";
import { readHeaders } from "./read-headers.ts";

const preferred = (prefer: string) => readHeaders(new Headers({ Prefer: prefer })).prefer;

describe("what a caller prefers (RFC 7240)", () => {
  const cases: readonly (readonly [prefer: string, background: boolean, patienceMs: number])[] = [
    ["", false, USUAL_PATIENCE_MS],
    ["respond-async", true, USUAL_PATIENCE_MS],
    ["Respond-Async, wait=10", true, 10_000],
    ['wait="7"', false, 7_000],
    ["handling=lenient; foo=1,wait=3;x=y", false, 3_000],
    ["wait=2, wait=9", false, 2_000],
    ["wait=999999", false, MOST_PATIENCE_MS],
    ["wait=soon", false, USUAL_PATIENCE_MS],
    ["wait=-1", false, USUAL_PATIENCE_MS],
    ["not-respond-async", false, USUAL_PATIENCE_MS],
    [",,;=;", false, USUAL_PATIENCE_MS],
  ];
  for (const [prefer, background, patienceMs] of cases)
    test(JSON.stringify(prefer), () => assert.deepEqual(preferred(prefer), { background, patienceMs }));
});

test("a header that is too long is a 400 at its name", () => {
  const long = new Headers({ Prefer: "x".repeat(1_001), "Content-Type": "text/".padEnd(400, "x") });
  assert.throws(
    () => readHeaders(long),
    (error) =>
      error instanceof Problem &&
      error.status === 400 &&
      error.errors.map(({ path }) => path).join() === "prefer,content-type",
  );
});
