import assert from "node:assert/strict";
import { describe, test } from "node:test";
import fc from "fast-check";
import { caseFoldedKey, pathKey } from "../address/path-key.ts";
import { routeKey } from "./match/address-form.ts";
import { adviseRoute, type RouteDraft, type RouteSurroundings } from "./advise.ts";
import { closestAddresses } from "../misses/closest.ts";
import { location } from "./chain/location.ts";
import { isConfusable, suggestSlugs } from "./slugs/suggest-slugs.ts";
import { RouteTable } from "./match/table.ts";
import { headerSafe } from "./chain/header-safe.ts";

describe("the route table", () => {
  const table = new RouteTable<string>();
  table.set({ host: null, key: "/links", caseInsensitive: false }, "everywhere");
  table.set({ host: "a.example", key: "/links", caseInsensitive: false }, "a's own");
  table.set({ host: "a.example", key: "/dob", caseInsensitive: true }, "short");
  table.set({ host: "a.example", key: "/DOB", caseInsensitive: false }, "redirect in capitals");

  const cases: readonly (readonly [host: string, path: string, answer: string | undefined])[] = [
    ["b.example", "/links", "everywhere"],
    ["a.example", "/links", "a's own"],
    ["a.example", "/Links", undefined],
    ["a.example", "/dob", "short"],
    ["a.example", "/Dob", "short"],
    ["a.example", "/DOB", "redirect in capitals"],
    ["b.example", "/dob", undefined],
  ];
  for (const [host, path, answer] of cases)
    test(`${host}${path}`, () => assert.equal(table.find(host, pathKey(path)), answer));

  test("a deletion takes out only what is still there", () => {
    const own = new RouteTable<object>();
    const [old, young] = [{}, {}];
    own.set({ host: null, key: "/a", caseInsensitive: false }, old);
    own.set({ host: null, key: "/a", caseInsensitive: false }, young);
    own.delete({ host: null, key: "/a", caseInsensitive: false }, old);
    assert.equal(own.find("x", "/a"), young);
    assert.equal(own.size, 1);
    own.delete({ host: null, key: "/a", caseInsensitive: false }, young);
    assert.equal(own.size, 0);
    assert.deepEqual([...own.shortKeys("x", 10)], []);
  });

  test("answers as a plain list of routes would, whatever is put in and taken out", () => {
    const address = fc.record({
      host: fc.constantFrom(null, "a.example", "b.example"),
      path: fc.constantFrom("/a", "/A", "/b/c", "/B/c", "/%c3%a4", "/d/"),
      caseInsensitive: fc.boolean(),
      remove: fc.boolean(),
    });
    fc.assert(
      fc.property(
        fc.array(address, { maxLength: 20 }),
        fc.constantFrom("a.example", "b.example"),
        fc.constantFrom("/a", "/A/", "/B/C", "/ä", "/d", "/x"),
        (steps, host, asked) => {
          const compiled = new RouteTable<number>();
          const plain = new Map<
            string,
            { host: string | null; key: string; caseInsensitive: boolean; id: number }
          >();
          steps.forEach(({ host: on, path, caseInsensitive, remove }, id) => {
            const key = routeKey(path, caseInsensitive);
            const name = `${on} ${key} ${caseInsensitive}`;
            if (!remove) {
              compiled.set({ host: on, key, caseInsensitive }, id);
              plain.set(name, { host: on, key, caseInsensitive, id });
            } else if (plain.has(name)) {
              compiled.delete({ host: on, key, caseInsensitive }, plain.get(name)!.id);
              plain.delete(name);
            }
          });
          const key = pathKey(asked);
          const matching = [...plain.values()].filter(
            (one) =>
              (one.host === null || one.host === host) &&
              one.key === (one.caseInsensitive ? caseFoldedKey(key) : key),
          );
          const rank = (one: { host: string | null; caseInsensitive: boolean }): number =>
            (one.caseInsensitive ? 2 : 0) + (one.host === null ? 1 : 0);
          const expected = matching.sort((a, b) => rank(a) - rank(b))[0]?.id;
          assert.equal(compiled.find(host, key), expected);
          assert.equal(compiled.size, plain.size);
        },
      ),
      { numRuns: 1000 },
    );
  });
});

