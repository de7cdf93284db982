import assert from "node:assert/strict";
import { describe, test } from "node:test";
import fc from "fast-check";
import Papa from "papaparse";
import { readTable } from "./read-table.ts";

const rowsOf = (text: string): { line: number; cells: string[] }[] => [...readTable(text)!.portions()].flat();

describe("a table of text", () => {
  test("is read as it was written, whatever stands in its cells", () => {
    const cell = fc.stringMatching(/^[ -~é\n]{0,12}$/).map((text) => text.replace(/\r/g, ""));
    const table = fc.tuple(
      fc.constantFrom(",", ";", "\t"),
      fc.array(fc.tuple(cell, cell, cell), { maxLength: 30 }),
    );
    fc.assert(
      fc.property(table, ([delimiter, rows]) => {
        const text = Papa.unparse([["a", "b", "c"], ...rows], { delimiter, newline: "\n" });
        assert.deepEqual(
          rowsOf(text).map(({ cells }) => cells),
          rows.map((row) => [...row]),
        );
      }),
    );
  });

  test("in portions it is the same, with the line each row begins on", () => {
    const row = (at: number): string => `R-${at},"two\nlines ""${at}""",x`;
    const text = ["a,b,c", ...Array.from({ length: 150_000 }, (_, at) => row(at))].join("\n");
    const portions = [...readTable(text)!.portions()];
    assert.ok(portions.length > 1, "it is long enough to be cut");
    const rows = portions.flat();
    assert.equal(rows.length, 150_000);
    for (const at of [0, 1, 74_999, 149_999])
      assert.deepEqual(rows[at], { line: 2 + at * 2, cells: [`R-${at}`, `two\nlines "${at}"`, "x"] });
  });

  test("without a header is none; empty lines are left out, a byte order mark too", () => {
    assert.equal(readTable(""), undefined);
    assert.equal(readTable("\n\n"), undefined);
    const table = readTable("\uFEFF a ;b\r\n\r\n1;2\r\n\r\n3;4")!;
    assert.deepEqual(table.header, ["a", "b"]);
    assert.deepEqual(
      [...table.portions()].flat().map(({ line, cells }) => [line, ...cells]),
      [
        [3, "1", "2"],
        [5, "3", "4"],
      ],
    );
    assert.equal(table.done, table.length);
  });
});
