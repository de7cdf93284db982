import assert from "node:assert/strict";
import { test } from "node:test";
import { asOptions, chosenBy, entriesOf, optionsFor } from "./options.ts";

const PAGES = [
  { value: "p1", word: "Éclipse, the first night", note: "/nights/first" },
  { value: "p2", word: "Reviews", note: "/reviews" },
  { value: "p3", word: "A review of the night sky", note: "/reviews/sky" },
];
const values = (typed: string): string[] => optionsFor(PAGES, typed).map(({ value }) => value);

test("options are found by all words, in any order, by what stands beside them, without accents and case", () => {
  assert.deepEqual(values(""), ["p1", "p2", "p3"]);
  assert.deepEqual(values("  NIGHT  "), ["p1", "p3"]);
  assert.deepEqual(values("night review"), ["p3"]);
  assert.deepEqual(values("eclipse"), ["p1"]);
  assert.deepEqual(values("/nights"), ["p1"]);
  assert.deepEqual(values("moon"), []);
});

test("what begins with the typed stands first, the rest keeps its order", () => {
  assert.deepEqual(
    values("re"),
    ["p2", "p1", "p3"].filter((one) => values("re").includes(one)),
  );
  assert.deepEqual(values("review")[0], "p2");
});

test("entries stand in lines or with commas, each once, without what is empty", () => {
  assert.deepEqual(entriesOf(" a, b\n\nb ,,c d "), ["a", "b", "c d"]);
  assert.deepEqual(entriesOf("a.example b.example,\nc.example", /[\s,]/), [
    "a.example",
    "b.example",
    "c.example",
  ]);
});

test("an entry means the option of its value or word; another is itself where anything may be said", () => {
  assert.deepEqual(chosenBy(["p2", "eclipse, THE first night", "moon"], PAGES, false), {
    chosen: ["p2", "p1"],
    unknown: ["moon"],
  });
  assert.deepEqual(chosenBy(["/nights/*"], PAGES, true), { chosen: ["/nights/*"], unknown: [] });
  assert.deepEqual(asOptions(["b", "", "b", "a"]), [
    { value: "b", word: "b" },
    { value: "a", word: "a" },
  ]);
});
