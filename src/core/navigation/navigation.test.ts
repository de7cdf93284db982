import assert from "node:assert/strict";
import { describe, test } from "node:test";
import fc from "fast-check";
import { moveBranch, shiftBranch, type FlatItem, flattenNavigation, treeNavigation } from "./branches.ts";
import { appliesTo } from "../rules/placement.ts";
import { navigationInputSchema, type NavigationItem } from "./navigation.ts";

const item = (id: string, children: NavigationItem[] = []): NavigationItem => ({
  id,
  label: id,
  kind: "heading",
  children,
});
const TREE = [item("a", [item("b", [item("c")]), item("d")]), item("e")];
const shape = (items: readonly FlatItem[]): string => items.map(({ id, level }) => `${level}${id}`).join(" ");
const FLAT = flattenNavigation(TREE);

describe("the navigation as tree and list", () => {
  test("is the same tree after being a list", () => {
    assert.equal(shape(FLAT), "0a 1b 2c 1d 0e");
    assert.deepEqual(treeNavigation(FLAT), TREE);
  });
  test("any list of levels becomes a tree of at most three", () => {
    fc.assert(
      fc.property(fc.array(fc.nat(5), { maxLength: 12 }), (levels) => {
        const tree = treeNavigation(levels.map((level, at) => ({ ...item(String(at)), level })));
        const flat = flattenNavigation(tree);
        assert.equal(flat.length, levels.length);
        assert.ok(flat.every(({ level }) => level < 3));
        assert.ok(navigationInputSchema.safeParse({ version: 0, items: tree }).success);
      }),
    );
  });
  test("an entry moves with what is below it, past its neighbour of the same level", () => {
    assert.equal(shape(moveBranch(FLAT, "b", 1)), "0a 1d 1b 2c 0e");
    assert.equal(shape(moveBranch(FLAT, "e", -1)), "0e 0a 1b 2c 1d");
    assert.equal(shape(moveBranch(FLAT, "b", -1)), shape(FLAT), "the first stays the first");
    assert.equal(shape(moveBranch(FLAT, "d", 1)), shape(FLAT), "the last of its heading stays in it");
  });
  test("an entry goes deeper only below something", () => {
    assert.equal(shape(shiftBranch(FLAT, "e", 1)), "0a 1b 2c 1d 1e");
    assert.equal(shape(shiftBranch(FLAT, "a", 1)), shape(FLAT));
    assert.equal(shape(shiftBranch(FLAT, "b", -1)), "0a 0b 1c 1d 0e");
  });
  for (const [says, wrong, message] of [
    ["a page without a page", { ...item("x"), kind: "page" }, /Choose the page that “x” leads to/],
    [
      "an address that is none",
      { ...item("x"), kind: "address", address: "javascript:alert(1)" },
      /is none of them/,
    ],
    ["an entry without a label", { ...item("x"), label: " " }, /label is missing/],
    ["four levels", item("1", [item("2", [item("3", [item("4")])])]), /at most 3 levels/],
  ] as const) {
    test(`${says} is refused`, () => {
      const result = navigationInputSchema.safeParse({ version: 0, items: [wrong] });
      assert.match(result.error!.issues.map((issue) => issue.message).join(" "), message);
    });
  }
});

describe("a shared block stands", () => {
  const page = { path: "/reviews/a", category: "Reviews" };
  for (const [shown, on, where, stands] of [
    ["all", [], page, true],
    ["all", [], undefined, true],
    ["pages", ["/reviews/*"], page, true],
    ["pages", ["/news/*", "/reviews/a"], page, true],
    ["pages", ["/news/*"], page, false],
    ["pages", ["*"], undefined, false],
    ["pages", ["/café/*"], { path: "/caf%C3%A9/menu", category: "" }, true],
    ["pages", ["/tides/"], { path: "/tides", category: "" }, true],
    ["categories", ["Reviews"], page, true],
    ["categories", ["News"], page, false],
  ] as const)
    test(`${shown} ${on.join()} on ${where?.path ?? "no page"}: ${stands}`, () =>
      assert.equal(appliesTo({ shown, on: [...on] }, where), stands));
});
