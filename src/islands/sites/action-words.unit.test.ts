import assert from "node:assert/strict";
import { test } from "node:test";
import { actionWords } from "./action-words.ts";

test("actions are told in words, also such as nobody has words for yet", () => {
  for (const [action, words] of [
    ["page.publish", "published the page"],
    ["rules.replace", "replaced rules"],
    ["routes.tag", "tagged routes"],
    ["member.invite", "invited the member"],
    ["page.turn-over", "turn over the page"],
  ] as const)
    assert.equal(actionWords(action), words);
});
