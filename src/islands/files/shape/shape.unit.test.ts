import assert from "node:assert/strict";
import { test } from "node:test";
import { drawnCrop, focusAt, saidShape, typedShape } from "./shape.ts";

test("nothing is said of a picture that is shown whole, with its middle in sight", () => {
  assert.deepEqual(saidShape(typedShape(null, null)), { crop: null, focus: null });
});

test("what is said comes back as it was", () => {
  const crop = { left: 0.1, top: 0.2, width: 0.5, height: 0.8 };
  const focus = { x: 0, y: 0.75 };
  assert.deepEqual(saidShape(typedShape(crop, focus)), { crop, focus });
});

test("a part is drawn from any corner, and ends at the picture's edge", () => {
  const drawn = { left: 20, top: 10, width: 40, height: 50 };
  assert.deepEqual(drawnCrop({ x: 0.2, y: 0.1 }, { x: 0.6, y: 0.6 }), drawn);
  assert.deepEqual(drawnCrop({ x: 0.6, y: 0.6 }, { x: 0.2, y: 0.1 }), drawn);
  assert.deepEqual(drawnCrop({ x: 0.6, y: 0.1 }, { x: 0.2, y: 0.6 }), drawn);
  assert.deepEqual(drawnCrop({ x: 0.5, y: 0.5 }, { x: 2, y: -1 }), {
    left: 50,
    top: 0,
    width: 50,
    height: 50,
  });
  assert.deepEqual(drawnCrop({ x: 0.5, y: 0.5 }, { x: 0.5, y: 0.5 }), {
    left: 50,
    top: 50,
    width: 1,
    height: 1,
  });
});

test("the focus is told within the part that is shown", () => {
  assert.deepEqual(focusAt({ x: 0.25, y: 0.5 }, null), { x: 25, y: 50 });
  assert.deepEqual(focusAt({ x: 0.5, y: 0.5 }, { left: 0.5, top: 0, width: 0.5, height: 1 }), {
    x: 0,
    y: 50,
  });
  assert.deepEqual(focusAt({ x: 0.9, y: 0.5 }, { left: 0, top: 0, width: 0.5, height: 0.5 }), {
    x: 100,
    y: 100,
  });
});