describe("the Location of a redirect", () => {
  const cases: readonly (readonly [
    destination: string,
    mode: "drop" | "forward" | "merge",
    query: string,
    expected: string,
  ])[] = [
    ["https://s.example/a", "drop", "x=1", "https://s.example/a"],
    ["https://s.example/a", "forward", "x=1", "https://s.example/a?x=1"],
    ["https://s.example/a?y=2", "forward", "x=1", "https://s.example/a?y=2&x=1"],
    ["https://s.example/a?y=2#top", "forward", "x=1", "https://s.example/a?y=2&x=1#top"],
    ["https://s.example/a?y=2", "forward", "y=3", "https://s.example/a?y=2&y=3"],
    ["https://s.example/a?y=2", "merge", "y=3&x=1", "https://s.example/a?y=2&x=1"],
    ["https://s.example/a?y=2", "merge", "y=3", "https://s.example/a?y=2"],
    ["https://s.example/a", "merge", "x=1", "https://s.example/a?x=1"],
    ["https://s.example/a", "forward", "", "https://s.example/a"],
    ["/a", "forward", "x=ä b", "/a?x=%C3%A4%20b"],
  ];
  for (const [destination, mode, query, expected] of cases) {
    test(`${destination}, ${mode} ${query}`, () =>
      assert.equal(location(destination, mode, query), expected));
  }

  test("no query can put a line break or control character into the header", () => {
    fc.assert(
      fc.property(fc.string({ unit: "binary" }), (query) => {
        assert.match(headerSafe(location("https://s.example/a", "forward", query)), /^[\x21-\x7E]*$/);
      }),
    );
    assert.equal(headerSafe("/a\r\nSet-Cookie: x"), "/a%0D%0ASet-Cookie:%20x");
  });
});

describe("the linter, before a route is saved", () => {
  const routes: Record<string, { id: string; destination: string | null }> = {
    "/links": { id: "1", destination: "/resources" },
    "/old": { id: "2", destination: "/links" },
    "/gone": { id: "3", destination: null },
    "/east": { id: "4", destination: "/west" },
    "/west": { id: "5", destination: "/east" },
    "/to/dob": { id: "6", destination: "https://shop.example/" },
  };
  type Known = (key: string) => { id: string; destination: string | null } | undefined;
  const knowing = (known: Known): RouteSurroundings => ({
    hosts: ["own.example", "short.example"],
    primary: "own.example",
    absolute: (path) => `https://own.example${path}`,
    claimAt: (_host, key) => {
      const route = known(key);
      return route && { ...route, address: key };
    },
    answerAt: (_host, key) => {
      const route = known(key);
      if (route) return { by: "route", status: 301, query: "drop", ...route };
      return key === "/resources"
        ? { by: "page", id: "1", title: "Resources", status: 200, path: "/resources" }
        : { by: "miss", status: 404, destination: null, rule: "help" };
    },
    pageAt: (host, key) =>
      key === "/resources" && host !== "short.example" ? { title: "Resources" } : undefined,
  });
  const around = knowing((key) => routes[key]);
  const draft = (rest: Partial<RouteDraft>): RouteDraft => ({
    host: null,
    match: "exact",
    addresses: ["/new"],
    caseInsensitive: false,
    destination: "https://shop.example/x",
    replacesPage: false,
    ...rest,
  });

  const cases: readonly (readonly [
    says: string,
    draft: RouteDraft,
    findings: readonly string[],
    fix?: string,
  ])[] = [
    ["nothing, when all is well", draft({}), []],
    ["nothing, when it leads to a page", draft({ destination: "/resources" }), []],
    ["that it leads to itself", draft({ destination: "/new" }), ["error loop"]],
    [
      "that it leads to itself with its host in front",
      draft({ destination: "http://own.example:4601/new/" }),
      ["error loop"],
    ],
    [
      "that it leads to itself in other letters",
      draft({ caseInsensitive: true, destination: "/NEW" }),
      ["error loop"],
    ],
    [
      "that it leads to one of its aliases",
      draft({ addresses: ["/new", "/neu"], destination: "/neu" }),
      ["error loop"],
    ],
    [
      "that it comes back through other routes",
      draft({ addresses: ["/resources2"], destination: "/a" }),
      ["warning dead-end"],
    ],
    ["that it leads into a circle of others", draft({ destination: "/east" }), ["error loop"]],
    [
      "that it points at a redirect, and where that ends",
      draft({ destination: "/links" }),
      ["warning chain"],
      "/resources",
    ],
    ["where a longer chain ends", draft({ destination: "/old" }), ["warning chain"], "/resources"],
    [
      "that a chain leaves the site",
      draft({ destination: "/to/dob" }),
      ["warning chain"],
      "https://shop.example/",
    ],
    ["that nothing answers the destination", draft({ destination: "/nowhere" }), ["warning dead-end"]],
    [
      "that a prefix leads everything to one address",
      draft({ match: "prefix", destination: "/resources" }),
      ["hint one-for-all"],
    ],
    [
      "nothing of a prefix that takes the rest along",
      draft({ match: "prefix", destination: "/notes/$1" }),
      [],
    ],
    [
      "that delivery answers an address itself",
      draft({ addresses: ["/HealthZ"], caseInsensitive: true }),
      ["error page"],
    ],
    ["that the site's look is below an address", draft({ addresses: ["/~theme/site.css"] }), ["error page"]],
    ["the same of an alias", draft({ addresses: ["/new", "/~theme"] }), ["error page"]],
    ["that robots ask for an address", draft({ addresses: ["/robots.txt"] }), ["warning page"]],
    ["that certificates are renewed there", draft({ addresses: ["/.well-known/acme"] }), ["warning page"]],
    ["that the destination is gone", draft({ destination: "/gone" }), ["warning dead-end"]],
    ["that the address is taken", draft({ addresses: ["/links/"] }), ["error taken"]],
    ["that an alias is taken", draft({ addresses: ["/new", "/old"] }), ["error taken"]],
    [
      "that an address stands there twice",
      draft({ addresses: ["/new", "/NEW"], caseInsensitive: true }),
      ["error taken"],
    ],
    ["that a page is published there", draft({ addresses: ["/resources"] }), ["error page"]],
    [
      "that it replaces the page, when that is wanted",
      draft({ addresses: ["/resources"], replacesPage: true }),
      ["warning page"],
    ],
    [
      "nothing, when a short host has a link of a page's name to that page",
      draft({
        host: "short.example",
        addresses: ["/resources"],
        caseInsensitive: true,
        destination: "/resources",
      }),
      [],
    ],
    ["nothing of a destination, when it is gone itself", draft({ destination: null }), []],
  ];
  for (const [says, route, findings, fix] of cases) {
    test(`says ${says}`, () => {
      const advice = adviseRoute(route, around);
      assert.deepEqual(
        advice.map(({ severity, code }) => `${severity} ${code}`),
        findings,
      );
      assert.equal(advice[0]?.fix, fix);
    });
  }

  test("a route that is edited into a circle through another is refused", () => {
    const advice = adviseRoute(
      draft({ addresses: ["/west"], destination: "/old2" }),
      knowing((key) => (key === "/old2" ? { id: "9", destination: "/west" } : undefined)),
    );
    assert.deepEqual(
      advice.map(({ code, field }) => [code, field]),
      [["loop", "destination"]],
    );
  });

  test("a way of more than twenty hops is refused", () => {
    const endless = knowing((key) =>
      /^\/n\d+$/.test(key) ? { id: key, destination: `/n${Number(key.slice(2)) + 1}` } : undefined,
    );
    assert.deepEqual(
      adviseRoute(draft({ destination: "/n1" }), endless).map(({ code }) => code),
      ["long-way"],
    );
  });
});

