import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { readEdgeLine } from "./edge-log.ts";

const FIELDS = [
  "mr1",
  "1796083200.042",
  "3",
  "17",
  "GET",
  "192.0.2.7",
  "",
  "",
  "",
  "",
  "https://a.example/p?q",
  "Agent/1.0 (x; y)",
];
const line = (...changes: [at: number, text: string][]): string => {
  const fields = [...FIELDS];
  for (const [at, text] of changes) fields[at] = text;
  return fields.join("\t");
};

describe("a line of an edge's log", () => {
  test("is one counted answer", () =>
    assert.deepEqual(readEdgeLine(line()), {
      at: 1796083200042,
      site: "3",
      route: "17",
      method: "GET",
      address: "192.0.2.7",
      purpose: "",
      referrer: "https://a.example/p?q",
      userAgent: "Agent/1.0 (x; y)",
    }));

  test("holds what was escaped, and the first purpose that was named", () => {
    const read = readEdgeLine(line([8, "preview"], [9, "other"], [11, String.raw`a \"b\" \\ \u0009 \t`]));
    assert.deepEqual([read?.userAgent, read?.purpose], ['a "b" \\ \t \t', "preview"]);
  });

  const TORN = [
    "",
    "192.0.2.1 - - [01/Dec/2026:10:00:00 +0000] \"GET / HTTP/1.1\" 200 5",
    line().slice(0, 40),
    line().slice(3),
    `${line()}\tmore`,
    line([0, "mr2"]),
    line([1, "yesterday"]),
    line([2, ""]),
    line([3, "x"]),
    line([4, "get it"]),
    line([5, ""]),
    line([11, 'a "bare quote']),
    line([11, "cut off \\"]),
    line([10, "\\x41"]),
    `${line()}\r`.replace("Agent/1.0 (x; y)\r", '"\r'),
  ]; // prettier-ignore
  for (const torn of TORN)
    test(`is none of ours: ${JSON.stringify(torn.slice(0, 60))}`, () =>
      assert.equal(readEdgeLine(torn), undefined));
});
