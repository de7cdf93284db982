import assert from "node:assert/strict";
import { test } from "node:test";
import { whatAnswers, type StandingAt } from "./what-answers.ts";

const site = (has: string): StandingAt<string, string> => ({
  routeAt: (host, key) => (has.includes("route") ? `route ${host}${key}` : undefined),
  pageAt: (_host, key) => (has.includes("page") ? `page ${key}` : undefined),
  fileAt: () => (has.includes("file") ? "/files/moss.png" : undefined),
  patternAt: (host, key) => (has.includes("pattern") ? `pattern ${host}${key}` : undefined),
});

for (const [has, expected] of [
  ["route page file pattern", { by: "route", route: "route a.example/x" }],
  ["page file pattern", { by: "page", page: "page /x" }],
  ["file pattern", { by: "file", path: "/files/moss.png" }],
  ["pattern", { by: "route", route: "pattern a.example/x" }],
  ["", undefined],
] as const)
  test(`of ${has || "nothing"} the first answers`, () =>
    assert.deepEqual(whatAnswers(site(has), "a.example", "/x"), expected));
