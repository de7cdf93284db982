import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { testDesk, type TestDesk } from "../../../../tests/support/desk.ts";
import { HANDLED } from "../../handlers.ts";
import { depthOf } from "./read-body.ts";

let garden: TestDesk;
before(async () => {
  garden = await testDesk();
});
after(() => garden.close());

const IDS = [
  "abc",
  "0",
  "-1",
  "1.5",
  "99999999999999999999",
  "constructor",
  "__proto__",
  "%00",
  "1%0A",
  "%F0%9F",
  "null",
  "1;2",
  "9".repeat(300),
];
const QUERIES = [
  "sort=constructor",
  "sort=-__proto__",
  "sort=toString",
  "cursor=%00",
  "cursor=AAAA",
  "limit=NaN",
  "limit=1e9",
  "limit=1&limit=2",
  "nothing=1",
  "__proto__=x",
  "q=%F0%9F",
  "from=yesterday",
  "by=valueOf",
  "page=%25",
  "network=%00",
];
const nested = (depth: number): string => `${'{"children":['.repeat(depth)}${"]}".repeat(depth)}`;
const BODIES: readonly (readonly [type: string, raw: string])[] = [
  ["application/json", ""],
  ["application/json", "null"],
  ["application/json", "[]"],
  ["application/json", '"x"'],
  ["application/json", "{"],
  ["application/json", '{"version":1e400,"items":{"length":5}}'],
  ["application/json", '{"__proto__":{"x":1},"constructor":1,"version":"1"}'],
  [
    "application/json",
    '{"version":1,"rules":"x","body":{"type":"doc","content":{"length":3}},"html":{"a":1},"ids":[{}],"filter":[],"action":null}',
  ],
  ["application/json", nested(20_000)],
  ["application/json", `{"version":0,"items":[${nested(140)}]}`],
  ["text/plain", "{}"],
  ["multipart/form-data; boundary=x", "--x--"],
  ["application/json;charset=utf-16", "{}"],
];

describe("a walk over the whole API with crooked input", () => {
  for (const { call: declared } of HANDLED) {
    const { method, path, query, body, bytes: takesBytes } = declared;
    test(`${method} ${path} has no answer that says that the fault is ours`, async () => {
      const asked = async (where: string, options: { raw?: string; type?: string } = {}): Promise<void> => {
        const { status, type } = await garden.call(method, where, undefined, {
          headers: options.type ? { "Content-Type": options.type } : {},
          ...(options.raw === undefined ? {} : { raw: options.raw }),
        });
        assert.ok(status < 500, `${method} ${where} ${options.raw?.slice(0, 60) ?? ""}: ${status}`);
        if (status >= 400) assert.match(type, /problem\+json/);
      };
      const filled = (value: string): string => path.replace(":site", "garden").replace(/:\w+/g, value);
      const [kind = ""] = /:(?:job|session|item|host)\b/.exec(path) ?? [];
      const rights: Record<string, string> = { "": "1", ":item": "page-1", ":host": "garden.example" };
      const right = rights[kind] ?? "6f2c1d1e-7a7e-4a53-9d0c-2f0f3c1b2a10";
      const names = [...path.matchAll(/:(\w+)/g)].map(([, name]) => name);
      if (names.some((name) => name !== "site"))
        for (const id of IDS) {
          const { status } = await garden.call(
            method,
            filled(id),
            body ? {} : undefined,
            takesBytes ? { raw: "x" } : {},
          );
          // Sets of rules are counted from 0.
          if (id === "0" && names.includes("version")) assert.ok(status < 500);
          else assert.equal(status, id === "%00" ? 400 : 404, `${method} ${filled(id)}`);
        }
      if (names.includes("site"))
        for (const key of ["%00", "Garden", "..%2f", "constructor"])
          await asked(path.replace(":site", key).replace(/:\w+/g, "1"));
      const raw = takesBytes ? { raw: "x" } : body ? { raw: "{}", type: "application/json" } : {};
      for (const parameter of QUERIES) {
        await asked(`${filled(right)}?${parameter}`, raw);
        if (query) continue;
        const { status, body: problem } = await garden.call(method, `${filled(right)}?nothing=1`, undefined, {
          headers: raw.type ? { "Content-Type": raw.type } : {},
          ...(raw.raw === undefined ? {} : { raw: raw.raw }),
        });
        assert.equal(status, 400);
        assert.equal(problem.errors[0].path, "nothing");
      }
      if (body) for (const [type, text] of BODIES) await asked(filled(right), { raw: text, type });
      if (takesBytes)
        for (const text of ["", "\0", "PK\u0003\u0004", '{"a":', 'a,b\n"', nested(2_000)])
          await asked(`${filled(right)}?name=${encodeURIComponent("100%.html")}&network=x&format=csv`, {
            raw: text,
            type: "text/csv",
          });
    });
  }

  test("every list is cut to the part that is asked for, those that are answered whole too", async () => {
    for (let n = 0; n < 3; n += 1) await garden.call("POST", "/tokens", { name: `t${n}`, role: "reader" });
    const first = await garden.call("GET", "/tokens?limit=2");
    assert.deepEqual([first.body.items.length, first.body.total], [2, 3]);
    const rest = await garden.call("GET", `/tokens?limit=2&cursor=${first.body.nextCursor}`);
    assert.deepEqual([rest.body.items.length, rest.body.nextCursor], [1, null]);
    assert.equal((await garden.call("GET", "/tokens")).body.items.length, 3);
    assert.equal((await garden.call("GET", "/tokens?limit=0")).status, 400);
    for (const path of ["/sites", "/sites/garden/blocks", "/sites/garden/programs", "/sites/garden/networks"])
      assert.equal((await garden.call("GET", `${path}?limit=500`)).status, 200, path);
  });

  test("methods that a path does not answer are named", async () => {
    for (const method of ["PUT", "PATCH", "DELETE", "HEAD"]) {
      const { status, headers } = await garden.call(method, "/sites/garden/paste");
      assert.deepEqual([status, headers.get("allow")], [405, "POST, OPTIONS"]);
    }
  });

  test("nothing of it was a failure of ours", () => assert.deepEqual(garden.failures, []));
});

describe("how deep JSON is nested", () => {
  const cases: readonly (readonly [json: string, depth: number])[] = [
    ["1", 0],
    ["[]", 1],
    ['{"a":[{}]}', 3],
    ['"[[[["', 0],
    ['["\\"[[", "\\\\", [1]]', 2],
    ["[[[", 3],
    ['"[', 0],
  ];
  for (const [json, depth] of cases) test(`${json}: ${depth}`, () => assert.equal(depthOf(json), depth));
});
