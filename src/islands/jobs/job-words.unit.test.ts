import assert from "node:assert/strict";
import { test } from "node:test";
import { JOB_KINDS } from "../../desk/job-kinds.ts";
import { jobWords, screenOf, stateWords } from "./job-words.ts";

test("every kind of long work has a name of its own in words", () => {
  const words = [...JOB_KINDS.keys()].map(jobWords);
  for (const word of words) assert.match(word, /^[A-Z][a-z]* .*[a-z]$/);
  assert.equal(new Set(words).size, words.length);
  for (const name of JOB_KINDS.keys()) assert.notEqual(screenOf(name), "jobs");
});

test("where work stands is told in words: how far it is, or why it waits", () => {
  const job = { state: "running", done: 1, total: 3, note: "" };
  assert.equal(stateWords(job), "33 % done");
  assert.equal(stateWords({ ...job, total: 0 }), "going on");
  assert.equal(
    stateWords({ ...job, note: "It failed, and is tried again in a moment." }),
    "It failed, and is tried again in a moment.",
  );
  assert.equal(stateWords({ ...job, state: "stopped" }), "stopped");
});
