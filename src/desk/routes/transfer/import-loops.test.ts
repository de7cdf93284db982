import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { testDesk, type TestDesk } from "../../../../tests/support/desk.ts";

let garden: TestDesk;
before(async () => {
  garden = await testDesk();
  await garden.call("POST", "/sites/garden/pages", {
    path: "/kept/page",
    title: "Kept",
    html: "<p>text</p>",
    publish: true,
  });
  const made = await garden.call("POST", "/sites/garden/routes", {
    kind: "redirect",
    match: "wildcard",
    address: "/stored/*",
    destination: "/lines/$1",
  });
  assert.equal(made.status, 201, JSON.stringify(made.body));
});
after(async () => {
  assert.deepEqual(garden.failures, []);
  await garden.close();
});

const HEAD = "kind,host,match,address,destination,enabled";

describe("an import that would go round in circles", () => {
  const rows: [says: string, lines: string[], refused: number[]][] = [
    ["an exact line that leads to itself", ["redirect,,exact,/a,/a/,"], [2]],
    ["two exact lines that lead to each other", ["redirect,,exact,/a,/b,", "redirect,,exact,/b,/a,"], [2, 3]],
    ["a chain that ends", ["redirect,,exact,/a,/b,", "redirect,,exact,/b,https://shop.example/,"], []],
    [
      "two wildcards that lead to each other",
      ["redirect,,wildcard,/blog/*,/journal/$1,", "redirect,,wildcard,/journal/*,/blog/$1,"],
      [2, 3],
    ],
    ["a wildcard that leads below itself", ["redirect,,wildcard,/deep/*,/deep/er/$1,"], [2]],
    ["a prefix that leads to its own front", ["redirect,,prefix,/front,/front,"], [2]],
    ["a pattern that leads to what it matches", [String.raw`redirect,,pattern,/n/(\d+),/n/7,`], [2]],
    ["a pattern that leads to what it does not match", [String.raw`redirect,,pattern,/n/(\d+),/n/n$1,`], []],
    [
      "an exact line that leads back through a wildcard that is there",
      ["redirect,,exact,/lines/x,/stored/x,"],
      [2],
    ],
    [
      "a wildcard that leads back through one that is there",
      ["redirect,,wildcard,/lines/*,/stored/$1,"],
      [2],
    ],
    [
      "a wildcard that leads on to a page, which answers before what would lead back",
      ["redirect,,wildcard,/to/*,/kept/page,", "redirect,,wildcard,/kept/*,/to/$1,"],
      [],
    ],
    [
      "a circle of which one line is switched off",
      ["redirect,,wildcard,/on/*,/off/$1,", "redirect,,wildcard,/off/*,/on/$1,no"],
      [],
    ],
    [
      "a circle over two hosts",
      [
        "redirect,garden.example,exact,/over,https://gdn.example/over,",
        "short,gdn.example,exact,/over,https://garden.example/over,",
      ],
      [2, 3],
    ],
    [
      "a path on the short host that leads to the same path of the primary one",
      ["short,gdn.example,exact,/kept/page,/kept/page,"],
      [],
    ],
    [
      "the same path on two hosts, each its own",
      [
        "redirect,garden.example,exact,/each,https://gdn.example/each,",
        "short,gdn.example,exact,/each,https://shop.example/,",
      ],
      [],
    ],
  ];
  for (const [says, lines, refused] of rows)
    test(`${refused.length > 0 ? "refused" : "taken"}: ${says}`, async () => {
      const { status, body } = await garden.call("POST", "/sites/garden/routes/import?dryRun=1", undefined, {
        raw: [HEAD, ...lines].join("\n"),
        headers: { "Content-Type": "text/csv" },
      });
      assert.equal(status, 200, JSON.stringify(body));
      assert.deepEqual(
        body.refused.map(({ line }: { line: number }) => line),
        refused,
        JSON.stringify(body.refused),
      );
      for (const { message } of body.refused) assert.match(message, /circle/);
    });
});
