import assert from "node:assert/strict";
import { test } from "node:test";
import { addressOfWords } from "./text-fragment.ts";

for (const [words, fragment] of [
  ["the heron", "#:~:text=the%20heron"],
  ["a-b, c & d", "#:~:text=a%2Db%2C%20c%20%26%20d"],
  ["  two\n lines ", "#:~:text=two%20lines"],
  ["", ""],
  ["\ud83d", "#:~:text=%EF%BF%BD"],
] as const)
  test(`leads to “${words}”`, () => {
    assert.equal(
      addressOfWords("https://a.example/x?y=1#z", words),
      `https://a.example/x?y=1${fragment || "#z"}`,
    );
  });
