import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { programChangeSchema, programInputSchema } from "./program.ts";
import { JOINED } from "./choices.ts";
import type { Partner } from "./partner.ts";
import { needsReferrer, partnersOf, subIdOf, tracked, untracked } from "../rules/partners.ts";
import type { LinkTerms } from "./build-link.ts";
import { consideredProgram, newerTerms } from "./catalogue-terms.ts";
import { readCatalogue } from "./catalogue.ts";
import { filledCreative } from "../creatives/creative-html.ts";
import { recogniser } from "./recognise.ts";
import { convertLink, type LinkConversion } from "../creatives/convert-link.ts";
import { programSlug } from "./slug.ts";
import { readSnippet, type ReadSnippet } from "../creatives/snippet.ts";
import { fitSubId } from "./sub-id.ts";
import { readTemplate } from "./template.ts";

function terms(template: string, trackingId = "NEW", domains = ["shop.example"]): LinkTerms {
  const read = readTemplate(template);
  assert.ok(read.ok);
  return { name: "Shop", template: read.template, trackingId, domains, subIdLimit: 20 };
}

describe("what links to a program become", () => {
  const old = terms("https://go.example/c/{id}/shop?to={destination}&s={sub}", "OLD");
  const find = recogniser([{ ...old, entrance: "https://shop.example/" }]);
  const place = { page: "/reviews/lamp", position: 3 };
  const now = terms("https://go.example/v2/{id}?u={destination}&l={sub}");
  const ours = "https://go.example/c/OLD/shop?to=https%3A%2F%2Fshop.example%2Fa&s=x";
  const foreign = "https://go.example/c/ELSE/shop?to=https%3A%2F%2Fshop.example%2Fa";
  const rows: [says: string, address: string, conversion: LinkConversion, expected: unknown][] = [
    [
      "ours, on new terms",
      ours,
      { do: "reissue", terms: now },
      "https://go.example/v2/NEW?u=https%3A%2F%2Fshop.example%2Fa&l=x",
    ],
    [
      "ours, that names only a path",
      "https://go.example/c/OLD/shop?to=%2Fitem%2F8",
      { do: "reissue", terms: now },
      "https://go.example/v2/NEW?u=https%3A%2F%2Fshop.example%2Fitem%2F8",
    ],
    [
      "ours, that names no page",
      "https://go.example/c/OLD/shop",
      { do: "reissue", terms: now },
      "https://go.example/v2/NEW?u=https%3A%2F%2Fshop.example%2F",
    ],
    ["ours, on the same terms", ours, { do: "reissue", terms: old }, undefined],
    ["somebody else's, on new terms", foreign, { do: "reissue", terms: now }, undefined],
    [
      "somebody else's, to be ours",
      foreign,
      { do: "track", terms: now, subIdPattern: "{page}-{position}" },
      "https://go.example/v2/NEW?u=https%3A%2F%2Fshop.example%2Fa&l=reviews-lamp-3",
    ],
    [
      "a plain one, to be ours",
      "https://shop.example/a",
      { do: "track", terms: now, subIdPattern: "" },
      "https://go.example/v2/NEW?u=https%3A%2F%2Fshop.example%2Fa",
    ],
    ["ours already, to be ours", ours, { do: "track", terms: now, subIdPattern: "" }, undefined],
    ["ours, made plain", ours, { do: "plain" }, "https://shop.example/a"],
    ["a plain one, made plain", "https://shop.example/a", { do: "plain" }, undefined],
    ["one that leads elsewhere", "https://news.example/", { do: "plain" }, undefined],
    ["a path of our own", "/reviews", { do: "plain" }, undefined],
  ];
  for (const [says, address, conversion, expected] of rows)
    test(says, () => assert.equal(convertLink(address, find, conversion, place), expected));

  test("what cannot be built stays, with the reason", () => {
    const far = terms("{destination}?p={id}", "F", ["far.example"]);
    const refused = convertLink(ours, find, { do: "reissue", terms: far }, place);
    assert.match((refused as { refused: string }).refused, /does not belong to Shop/);
    const nowhere = recogniser([{ ...old, entrance: undefined }]);
    const unknown = convertLink("https://go.example/c/OLD/shop", nowhere, { do: "plain" }, place);
    assert.match((unknown as { refused: string }).refused, /names no page/);
  });
});

