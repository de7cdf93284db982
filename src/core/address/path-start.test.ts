import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { beginsAsOne } from "./path-start.ts";

describe("the beginning of a path", () => {
  for (const [target, start] of [
    ["/shop/lamp", "/shop/"],
    ["/shop", "/shop/"],
    ["/shop?sort=price", "/shop/"],
    ["/shopping", "/shop"],
    ["/caf%C3%A9/menu", "/café/"],
    ["/caf%c3%a9/menu", "/caf%C3%A9/"],
    ["/café", "/caf%c3%a9/"],
    ["/%7Emara/notes", "/~mara/"],
    ["/a%20b/c", "/a b/"],
    ["/search?q=lamp", "/search?q="],
    ["/", "/"],
    ["/anything", "/"],
  ] as const)
    test(`${target} begins as ${start}`, () => assert.equal(beginsAsOne(target, ["/other/", start]), true));
  for (const [target, start] of [
    ["/shopping", "/shop/"],
    ["/Shop/lamp", "/shop/"],
    ["/of/shop/", "/shop/"],
    ["/search?lang=en", "/search?q="],
    ["/cafe/menu", "/café/"],
  ] as const)
    test(`${target} does not begin as ${start}`, () => assert.equal(beginsAsOne(target, [start]), false));
  test("none begins as nothing", () => assert.equal(beginsAsOne("/", []), false));
});
