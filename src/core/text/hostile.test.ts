import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { countedWork } from "../../../tests/support/counted-work.ts";
import { FRAGMENTS, READERS, repeated } from "../../../tests/support/hostile.ts";

const SMALL = 2_000;
const TIMES = 4;
// Linear is four; what sorts or looks up a little more is let go by. The square would be sixteen.
const MAX_GROWTH = 8;
/** Signs looked at that every text costs, whatever its length. */
const GROUND = 20_000;

describe("text from outside costs in proportion to its length", () => {
  for (const [name, read] of Object.entries(READERS))
    test(name, () => {
      for (const fragment of FRAGMENTS) {
        const [small, large] = [SMALL, SMALL * TIMES].map((length) => {
          const text = repeated(fragment, length);
          return countedWork(() => read(text));
        }) as [number, number];
        assert.ok(
          large <= MAX_GROWTH * small + GROUND,
          `${JSON.stringify(fragment)}: ${small} signs looked at, ${large} for ${TIMES} times the text`,
        );
      }
    });
  test("the counting would find what looks again and again", () => {
    const rereading = (text: string): void => {
      let read = "";
      for (const sign of text) if ((read += sign).indexOf("</title>") !== -1) return;
    };
    const [small, large] = [SMALL, SMALL * TIMES].map((length) =>
      countedWork(() => rereading(repeated("<title", length))),
    );
    assert.ok(large! > MAX_GROWTH * small! + GROUND);
  });
});
