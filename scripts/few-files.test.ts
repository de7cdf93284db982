import assert from "node:assert/strict";
import { test } from "node:test";
import { circleOf } from "./few-files.mjs";

test("files that import each other in a circle are told, with those between them", () => {
  const bundle = {
    "screen.js": { imports: ["forms.js", "ground.js"] },
    "forms.js": { imports: ["parts.js"] },
    "parts.js": { imports: ["ground.js", "popups.js"] },
    "popups.js": { imports: ["forms.js"] },
    "ground.js": { imports: [] },
  };
  assert.deepEqual(circleOf(bundle), ["forms.js", "parts.js", "popups.js", "forms.js"]);
});

test("files that share what stands below them are in no circle", () => {
  assert.equal(
    circleOf({
      "a.js": { imports: ["c.js", "d.js"] },
      "b.js": { imports: ["a.js", "c.js"] },
      "c.js": { imports: ["d.js"] },
      "d.js": { imports: ["not-ours"] },
      "style.css": {},
    }),
    undefined,
  );
});