describe("slug suggestions", () => {
  test("come from the destination's own words and the title, short and speakable", () => {
    const slugs = suggestSlugs(
      "https://starling-eyepieces.example/item/thirteen-millimetre-wide?partner=LL-2291",
      "",
      [],
    );
    assert.ok(slugs.length >= 1 && slugs.length <= 3);
    for (const { slug, reason } of slugs) {
      assert.match(slug, /^[a-z][a-z-]{2,23}$/);
      assert.ok(reason.length > 0);
    }
    assert.ok(slugs.some(({ slug }) => slug.includes("thirteen") || slug.includes("millimetre")));
  });

  test("the title's words come before the address's", () => {
    assert.equal(suggestSlugs("https://shop.example/p/88231", "Red torch", [])[0]?.slug, "torch");
  });

  test("none is taken, or one slip away from an existing one", () => {
    const existing = ["torch", "red-torches"];
    for (const { slug } of suggestSlugs("https://shop.example/red-torch", "", existing))
      assert.ok(!isConfusable(slug, existing), slug);
  });

  test("there is one even when every word is taken", () => {
    const [only] = suggestSlugs("https://shop.example/torch", "Torch", ["torch", "shop-torch", "shop"]);
    assert.equal(only?.slug, "torch-no-2");
  });

  const confusable: readonly (readonly [string, string, boolean])[] = [
    ["torch", "torch", true],
    ["Torch", "torch", true],
    ["tortch", "torch", true],
    ["porch", "torch", true],
    ["torches", "torch", false],
    ["lamp", "torch", false],
  ];
  for (const [slug, other, expected] of confusable) {
    test(`${slug} and ${other} are ${expected ? "" : "not "}confusable`, () =>
      assert.equal(isConfusable(slug, [other]), expected));
  }

  test("broken percent-encoding in a destination does no harm", () => {
    assert.ok(Array.isArray(suggestSlugs("https://shop.example/%zz%C3/lantern", "", [])));
  });
});

describe("the closest addresses to one that was missed", () => {
  const known = ["/calendar/november", "/resources", "/reviews/harbour-eight-inch", "/thirteen", "/dob"].map(
    (address) => ({ address, title: address }),
  );
  const cases: readonly (readonly [missed: string, first: string | undefined])[] = [
    ["/calender/november", "/calendar/november"],
    ["/resource", "/resources"],
    ["/Resources", "/resources"],
    ["/harbour-eight-inch", "/reviews/harbour-eight-inch"],
    ["/therteen", "/thirteen"],
    ["/dobs", "/dob"],
    ["/wp-login.php", undefined],
    ["/", undefined],
  ];
  for (const [missed, first] of cases)
    test(missed, () => assert.equal(closestAddresses(missed, known, 3)[0]?.address, first));
  test("there are never more than asked for", () =>
    assert.equal(closestAddresses("/dob", [...known, ...known, ...known], 2).length, 2));
});
