import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { homePhone } from "./home-phone.ts";
import { repairAddress } from "./repair.ts";

describe("a text with two good readings", () => {
  const cases: readonly (readonly [pasted: string, taken: string | undefined, ...others: string[]])[] = [
    ["https://shop.example/Jeopardy!", "https://shop.example/Jeopardy", "<https://shop.example/Jeopardy!>"],
    [
      "https://shop.example/wiki/Lens_House_Inc.",
      "https://shop.example/wiki/Lens_House_Inc",
      "<https://shop.example/wiki/Lens_House_Inc.>",
    ],
    ["https://shop.example/wiki/U.S.", "https://shop.example/wiki/U.S", "<https://shop.example/wiki/U.S.>"],
    ["https://shop.example/lamp.", "https://shop.example/lamp"],
    ["https://shop.example!", "https://shop.example/"],
    ["https://shop.example/a,", "https://shop.example/a"],
    ["notes.md", "https://notes.md/", "/notes.md", "/files/notes.md"],
    ["photos.zip", "https://photos.zip/", "/photos.zip", "/files/photos.zip"],
    ["brochure.pdf", "/brochure.pdf", "/files/brochure.pdf"],
    ["shop.example", "https://shop.example/"],
    ["/brochure.pdf", "/brochure.pdf"],
    ["https://a.example/x https://b.example/y", undefined, "https://a.example/x", "https://b.example/y"],
    [
      "https://a.example/x,\nhttps://b.example/y;\nhttp://c.example/",
      undefined,
      "https://a.example/x",
      "https://b.example/y",
      "http://c.example/",
    ],
    ["https://a.example/x?to=https://b.example/y", "https://a.example/x?to=https://b.example/y"],
    ["https://a.example/a b https://b.example/y", "https://a.example/a%20b%20https://b.example/y"],
  ];
  for (const [pasted, taken, ...others] of cases)
    test(JSON.stringify(pasted), () => {
      const repaired = repairAddress(pasted);
      assert.deepEqual([repaired.ok ? repaired.address : undefined, repaired.others], [taken, others]);
      // Each can be taken as it is offered, and asks nothing more.
      for (const other of others) {
        const again = repairAddress(other);
        assert.ok(again.ok && again.address.endsWith(other.replace(/^<|>$/g, "")), other);
      }
    });

  test("what stands in an attribute has one reading", () =>
    assert.deepEqual(repairAddress("https://shop.example/Jeopardy!", { isExact: true }).others, []));
});

describe("a phone number without its country", () => {
  const cases: readonly (readonly [country: string, typed: string, address: string | undefined])[] = [
    ["GB", "020 7946 0000", "tel:+442079460000"],
    ["GB", "(020) 7946-0000 ext. 12", "tel:+442079460000;ext=12"],
    ["DE", "030/123456", "tel:+4930123456"],
    ["IT", "06 6982 1234", "tel:+390669821234"],
    ["US", "(212) 555-0123", "tel:+12125550123"],
    ["US", "212-555-0123", "tel:+12125550123"],
    ["FR", "01 99 00 12 34", "tel:+33199001234"],
    ["GB", "0123 4567 8901 2345 678", undefined],
    ["", "020 7946 0000", undefined],
    ["ZZ", "020 7946 0000", undefined],
  ];
  for (const [country, typed, address] of cases)
    test(`${typed} in ${country || "no country"}`, () => {
      const repaired = repairAddress(typed, { homePhone: (text) => homePhone(text, country) });
      assert.equal(repaired.ok ? repaired.address : undefined, address);
      if (repaired.ok)
        assert.deepEqual(
          repaired.repairs.map(({ code }) => code),
          ["encoded"],
        );
    });

  test("one with its country keeps it, whichever the site's is", () => {
    const repaired = repairAddress("+44 (0)20 7946 0000", { homePhone: (text) => homePhone(text, "DE") });
    assert.equal(repaired.ok && repaired.address, "tel:+442079460000");
  });
});
