import assert from "node:assert/strict";
import { describe, test } from "node:test";
import type { EdgeRoute } from "./edge-route.ts";
import { EdgeTable } from "./edge-table.ts";
import { NGINX_MAPS } from "./nginx-maps.ts";

const SITES = ["1", "2"].map((id) => ({
  id,
  primary: `s${id}.example`,
  hosts: [`s${id}.example`, `www.s${id}.example`],
  former: [],
}));

function route(id: string, keys: readonly string[], more: Partial<EdgeRoute> = {}): EdgeRoute {
  return {
    id,
    siteId: "1",
    host: null,
    keys,
    caseInsensitive: true,
    destination: `https://shop.example/${id}`,
    status: 302,
    counted: true,
    more: null,
    ...more,
  };
}

function tableOf(routes: Iterable<EdgeRoute>): EdgeTable {
  const table = new EdgeTable(4601);
  for (const site of SITES) table.putSite(site);
  for (const one of routes) table.putRoute(one.id, one);
  return table;
}

/** What stands in each map, and the counts. */
function writtenOf(table: EdgeTable): { maps: Record<string, string[]>; counts: unknown } {
  const maps: Record<string, string[]> = Object.fromEntries(NGINX_MAPS.map((name) => [name, []]));
  const counts = table.write((site, { map, host, key, value }) =>
    maps[map]!.push(`${site.id} ${host} ${key} ${value}`),
  );
  for (const lines of Object.values(maps)) lines.sort();
  return { maps, counts };
}

describe("an edge's routes, patched", () => {
  test("routes that share an address are left to us as long as they do, each with all of its addresses", () => {
    const table = tableOf([route("1", ["/a", "/far"]), route("2", ["/b"])]);
    const left = (): unknown => writtenOf(table).counts;
    const all = (routes: number, shared?: number): unknown =>
      new Map([
        ["1", { routes, left: shared === undefined ? {} : { shared } }],
        ["2", { routes: 0, left: {} }],
      ]);
    assert.deepEqual(left(), all(2));
    table.takeChanged();
    table.putRoute("3", route("3", ["/A"], { host: "s1.example", caseInsensitive: false }));
    assert.deepEqual(left(), all(1, 2));
    assert.ok(table.takeChanged().has("site_15"), "what /far is in is another, too");
    table.putRoute("4", route("4", ["/a"]));
    table.putRoute("3", undefined);
    assert.deepEqual(left(), all(1, 2));
    table.putRoute("4", undefined);
    assert.deepEqual(left(), all(2));
  });

  test("what could not be written is told again, together with what came since", () => {
    const table = tableOf([]);
    table.putRoute("1", route("1", ["/0"]));
    const changed = table.takeChanged();
    assert.deepEqual([...changed], ["site_0"]);
    table.putRoute("2", route("2", ["/1"]));
    table.putBack(changed);
    assert.deepEqual([...table.takeChanged()].sort(), ["site_0", "site_1"]);
    assert.equal(table.takeChanged().size, 0);
  });

  test("after any patches it is as if made at once, and maps that are not told of are as they were", () => {
    let seed = 18;
    const below = (most: number): number => (seed = (seed * 16807) % 2147483647) % most;
    const of = <T>(...all: readonly T[]): T => all[below(all.length)]!;
    const routes = new Map<string, EdgeRoute>();
    const table = tableOf([]);
    let before = writtenOf(table);
    for (let turn = 0; turn < 400; turn += 1) {
      for (let n = below(4); n >= 0; n -= 1) {
        const id = String(below(30));
        const keys = Array.from({ length: 1 + below(3) }, () =>
          of("/a", "/A", "/b", "/b1", "/c-", "/D", "/e", "/E", "wildcard:/x*", "/äö"),
        );
        const one = route(id, [...new Set(keys)], {
          siteId: of("1", "2"),
          host: of(null, "s1.example"),
          destination: of("https://shop.example/x", "/there", null),
        });
        const gone = below(4) === 0;
        if (gone) routes.delete(id);
        else routes.set(id, one);
        table.putRoute(id, gone ? undefined : one);
      }
      const now = writtenOf(table);
      assert.deepEqual(now, writtenOf(tableOf(routes.values())), `turn ${turn}`);
      const changed = table.takeChanged();
      for (const name of NGINX_MAPS)
        if (!changed.has(name)) assert.deepEqual(now.maps[name], before.maps[name], `${name}, turn ${turn}`);
      before = now;
    }
  });
});