describe("partners, as rules see them", () => {
  const partners: Partner[] = [
    {
      id: "1",
      name: "Shop",
      network: "Net",
      domains: ["shop.example"],
      needsReferrer: true,
      trackingId: "OURS",
      template: "https://go.example/c/{id}/shop?to={destination}&s={sub}",
      subIdPattern: "{page}-{position}",
      subIdLimit: 12,
    },
    {
      id: "2",
      name: "Shelf",
      network: "Net",
      domains: ["shelf.example"],
      needsReferrer: false,
      trackingId: "OURS",
      template: "https://go.example/c/{id}/shelf?to={destination}",
    },
    { name: "Bare", network: "", domains: ["bare.example"], needsReferrer: false },
  ];

  test("a tracked link is its program's, though many share the network's host", () => {
    const at = (address: string) => partnersOf(partners, "go.example", address);
    assert.deepEqual(at("https://go.example/c/OURS/shop?to=x"), {
      programs: ["Shop"],
      networks: ["Net"],
      needsReferrer: true,
      end: "shop.example",
    });
    assert.deepEqual(at("https://go.example/c/ELSE/shelf?to=x").programs, ["Shelf"]);
    assert.deepEqual(at("https://go.example/c/OURS/unknown").programs, []);
    assert.deepEqual(partnersOf(partners, "shop.example", "https://shop.example/").programs, ["Shop"]);
    assert.deepEqual(partnersOf(undefined, "shop.example", "https://shop.example/").programs, []);
    assert.deepEqual(
      [
        needsReferrer(partners, ["Shelf", "Shop"]),
        needsReferrer(partners, ["Shelf"]),
        needsReferrer(undefined, ["Shop"]),
      ],
      [true, false, false],
    );
  });

  test("what earns nothing is told, with the tracked link ready", () => {
    const place = { page: "/reviews/first-eyepiece", position: 2 };
    assert.deepEqual(untracked(partners, "https://shop.example/a", place), {
      program: "Shop",
      id: "1",
      foreignId: null,
      destination: "https://shop.example/a",
      tracked: "https://go.example/c/OURS/shop?to=https%3A%2F%2Fshop.example%2Fa&s=reviews-fi-2",
      isPutOnTheWay: false,
    });
    const foreign = "https://go.example/c/ELSE/shop?to=https%3A%2F%2Fshop.example%2Fa";
    assert.equal(untracked(partners, foreign, place)?.foreignId, "ELSE");
    assert.equal(untracked(partners, "https://go.example/c/OURS/shop?to=x", place), undefined);
    assert.equal(untracked(partners, "https://bare.example/", place), undefined, "nobody has said how");
    assert.deepEqual(tracked(partners, "https://go.example/c/OURS/shop?s=here"), {
      program: "Shop",
      subId: "here",
    });
    assert.equal(tracked(partners, foreign), undefined);
    assert.equal(subIdOf(partners, "https://go.example/c/OURS/shelf?to=x"), null);
  });
});

describe("names", () => {
  test("of short links follow the program's pattern", () => {
    const source = {
      program: "Über Optik",
      page: "/reviews/first-eyepiece",
      destination: "https://shop.example/item/Eight-Inch.html?x=1",
    };
    assert.equal(programSlug("{product}", source), "eight-inch");
    assert.equal(programSlug("{program}-{page}", source), "uber-optik-first-eyepiece");
    assert.equal(programSlug("{product}", { program: "A", destination: "https://shop.example/" }), "");
    assert.equal(programSlug("go {program}!", source), "go-uber-optik");
  });

  test("of placements lose their middle, never the position that tells them apart", () => {
    assert.equal(fitSubId("a-short-one-3", 20), "a-short-one-3");
    assert.equal(fitSubId("instruments-eyepieces-you-keep-12", 20), "instruments-eyepi-12");
    assert.equal(fitSubId("abcdefghij", 4), "abcd");
  });
});

