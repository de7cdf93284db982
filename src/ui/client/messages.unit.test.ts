import assert from "node:assert/strict";
import { afterEach, test } from "node:test";
import { ApiProblem, messageOf } from "./api.ts";

const told: unknown[] = [];
const scope = globalThis as { reportError?: (error: unknown) => void };
const before = scope.reportError;
scope.reportError = (error) => told.push(error);
afterEach(() => {
  told.length = 0;
});
test.after(() => {
  scope.reportError = before;
});

test("what the API refuses is told in its words", () => {
  assert.equal(messageOf(new ApiProblem(422, { detail: "That time has passed." })), "That time has passed.");
  assert.deepEqual(told, []);
});

test("a network that is gone is told as that, however a browser words it", () => {
  for (const words of ["Failed to fetch", "NetworkError when attempting to fetch resource.", "Load failed"])
    assert.match(messageOf(new TypeError(words)), /cannot be reached/);
  assert.deepEqual(told, []);
});

test("a fault of ours is not taken for one of the network, and is reported", () => {
  for (const fault of [new RangeError("Invalid time value"), new TypeError("x is undefined"), "nothing"]) {
    assert.equal(messageOf(fault), "Something went wrong.");
    assert.deepEqual(told.splice(0), [fault]);
  }
});
