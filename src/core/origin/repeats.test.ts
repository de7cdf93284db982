import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { repeatedParts, type KeyedBlock, type KeyedPage } from "./repeats.ts";
import type { Area } from "./reduce.ts";

const block = (written: string): KeyedBlock => {
  const [area, key] = written.split(":") as [Area, string];
  return { area, key };
};
const page = (part: string, ...written: string[]): KeyedPage => ({
  part,
  blocks: written.flatMap((one) => one.split(" ")).map(block),
});
const told = (pages: KeyedPage[]) =>
  repeatedParts(pages).map(({ area, keys, pages: count }) => `${area} ${keys.join(",")} ${count}`);

describe("what stands on many pages", () => {
  test("menu, side box and foot are parts of their own; a page's own text is none", () => {
    const pages = Array.from({ length: 20 }, (_, at) =>
      page("log", "menu:a menu:b menu:c", `text:t${at}`, "side:s1 side:s2 foot:f"),
    );
    assert.deepEqual(told(pages), ["menu a,b,c 20", "foot f 20", "side s1,s2 20"]);
  });

  test("the entry that a menu leaves out on its own page does not take it apart", () => {
    const entries = ["a", "b", "c", "d", "e"];
    const pages = entries.flatMap((own) =>
      Array.from({ length: 4 }, (_, at) =>
        page(
          "",
          ...entries.map((one) => (one === own ? `menu:${one}-here` : `menu:${one}`)),
          `text:${own}${at}`,
        ),
      ),
    );
    // “-here” stands on four of twenty pages in the menu: it is no page's own either.
    const [first] = repeatedParts(pages);
    assert.deepEqual(
      first!.keys.filter((key) => !key.endsWith("-here")),
      entries,
    );
  });

  test("a box of one part of the site is found though it is rare on the whole", () => {
    const log = Array.from({ length: 100 }, (_, at) => page("log", `text:l${at}`));
    const shop = Array.from({ length: 5 }, (_, at) => page("shop", `text:s${at}`, "text:terms"));
    assert.deepEqual(told([...log, ...shop]), ["text terms 5"]);
  });

  test("a sentence that stands on two pages is each page's own", () => {
    const pages = Array.from({ length: 30 }, (_, at) =>
      page("log", `text:t${at}`, ...(at < 2 ? ["text:same"] : [])),
    );
    assert.deepEqual(told(pages), []);
  });

  test("two boxes that come and go by themselves are two parts", () => {
    const pages = Array.from({ length: 40 }, (_, at) =>
      page("log", "side:a", ...(at % 2 === 0 ? ["side:b"] : []), `text:t${at}`),
    );
    assert.deepEqual(told(pages), ["side a 40", "side b 20"]);
  });

  test("nothing on no pages, and none where there are too few", () => {
    assert.deepEqual(repeatedParts([]), []);
    assert.deepEqual(told([page("", "menu:a"), page("", "menu:a")]), []);
  });
});
