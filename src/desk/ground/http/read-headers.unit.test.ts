import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { MAX_TIMEOUT_MS, DEFAULT_TIMEOUT_MS } from "../../ledger/fresh-ledger.ts";
import { Problem } from "../problem.ts";
import { readHeaders } from "./read-headers.ts";

const preferred = (prefer: string) => readHeaders(new Headers({ Prefer: prefer })).prefer;

describe("what a caller prefers (RFC 7240)", () => {
  const cases: readonly (readonly [prefer: string, background: boolean, timeoutMs: number])[] = [
    ["", false, DEFAULT_TIMEOUT_MS],
    ["respond-async", true, DEFAULT_TIMEOUT_MS],
    ["Respond-Async, wait=10", true, 10_000],
    ['wait="7"', false, 7_000],
    ["handling=lenient; foo=1,wait=3;x=y", false, 3_000],
    ["wait=2, wait=9", false, 2_000],
    ["wait=999999", false, MAX_TIMEOUT_MS],
    ["wait=soon", false, DEFAULT_TIMEOUT_MS],
    ["wait=-1", false, DEFAULT_TIMEOUT_MS],
    ["not-respond-async", false, DEFAULT_TIMEOUT_MS],
    [",,;=;", false, DEFAULT_TIMEOUT_MS],
  ];
  for (const [prefer, background, timeoutMs] of cases)
    test(JSON.stringify(prefer), () => assert.deepEqual(preferred(prefer), { background, timeoutMs }));
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