describe("a creative, filled", () => {
  const of = (html: string): ReadSnippet => {
    const read = readSnippet(html);
    assert.ok(read.ok);
    return read.snippet;
  };

  test("is only its link, words or picture, and pixel, with nothing that could run", () => {
    const snippet = of(
      `<a href="https://go.example/{id}?q=&quot;" onclick="x()"><img src="https://cdn.example/{id}.png" alt='"><script>' width="30" height="20"></a><img src="https://go.example/see?i={id}" width="1" height="1">`,
    );
    assert.deepEqual(filledCreative(snippet, { id: "A&B", sub: "" }, "7"), {
      ok: true,
      href: "https://go.example/A%26B?q=%22",
      inside:
        '<img src="https://cdn.example/A%26B.png" alt="&quot;&gt;&lt;script&gt;" width="30" height="20">',
      picture: "https://cdn.example/A%26B.png",
      html: '<a href="https://go.example/A%26B?q=%22" data-creative="7"><img src="https://cdn.example/A%26B.png" alt="&quot;&gt;&lt;script&gt;" width="30" height="20"></a><img src="https://go.example/see?i=A%26B" alt="" width="1" height="1">',
    });
    assert.deepEqual(
      filledCreative(of("<a href='https://go.example/'>1 < 2 & 3</a>"), { id: "", sub: "" }, "8"),
      {
        ok: true,
        href: "https://go.example/",
        inside: "1 &lt; 2 &amp; 3",
        picture: null,
        html: '<a href="https://go.example/" data-creative="8">1 &lt; 2 &amp; 3</a>',
      },
    );
  });

  test("waits while the account is not known, in link, picture and pixel alike", () => {
    for (const html of [
      "<a href='https://go.example/{id}'>x</a>",
      "<a href='https://go.example/'><img src='https://cdn.example/{id}.png' width=30 height=20></a>",
      "<a href='https://go.example/'>x</a><img src='https://go.example/{id}' width=1 height=1>",
    ])
      assert.equal(filledCreative(of(html), { id: "", sub: "" }, "1").ok, false, html);
  });
});

describe("a catalogue's entry", () => {
  test("becomes a program that is considered, with what the catalogue says", () => {
    const read = readCatalogue(
      JSON.stringify([
        {
          name: "Cabins",
          domains: ["cabins.example"],
          commission: 15,
          commissionKind: "flat",
          epc30: 18,
          category: "stays",
          needsReferrer: "yes",
        },
      ]),
      true,
    );
    assert.ok(read.ok);
    const program = programInputSchema.parse(consideredProgram(read.entries[0]!, "Net"));
    assert.deepEqual(
      [
        program.state,
        program.network,
        program.commission,
        program.epc.d30,
        program.tags,
        program.needsReferrer,
      ],
      ["considering", "Net", "15", "18", ["stays"], true],
    );
    assert.ok(!JOINED.includes(program.state));
  });

  test("that makes no sense is named and left out", () => {
    const read = readCatalogue(
      "name,domains,commission\nGood,good.example,5\nBad,https://bad.example/,5\n,none.example,5\nWorse,worse.example,lots\n",
      false,
    );
    assert.ok(read.ok);
    assert.deepEqual(
      [read.entries.map(({ name }) => name), read.refused.map(({ line }) => line)],
      [["Good"], [3, 4, 5]],
    );
  });

  test("beside the program it is already: what it tells otherwise, as the change that takes it over", () => {
    const read = readCatalogue(
      '[{"name": "Dew and Felt", "domains": ["dew.example"], "commission": "7.0", "cookieDays": 20, "epc30": "21.70"}]',
      true,
    );
    assert.ok(read.ok);
    const entry = read.entries[0]!;
    const record = programInputSchema.parse({ ...consideredProgram(entry, "Net"), commission: "7" });
    assert.deepEqual(newerTerms(entry, record), {});
    const older = { ...record, commission: "8", cookieDays: 30, epc: { d7: "1.00", d30: null, d90: null } };
    assert.deepEqual(newerTerms(entry, older), {
      commission: "7.0",
      cookieDays: 20,
      epc: { d7: "1.00", d30: "21.70", d90: null },
    });
    // A catalogue that tells no EPC takes none away.
    assert.deepEqual(newerTerms({ ...entry, epc30: null }, record), {});
  });

  test("of something that is no catalogue is told in a sentence", () => {
    for (const [text, isJson] of [
      ["{", true],
      ["3", true],
      ["null", true],
      ["a,b\n1,2", false],
      ["", false],
    ] as const)
      assert.equal(readCatalogue(text, isJson).ok, false, text);
  });
});

describe("a change of a program", () => {
  test("names only what it changes, and fills nothing in", () => {
    assert.deepEqual(programChangeSchema.parse({ version: 2, notes: "x" }), { version: 2, notes: "x" });
    assert.equal(programChangeSchema.safeParse({ notes: "x" }).success, false);
    assert.equal(
      programChangeSchema.safeParse({ version: 1, template: "https://go.example/" }).success,
      false,
    );
    assert.equal(
      programChangeSchema.safeParse({ version: 1, commissionKind: "percent", commission: "101" }).success,
      false,
    );
  });
});
