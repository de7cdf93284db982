import assert from "node:assert/strict";
import { describe, test } from "node:test";
import fc from "fast-check";
import { routeInputSchema, type Route } from "../route.ts";
import { ROUTE_COLUMNS, readRoutesCsv, readRoutesJson, routesToCsv, routeToInput } from "./route-table.ts";
import { guardedCell, readCell } from "../../text/spreadsheet-cell.ts";

const ROUTE: Route = {
  id: "1",
  kind: "short",
  host: "gdn.example",
  match: "exact",
  address: "/dob",
  aliases: ["/dobs", "/8-inch"],
  destination: "https://shop.example/?a=1,2;3",
  status: 302,
  query: "merge",
  parameters: "from=x",
  notice: null,
  title: 'The "big" one',
  tags: ["harbour", "print"],
  robots: { noindex: true, nofollow: false },
  counted: true,
  enabled: false,
  replacesPage: false,
  validFrom: "2026-11-01T00:00:00.000Z",
  validUntil: null,
  afterEnd: "nothing",
  endDestination: null,
  inContent: "nowhere",
  contentPages: [],
  countedFrom: null,
  health: null,
  url: "",
  clicks: 0,
  lastClick: null,
  version: 1,
  createdAt: "",
  updatedAt: "",
};

describe("routes as CSV", () => {
  test("are read back as they were written", () => {
    const { rows, unknown, fault } = readRoutesCsv(routesToCsv([ROUTE]));
    assert.deepEqual([unknown, fault, rows.length, rows[0]?.line], [[], undefined, 1, 2]);
    const written: Record<string, unknown> = { ...routeToInput(ROUTE) };
    const read: Record<string, unknown> = routeInputSchema.parse(rows[0]!.fields);
    for (const [name, value] of Object.entries(read)) assert.deepEqual(value, written[name], name);
    const missing = Object.keys(written).filter((name) => !(name in read) && written[name] !== null);
    assert.deepEqual(missing, ["contentPages"], "an empty list is its default");
  });

  test("tags of any signs, notices and chosen pages are read back as they were", () => {
    const tag = fc.oneof(
      fc.string({ unit: "grapheme", maxLength: 12 }),
      fc.stringMatching(/^[\\\\|; a]{1,8}$/),
    );
    const tags = fc.uniqueArray(tag.map((text) => text.replace(/\s+/g, " ").trim()).filter(Boolean), {
      maxLength: 5,
    });
    const notice = fc.option(
      fc
        .record({
          seconds: fc.integer({ min: 1, max: 60 }),
          text: fc.constantFrom("", "You leave; | us", '=1+1, "so"'),
        })
        .map((one) => ({ ...one })),
    );
    fc.assert(
      fc.property(tags, notice, fc.boolean(), (given, shown, chosen) => {
        const route: Route = {
          ...ROUTE,
          tags: given,
          notice: shown,
          status: shown ? 200 : 302,
          ...(chosen ? { inContent: "pages", contentPages: ["7", "12"] } : {}),
        };
        const { fields } = readRoutesCsv(routesToCsv([route])).rows[0]!;
        assert.deepEqual(fields.tags ?? [], given);
        assert.deepEqual(fields.notice ?? null, shown);
        assert.deepEqual(
          [fields.inContent, fields.contentPages ?? []],
          [route.inContent, route.contentPages],
        );
      }),
    );
  });

  test("lists of other programs are read, backslashes and all", () => {
    const tags = (cell: string) => readRoutesCsv(`address,tags\n/a,"${cell}"\n`).rows[0]!.fields.tags;
    assert.deepEqual(tags("a; b|c"), ["a", "b", "c"]);
    assert.deepEqual(tags("C:\\x; y"), ["C:\\x", "y"]);
    assert.deepEqual(tags(";|"), []);
  });

  test("begin with the columns of the API, in its order", () => {
    assert.match(
      routesToCsv([]),
      /^kind,host,match,address,destination,status,query,title,tags,enabled,valid_from,valid_until,/,
    );
  });

  test("any text is read back from its cell, and none is run as a formula", () => {
    fc.assert(
      fc.property(
        fc.oneof(fc.string(), fc.constantFrom("=1+1", "'=x", "''=y", "+a", "-b", "@c", "\tq", "'", "'a")),
        (text) => {
          assert.equal(readCell(guardedCell(text)), text);
          assert.doesNotMatch(guardedCell(text), /^[=+\-@\t\r]/);
        },
      ),
    );
    fc.assert(
      fc.property(
        fc.string({ unit: "grapheme" }).filter((title) => title.trim() === title && title !== ""),
        (title) => {
          const csv = routesToCsv([{ ...ROUTE, title }]);
          assert.equal(readRoutesCsv(csv).rows[0]!.fields.title, title);
        },
      ),
    );
  });

  const files: readonly (readonly [
    says: string,
    text: string,
    address: string | undefined,
    more?: Record<string, unknown>,
  ])[] = [
    ["a byte order mark", "\uFEFFaddress,destination\r\n/a,/b\r\n", "/a"],
    ["semicolons", "address;destination\n/a;/b\n", "/a", { destination: "/b" }],
    ["tabs", "address\tdestination\n/a\t/b\n", "/a", { destination: "/b" }],
    [
      "quotes and line breaks in a cell",
      'address,title\n/a,"One, ""two""\nthree"\n',
      "/a",
      { title: 'One, "two"\nthree' },
    ],
    [
      "columns in another order and letter case",
      "Title,Valid-From,ADDRESS\nT,2026-11-01T00:00:00Z,/a\n",
      "/a",
      { title: "T", validFrom: "2026-11-01T00:00:00Z" },
    ],
    ["missing columns", "address\n/a\n", "/a", { kind: "redirect" }],
    ["a status that tells the kind", "address,status\n/a,410\n", "/a", { kind: "gone" }],
    ["a guarded formula cell", "address,title\n/a,'=SUM(A1)\n", "/a", { title: "=SUM(A1)" }],
    ["empty lines", "address\n\n/a\n\n", "/a"],
  ];
  for (const [says, text, address, more = {}] of files)
    test(`with ${says} are read`, () => {
      const { rows, fault } = readRoutesCsv(text);
      assert.equal(fault, undefined);
      assert.equal(rows[0]?.fields.address, address);
      for (const [name, value] of Object.entries(more)) assert.deepEqual(rows[0]?.fields[name], value);
    });

  test("lines are counted as an editor of text counts them", () => {
    const { rows } = readRoutesCsv('address,title\n/a,"x\ny"\n\n/b,z\n');
    assert.deepEqual(
      rows.map(({ line }) => line),
      [2, 5],
    );
  });

  test("columns that mean nothing are named, and a file without addresses is no table of routes", () => {
    assert.deepEqual(readRoutesCsv("address,colour\n/a,red\n").unknown, ["colour"]);
    assert.match(readRoutesCsv("from,to\n/a,/b\n").fault ?? "", /“address” is not among them/);
    assert.equal(ROUTE_COLUMNS.length, new Set(ROUTE_COLUMNS).size);
  });
});

describe("routes as JSON", () => {
  test("are a list, or an object that holds one", () => {
    for (const text of [
      '[{"address":"/a"}]',
      '{"routes":[{"address":"/a"}]}',
      '{"items":[{"address":"/a"}]}',
    ])
      assert.deepEqual(readRoutesJson(text).rows, [{ line: 1, fields: { address: "/a" } }]);
    assert.match(readRoutesJson("[").fault ?? "", /no JSON/);
    assert.match(readRoutesJson('{"a":1}').fault ?? "", /list/);
    assert.equal(readRoutesJson("[7]").rows[0]?.fields.address, 7);
  });
});
