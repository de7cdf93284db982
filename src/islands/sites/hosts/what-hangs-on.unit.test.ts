import assert from "node:assert/strict";
import { test } from "node:test";
import type { SiteHost } from "../../../core/sites/host.ts";
import { whatHangsOn } from "./what-hangs-on.ts";

const EMPTY: SiteHost = {
  name: "gdn.example",
  role: "short",
  leadsTo: null,
  url: "https://gdn.example/",
  routes: 0,
  shortLinks: 0,
  pages: 0,
  links: 0,
};

test("what hangs on a host, in words", () => {
  const cases: readonly (readonly [has: Partial<SiteHost>, says: string])[] = [
    [{}, "Nothing hangs on gdn.example alone."],
    [
      { routes: 1, shortLinks: 1 },
      "On it hang 1 route that answers nowhere else. 1 short link answers there, and its code may be in print.",
    ],
    [
      { routes: 2, pages: 40, links: 1, shortLinks: 12 },
      "On it hang 2 routes that answer nowhere else, 40 pages and 1 link in a text that names it. 12 short links answer there, and their codes may be in print.",
    ],
    [{ role: "former", links: 3, shortLinks: 0 }, "On it hang 3 links in texts that name it."],
  ];
  for (const [has, says] of cases) assert.equal(whatHangsOn({ ...EMPTY, ...has }), says);
});
