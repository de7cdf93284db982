import assert from "node:assert/strict";
import { describe, test } from "node:test";
import fc from "fast-check";
import { lintRoutes } from "./lint.ts";
import { routeKey } from "./match/address-form.ts";
import type { LintedRoute, LintedSite } from "./linted.ts";

const SITE: LintedSite = {
  hosts: ["own.example", "short.example"],
  primary: "own.example",
  pageAt: (key) => ({ "/page": "Page", "/hidden": "Hidden" })[key],
  hasFile: (key) => key === "/files/list.pdf",
  closest: (key) => (key === "/pgae" ? "/page" : undefined),
};

let next = 1;
function route(address: string, destination: string | null, more: Partial<LintedRoute> = {}): LintedRoute {
  const made = {
    id: String(next++),
    kind: "redirect" as const,
    host: null,
    match: "exact" as const,
    ...more,
  };
  return {
    ...made,
    address,
    destination,
    keys: [routeKey(address, made.kind === ("short" as string), made.match)],
  };
}

const told = (routes: LintedRoute[]): string[] =>
  lintRoutes(routes, SITE).map(
    ({ severity, code, message, fix }) => `${severity} ${code}: ${message}${fix ? ` [${fix.label}]` : ""}`,
  );

describe("the linter of the whole table", () => {
  test("has nothing to say of routes that arrive", () => {
    assert.deepEqual(
      told([
        route("/a", "/page"),
        route("/b", "/files/list.pdf"),
        route("/c", "https://shop.example/"),
        route("/d", null),
      ]),
      [],
    );
  });

  test("finds circles, and what leads into one", () => {
    assert.deepEqual(
      told([
        route("/a", "/b"),
        route("/b", "/c"),
        route("/c", "/a"),
        route("/in", "/a"),
        route("/self", "/self"),
      ]),
      [
        "error loop: /a, then /b, then /c lead round in a circle.",
        "error loop: /self leads to itself.",
        "error loop: /in leads into a circle of other routes.",
      ],
    );
  });

  test("finds circles through wildcards and other hosts", () => {
    const found = told([
      route("/x/*", "/y", { match: "wildcard", host: "short.example" }),
      route("/y", "https://short.example/x/1"),
    ]);
    assert.match(found[0]!, /^error loop: \/x\/\*, then \/y lead round in a circle\./);
  });

  test("flattens a chain to where it ends", () => {
    assert.deepEqual(told([route("/old", "/newer"), route("/newer", "/newest"), route("/newest", "/page")]), [
      "warning chain: /old leads only to /newer, which leads on to /page. [Point straight at /page]",
      "warning chain: /newer leads only to /newest, which leads on to /page. [Point straight at /page]",
    ]);
  });

  test("repairs a dead end where one address was probably meant, else offers to delete it", () => {
    assert.deepEqual(
      told([route("/a", "/pgae"), route("/b", "/nowhere"), route("/c", "/gone"), route("/gone", null)]),
      [
        "warning dead-end: /a leads to /pgae, which nothing answers. [Point to /page]",
        "warning dead-end: /b leads to /nowhere, which nothing answers. [Delete it]",
        "warning dead-end: /c leads to /gone, which is answered as gone.",
      ],
    );
  });

  test("finds what is never reached, and pages that a route hides", () => {
    assert.deepEqual(
      told([
        route("/t/*", "/page", { match: "wildcard" }),
        route("/t/(\\w+)", "/page", { match: "pattern" }),
        route("/hidden", "/page"),
        route("/q", "/page"),
        route("/q", "/page", { host: "own.example" }),
        route("/q", "/page", { host: "short.example" }),
      ]),
      [
        "warning shadowed: /t/(\\w+) is never reached: /t/* stands before it and answers the same. [Delete /t/(\\w+)]",
        "warning page: The page “Hidden” is published at /hidden, and readers get this route instead.",
        "warning shadowed: /q for every host is never reached: each host has its own. [Delete /q for every host]",
      ],
    );
  });

  test("hints at addresses alike but for letter case, and at several short links to one place", () => {
    assert.deepEqual(
      told([
        route("/Sky", "/page"),
        route("/sky", "/page"),
        route("/one", "https://shop.example/x", { kind: "short" }),
        route("/two", "http://shop.example/x", { kind: "short" }),
        route("/three", "https://shop.example/x#part", { kind: "short" }),
      ]),
      [
        "hint near: /Sky and /sky differ only in letter case.",
        "hint same-destination: /one, /two lead to the same destination; one with aliases would count together.",
      ],
    );
  });

  test("says what is known of outside destinations", () => {
    assert.deepEqual(told([route("/a", "https://shop.example/", { answersBadly: "ends at “not found”" })]), [
      "warning answers-badly: /a: its destination ends at “not found”",
    ]);
  });

  test("calls a route looping exactly when following it step by step never ends", () => {
    const size = 12;
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -1, max: size - 1 }), { minLength: size, maxLength: size }),
        (leads) => {
          const routes = leads.map((to, index) => route(`/r${index}`, to === -1 ? "/page" : `/r${to}`));
          const looping = new Set(
            lintRoutes(routes, SITE)
              .filter(({ code }) => code === "loop")
              .flatMap((finding) => finding.routes),
          );
          routes.forEach((one, index) => {
            let at = index;
            for (let steps = 0; steps <= size && at !== -1; steps += 1) at = leads[at]!;
            assert.equal(looping.has(one.id), at !== -1, `/r${index} of ${leads.join(" ")}`);
          });
        },
      ),
    );
  });
});
