import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { isOwnOrigin, ownPath } from "./own-origin.ts";

describe("where one goes back to after signing in", () => {
  for (const path of ["/", "/low-lantern/pages", "/low-lantern/routes?q=a%2Fb&x=//y", "/a#b"])
    test(`${path} is ours`, () => assert.equal(ownPath(path), path));
  for (const other of [
    "//other.example",
    "/\t/other.example",
    "/\\other.example",
    "\\\\other.example",
    "https://other.example/",
    "javascript:x",
    "/.//other.example",
    "/a/..//other.example",
    " //other.example",
    "/\n/other.example",
    "http://own.invalid:1/",
    "http:other.example//x",
  ])
    test(`${JSON.stringify(other)} leads to the front page`, () => {
      const path = ownPath(other);
      assert.equal(new URL(path, "https://workspace.example").host, "workspace.example");
      assert.doesNotMatch(path, /^\/[/\\]/);
    });
});

describe("where a change comes from", () => {
  const asked = (origin: string | undefined, host = "desk.example:4600"): Request =>
    new Request("http://localhost/", { headers: { ...(origin ? { origin } : {}), host } });
  const cases: readonly (readonly [origin: string | undefined, secure: boolean, own: boolean])[] = [
    ["http://desk.example:4600", false, true],
    ["https://desk.example:4600", true, true],
    ["http://desk.example:4600", true, false],
    ["https://desk.example:4600", false, false],
    ["http://desk.example", false, false],
    ["null", false, false],
    [undefined, false, false],
  ];
  for (const [origin, secure, own] of cases)
    test(`${origin ?? "no origin"}${secure ? ", the workspace by https" : ""}`, () =>
      assert.equal(isOwnOrigin(asked(origin), secure), own));
});
