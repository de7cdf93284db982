import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { readAddressList } from "./address-list.ts";

describe("a list of addresses", () => {
  const A = "https://shop.example/terms";
  const cases: readonly (readonly [
    says: string,
    text: string,
    sign: string,
    items: readonly (readonly [address: string, slug: string, title: string])[],
  ])[] = [
    [
      "one a line",
      `${A}\n\n${A}/2`,
      " ",
      [
        [A, "", ""],
        [`${A}/2`, "", ""],
      ],
    ],
    ["words behind it", `${A} lamp  A red lamp`, " ", [[A, "lamp", "A red lamp"]]],
    ["commas with spaces", `${A}, lamp, A red lamp`, ",", [[A, "lamp", "A red lamp"]]],
    ["commas", `${A},myterms,Terms`, ",", [[A, "myterms", "Terms"]]],
    [
      "commas in every line",
      `${A},a,One\n${A}/2,b,Two`,
      ",",
      [
        [A, "a", "One"],
        [`${A}/2`, "b", "Two"],
      ],
    ],
    [
      "an empty name",
      `${A},,Terms\n${A}/2,b,Two`,
      ",",
      [
        [A, "", "Terms"],
        [`${A}/2`, "b", "Two"],
      ],
    ],
    ["cells in quotation marks", `"${A}","lamp","A lamp, red"`, ",", [[A, "lamp", "A lamp, red"]]],
    ["quotation marks within", `${A},lamp,"The ""red"" one"`, ",", [[A, "lamp", 'The "red" one']]],
    ["semicolons", `${A};lamp;A lamp, red`, ";", [[A, "lamp", "A lamp, red"]]],
    ["tabs", `${A}\tlamp\tA lamp, red; new`, "\t", [[A, "lamp", "A lamp, red; new"]]],
    ["tabs and no name", `${A}\t\tA lamp`, "\t", [[A, "", "A lamp"]]],
    ["headings", `Title,URL,Slug\nA lamp,${A},lamp`, ",", [[A, "lamp", "A lamp"]]],
    ["headings of other columns", `id;url;clicks\n7;${A};12`, ";", [[A, "", ""]]],
    ["headings and tabs", `short link\tdestination\nlamp\t${A}`, "\t", [[A, "lamp", ""]]],
    [
      "an address with commas",
      "https://shop.example/item,42,0",
      " ",
      [["https://shop.example/item,42,0", "", ""]],
    ],
    [
      "a file's name behind a comma",
      "https://news.example/story,17.html",
      " ",
      [["https://news.example/story,17.html", "", ""]],
    ],
    [
      "commas in one of many",
      `${A}\nhttps://shop.example/a,b\n${A}/3`,
      " ",
      [
        [A, "", ""],
        ["https://shop.example/a,b", "", ""],
        [`${A}/3`, "", ""],
      ],
    ],
    ["no scheme", "shop.example/x,lamp,Lamp", ",", [["shop.example/x", "lamp", "Lamp"]]],
    ["paths of ours", "/lamps,light,Light", ",", [["/lamps", "light", "Light"]]],
    [
      "Windows line ends",
      `${A},a,One\r\n${A}/2,b,Two\r\n`,
      ",",
      [
        [A, "a", "One"],
        [`${A}/2`, "b", "Two"],
      ],
    ],
    ["nothing", " \n ", " ", []],
  ];
  for (const [says, text, sign, items] of cases)
    test(says, () => {
      const read = readAddressList(text);
      assert.deepEqual(
        [read.sign, read.items.map(({ address, slug, title }) => [address, slug, title])],
        [sign, items],
      );
    });

  test("lines are counted as they stand, empty ones and headings too", () => {
    assert.deepEqual(
      readAddressList(`url,slug\n\n${A},a\n${A}/2,b`).items.map(({ line }) => line),
      [3, 4],
    );
    assert.deepEqual(
      readAddressList(`\n${A}\n\n${A}/2`).items.map(({ line }) => line),
      [2, 4],
    );
  });
});
