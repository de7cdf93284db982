import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { marked, NO_MARKS, type Marking, type Marks } from "./marks.ts";

const SHOWN = ["a", "b", "c", "d", "e"];
const after = (...markings: Marking[]): Marks =>
  markings.reduce((marks, marking) => marked(marks, marking, SHOWN), NO_MARKS);
const ids = ({ ids: of }: Marks): string => [...of].sort().join("");
const mark = (id: string, { on = true, through = false } = {}): Marking => ({ do: "mark", id, on, through });

describe("marks", () => {
  test("are put on one row and taken off", () => {
    assert.equal(ids(after(mark("b"), mark("d"))), "bd");
    assert.equal(ids(after(mark("b"), mark("d"), mark("b", { on: false }))), "d");
  });
  test("run from the last one marked to this one, in either direction", () => {
    assert.equal(ids(after(mark("b"), mark("d", { through: true }))), "bcd");
    assert.equal(ids(after(mark("d"), mark("b", { through: true }))), "bcd");
    assert.equal(ids(after(mark("a"), mark("c"), mark("e", { through: true }))), "acde");
  });
  test("a run takes marks off, too; without a beginning it is one row", () => {
    const all = after({ do: "mark all shown", on: true }, mark("b", { on: false }));
    assert.equal(ids(marked(all, mark("d", { on: false, through: true }), SHOWN)), "ae");
    assert.equal(ids(after(mark("c", { through: true }))), "c");
  });
  test("a run that began on a row that is shown no more is one row", () => {
    assert.equal(ids(marked(after(mark("b")), mark("d", { through: true }), ["a", "c", "d"])), "bd");
  });
  test("may be on all that the filter leaves; one taken out leaves those that are shown", () => {
    const all = after({ do: "take all" });
    assert.equal(all.all, true);
    const less = marked(all, mark("c", { on: false }), SHOWN);
    assert.deepEqual([less.all, ids(less)], [false, "abde"]);
  });
  test("are all gone when they are cleared", () => {
    assert.deepEqual(after({ do: "take all" }, { do: "clear" }), NO_MARKS);
  });
});
