import assert from "node:assert/strict";
import { describe, test } from "node:test";
import fc from "fast-check";
import { aroundFocus, cropPixels, cropSchema, type ShownPicture } from "./picture.ts";
import { withPictureForms } from "./picture-markup.ts";

describe("which part of a picture is shown", () => {
  test("in whole pixels within it, whatever is said", () => {
    const part = fc.double({ min: 0, max: 1, noNaN: true });
    const size = fc.integer({ min: 1, max: 5_000 });
    fc.assert(
      fc.property(part, part, part, part, size, size, (left, top, width, height, w, h) => {
        const crop = { left, top, width: Math.min(width, 1 - left), height: Math.min(height, 1 - top) };
        const shown = cropPixels(crop, { width: w, height: h });
        assert.ok(shown.width >= 1 && shown.height >= 1 && shown.left >= 0 && shown.top >= 0);
        assert.ok(shown.left + shown.width <= w && shown.top + shown.height <= h);
      }),
    );
    assert.deepEqual(
      cropPixels({ left: 0.25, top: 0.5, width: 0.5, height: 0.5 }, { width: 200, height: 100 }),
      {
        left: 50,
        top: 50,
        width: 100,
        height: 50,
      },
    );
  });
  test("a crop that is nothing, or ends outside, is refused at its side", () => {
    for (const [crop, at] of [
      [{ left: 0.6, top: 0, width: 0.5, height: 1 }, "width"],
      [{ left: 0, top: 0, width: 1, height: 0 }, "height"],
      [{ left: -0.1, top: 0, width: 1, height: 1 }, "left"],
    ] as const)
      assert.equal(cropSchema.safeParse(crop).error?.issues[0]?.path[0], at);
  });
  test("a card is cut around the focus, and never beyond the picture", () => {
    const card = { width: 1200, height: 630 };
    assert.deepEqual(aroundFocus({ width: 2400, height: 1260 }, card, null), {
      left: 0,
      top: 0,
      width: 2400,
      height: 1260,
    });
    assert.deepEqual(aroundFocus({ width: 1200, height: 1200 }, card, { x: 0.5, y: 0.5 }), {
      left: 0,
      top: 285,
      width: 1200,
      height: 630,
    });
    assert.equal(aroundFocus({ width: 1200, height: 1200 }, card, { x: 0.5, y: 1 }).top, 570);
    assert.equal(aroundFocus({ width: 4000, height: 630 }, card, { x: 0, y: 0 }).left, 0);
    assert.deepEqual(aroundFocus({ width: 1, height: 1 }, card, null), {
      left: 0,
      top: 0,
      width: 1,
      height: 1,
    });
  });
});

describe("pictures in a page", () => {
  const forms = [320, 640].flatMap((width) =>
    ["webp", "avif"].map((format) => ({
      name: `${width}.${format}`,
      type: `image/${format}`,
      width,
      height: width / 2,
    })),
  );
  const pier: ShownPicture = { width: 640, height: 320, base: "/~pictures/1-a-1/", forms };
  const pictures: Record<string, ShownPicture> = {
    "/files/pier.jpg": pier,
    "/files/pier.svg": { ...pier, forms: [] },
  };
  const shown = (html: string): string => withPictureForms(html, (src) => pictures[src]);

  test("a browser chooses among their forms, and knows how large they are", () => {
    assert.equal(
      shown('<p>a</p><img src="/files/pier.jpg" alt="A pier"><p>b</p>'),
      '<p>a</p><picture><source type="image/avif" srcset="/~pictures/1-a-1/320.avif 320w, /~pictures/1-a-1/640.avif 640w" ' +
        'sizes="(min-width: 46rem) min(43.5rem, 640px), 100vw">' +
        '<source type="image/webp" srcset="/~pictures/1-a-1/320.webp 320w, /~pictures/1-a-1/640.webp 640w" ' +
        'sizes="(min-width: 46rem) min(43.5rem, 640px), 100vw">' +
        '<img src="/files/pier.jpg" alt="A pier" width="640" height="320"></picture><p>b</p>',
    );
  });
  test("what an author set stays, and the other side follows it", () => {
    assert.match(shown('<img src="/files/pier.jpg" width="300">'), /width="300" height="150"/);
    assert.match(shown('<img src="/files/pier.jpg" width="300" height="10">'), /width="300" height="10">/);
    assert.match(
      shown('<img loading="eager" src="/a.png"><img loading="eager" src="/b.png">'),
      /eager.*eager/,
    );
  });
  test("those behind the first are fetched when they come near, also those that are not ours", () => {
    assert.equal(
      shown('<img src="/files/pier.svg" /><img src="https://other.example/a.png" />'),
      '<img src="/files/pier.svg" width="640" height="320" />' +
        '<img src="https://other.example/a.png" loading="lazy" />',
    );
  });
  test("what has none is as it was, to the byte", () => {
    for (const html of [
      "",
      "<p>&lt;img src=x&gt;</p>",
      "<img alt='no source'>",
      "<!-- <img src='/files/pier.jpg'> -->",
    ])
      assert.equal(shown(html), html);
  });
});
