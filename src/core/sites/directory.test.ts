import assert from "node:assert/strict";
import { test } from "node:test";
import { movedAddress, movedPath } from "./directory.ts";

test("a path moves from one directory to another, whatever its case", () => {
  const cases: readonly (readonly [path: string, from: string, to: string, moved: string | undefined])[] = [
    ["/to/lamp", "/to/", "/go/", "/go/lamp"],
    ["/TO/Lamp", "/to/", "/go/", "/go/Lamp"],
    ["/to/lamp/red?a=/to/", "/to/", "/", "/lamp/red?a=/to/"],
    ["/lamp", "/", "/go/", "/go/lamp"],
    ["/go/lamp", "/", "/go/", undefined],
    ["/to/x", "/to/", "/to/more/", "/to/more/x"],
    ["/to/more/x", "/to/", "/to/more/", undefined],
    ["/to/more/x", "/to/more/", "/to/", "/to/x"],
    ["/to/", "/to/", "/go/", undefined],
    ["/tomato", "/to/", "/go/", undefined],
  ];
  for (const [path, from, to, moved] of cases)
    assert.equal(movedPath(path, from, to), moved, `${path} ${from}`);
});

test("an address in a text moves with whatever stands before and behind its path", () => {
  const cases: readonly (readonly [address: string, moved: string | undefined])[] = [
    ["/to/lamp#red", "/go/lamp#red"],
    ["https://garden.example/to/lamp?a=1", "https://garden.example/go/lamp?a=1"],
    ["//garden.example/to/lamp", "//garden.example/go/lamp"],
    ["https://garden.example", undefined],
    ["mailto:to@garden.example", undefined],
  ];
  for (const [address, moved] of cases) assert.equal(movedAddress(address, "/to/", "/go/"), moved, address);
});
