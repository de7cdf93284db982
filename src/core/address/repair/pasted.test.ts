import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { compareKey } from "../compare.ts";
import { hostOf, ownPlace } from "../classify.ts";
import { admitted } from "../gate.ts";
import { repairAddress } from "./repair.ts";

/** What people paste, what comes out, and what was done. A refusal is told by its code. */
type Row = readonly [pasted: string, address: string, ...repairs: string[]];

const LONG = "https://shop.example/a-very-long-path-that-a-mail-program-will-";
const tables: Readonly<Record<string, readonly Row[]>> = {
  "punctuation of the sentence around it": [
    ["https://shop.example/lamp.", "https://shop.example/lamp", "punctuation"],
    ["https://shop.example/lamp,", "https://shop.example/lamp", "punctuation"],
    ["https://shop.example/lamp;", "https://shop.example/lamp", "punctuation"],
    ["https://shop.example/lamp:", "https://shop.example/lamp", "punctuation"],
    ["https://shop.example/lamp!", "https://shop.example/lamp", "punctuation"],
    ["https://shop.example/lamp…", "https://shop.example/lamp", "punctuation"],
    ["https://shop.example/lamp。", "https://shop.example/lamp", "punctuation"],
    ["https://shop.example/lamp)", "https://shop.example/lamp", "punctuation"],
    ["https://shop.example/lamp).", "https://shop.example/lamp", "punctuation"],
    ["https://shop.example/lamp.)", "https://shop.example/lamp", "punctuation"],
    ["https://shop.example/lamp]", "https://shop.example/lamp", "punctuation"],
    ["https://shop.example/lamp'.", "https://shop.example/lamp", "punctuation"],
    ["https://shop.example/?q=a,b;", "https://shop.example/?q=a,b", "punctuation"],
    ["https://shop.example/x#part.", "https://shop.example/x#part", "punctuation"],
    [
      "mailto:post@lowlantern.example?subject=a.&amp;",
      "mailto:post@lowlantern.example?subject=a",
      "entities",
      "punctuation",
    ],
    ["https://shop.example/lamp! >", "https://shop.example/lamp", "punctuation"],
    ["« https://shop.example/lamp . »,", "https://shop.example/lamp", "words"],
    ["shop.example,", "https://shop.example/", "punctuation", "missing-scheme"],
    ["shop.example;", "https://shop.example/", "punctuation", "missing-scheme"],
    ["shop.example/lamp).", "https://shop.example/lamp", "punctuation", "missing-scheme"],
    ["www.shop.example/x).", "https://www.shop.example/x", "punctuation", "missing-scheme"],
    ["post@lowlantern.example.", "mailto:post@lowlantern.example", "punctuation", "missing-scheme"],
    ["mailto:post@lowlantern.example,", "mailto:post@lowlantern.example", "punctuation"],
    // Its own.
    ["https://shop.example/lamp?", "https://shop.example/lamp?"],
    ["https://shop.example/lamp/", "https://shop.example/lamp/"],
    ["https://shop.example/O'Brien", "https://shop.example/O'Brien"],
    ["https://shop.example/v1.2", "https://shop.example/v1.2"],
    ["https://en.example/wiki/Moon_(band)", "https://en.example/wiki/Moon_(band)"],
    ["https://en.example/wiki/Moon_(band).", "https://en.example/wiki/Moon_(band)", "punctuation"],
    ["https://en.example/wiki/Moon_(band))", "https://en.example/wiki/Moon_(band)", "punctuation"],
    ["https://en.example/a[1]", "https://en.example/a[1]"],
    ["/notes.", "/notes."],
    ["/wiki/Moon_(band)", "/wiki/Moon_(band)"],
  ],
  "quotes and brackets of any language, at one side too": [
    ["„https://shop.example/x”", "https://shop.example/x", "unwrapped"],
    ["„https://shop.example/x“", "https://shop.example/x", "unwrapped"],
    ["‚https://shop.example/x‘", "https://shop.example/x", "unwrapped"],
    ["»https://shop.example/x«", "https://shop.example/x", "unwrapped"],
    ["«https://shop.example/x»", "https://shop.example/x", "unwrapped"],
    ["‹https://shop.example/x›", "https://shop.example/x", "unwrapped"],
    ["›https://shop.example/x‹", "https://shop.example/x", "unwrapped"],
    ["「https://shop.example/x」", "https://shop.example/x", "unwrapped"],
    ["《https://shop.example/x》", "https://shop.example/x", "unwrapped"],
    ["“https://shop.example/x", "https://shop.example/x", "punctuation"],
    ["https://shop.example/x”", "https://shop.example/x", "punctuation"],
    ["https://shop.example/x»", "https://shop.example/x", "punctuation"],
    ['"https://shop.example/x', "https://shop.example/x", "punctuation"],
    ["(https://shop.example/x", "https://shop.example/x", "punctuation"],
    ["<https://shop.example/x>.", "https://shop.example/x", "punctuation", "unwrapped"],
    ['"https://shop.example/x",', "https://shop.example/x", "punctuation"],
    ["“shop.example/lamp”,", "https://shop.example/lamp", "punctuation", "missing-scheme"],
    ["(“https://shop.example/x”).", "https://shop.example/x", "punctuation", "unwrapped"],
  ],
  "words around one address": [
    ["See https://shop.example/x", "https://shop.example/x", "words"],
    ["See https://shop.example/x for more.", "https://shop.example/x", "words"],
    ["See: https://shop.example/x.", "https://shop.example/x", "words", "punctuation"],
    ["It’s https://shop.example/x, isn’t it?", "https://shop.example/x", "words", "punctuation"],
    ["more at www.shop.example/x", "https://www.shop.example/x", "words", "missing-scheme"],
    ["> https://shop.example/x", "https://shop.example/x", "words"],
    [">> https://shop.example/x", "https://shop.example/x", "words"],
    [
      "(see https://en.example/wiki/Moon_(band))",
      "https://en.example/wiki/Moon_(band)",
      "unwrapped",
      "words",
    ],
    ["see https://a.example and https://b.example", "not-an-address"],
    ["first eyepiece", "not-an-address"],
    ["\n https://shop.example/x\n", "https://shop.example/x", "trimmed"],
  ],
  "lines that a mail program broke": [
    [`${LONG}\nbreak/here?x=1`, `${LONG}break/here?x=1`, "broken-lines"],
    [`${LONG}\r\nbreak/\r\nhere`, `${LONG}break/here`, "broken-lines"],
    [`> ${LONG}\n> break`, `${LONG}break`, "broken-lines"],
    ["https://shop.example/search?\nq=lamp", "https://shop.example/search?q=lamp", "broken-lines"],
    ["https://shop.example/lamps\n?colour=red", "https://shop.example/lamps?colour=red", "broken-lines"],
    ["<https://shop.example/la\nmp>", "https://shop.example/lamp", "broken-lines", "unwrapped"],
    ["https://shop.example/lamp\nIt is red.", "control-characters"],
    ["https://shop.example/a\nhttps://shop.example/b", "not-an-address"],
    ["https://shop.example/lamp\nnext", "control-characters"],
  ],
  "markup that it was copied in": [
    ['href="https://shop.example/x"', "https://shop.example/x", "unwrapped"],
    ["src='https://shop.example/x'", "https://shop.example/x", "unwrapped"],
    ["href=https://shop.example/x", "https://shop.example/x", "unwrapped"],
    [
      '<iframe width="2" src="https://video.example/e/1?a=1&amp;b=2"></iframe>',
      "https://video.example/e/1?a=1&b=2",
      "unwrapped",
    ],
    ['<img alt="" src="https://shop.example/p.jpg">', "https://shop.example/p.jpg", "unwrapped"],
    [
      '<a href="https://shop.example/x"><img src="https://shop.example/p.jpg"></a>',
      "https://shop.example/x",
      "unwrapped",
    ],
    ["[url]https://shop.example/x[/url]", "https://shop.example/x", "unwrapped"],
    ["[URL=https://shop.example/x]Lamp[/URL]", "https://shop.example/x", "unwrapped"],
    ['[url="https://shop.example/x"]Lamp[/url]', "https://shop.example/x", "unwrapped"],
    ["[img]https://shop.example/p.jpg[/img]", "https://shop.example/p.jpg", "unwrapped"],
    ["[1]: https://shop.example/x", "https://shop.example/x", "unwrapped"],
    ['[lamp]: <https://shop.example/x> "A lamp"', "https://shop.example/x", "unwrapped"],
    ["[Lamp](https://shop.example/x).", "https://shop.example/x", "punctuation", "unwrapped"],
  ],
  schemes: [
    ["httsp://shop.example/", "https://shop.example/", "scheme-spelling"],
    ["htpts://shop.example/", "https://shop.example/", "scheme-spelling"],
    ["htttps://shop.example/", "https://shop.example/", "scheme-spelling"],
    ["httpss://shop.example/", "https://shop.example/", "scheme-spelling"],
    ["httos://shop.example/", "https://shop.example/", "scheme-spelling"],
    ["tps://shop.example/", "https://shop.example/", "scheme-spelling"],
    ["ttps://shop.example/", "https://shop.example/", "scheme-spelling"],
    ["hptt://shop.example/", "http://shop.example/", "scheme-spelling"],
    ["https:// shop.example/x", "https://shop.example/x", "slashes"],
    ["https: //shop.example/x", "https://shop.example/x", "slashes"],
    ["https : // shop.example/x", "https://shop.example/x", "slashes"],
    ["https.//shop.example/", "https://shop.example/", "slashes"],
    ["https：//shop.example/", "https://shop.example/", "slashes"],
    ["https：／／shop.example／x", "https://shop.example/x", "slashes"],
    ["ftp://shop.example/", "scheme"],
    ["javascript:alert(1)", "scheme"],
    ["file:///C:/a.html", "scheme"],
  ],
  "files of the site are no hosts": [
    ["brochure.pdf", "/brochure.pdf", "rooted"],
    ["lamp.html", "/lamp.html", "rooted"],
    ["lamp.htm#top", "/lamp.htm#top", "rooted"],
    ["index.php", "/index.php", "rooted"],
    ["index.php?id=3", "/index.php?id=3", "rooted"],
    ["first-light.jpg", "/first-light.jpg", "rooted"],
    ["2026.report.docx", "/2026.report.docx", "rooted"],
    ["./brochure.pdf", "/brochure.pdf", "rooted"],
    ["shop.example/brochure.pdf", "https://shop.example/brochure.pdf", "missing-scheme"],
    ["brochure.example", "https://brochure.example/", "missing-scheme"],
  ],
  "phone numbers": [
    ["+44 (0)20 7946 0000", "tel:+442079460000", "encoded"],
    ["+44 (0) 20 7946 0000", "tel:+442079460000", "encoded"],
    ["0044 (0)20 7946 0000", "tel:+442079460000", "encoded"],
    ["+44 20 7946 0000", "tel:+442079460000", "encoded"],
    ["tel:+44-20-7946-0000;ext=12", "tel:+442079460000;ext=12", "encoded"],
    ["tel:+442079460000;ext=12", "tel:+442079460000;ext=12"],
    ["+44 20 7946 0000 ext. 12", "tel:+442079460000;ext=12", "encoded"],
    ["+44 20 7946 0000 x12", "tel:+442079460000;ext=12", "encoded"],
    ["020 7946 0000", "not-an-address"],
    ["(020) 7946 0000", "not-an-address"],
  ],
  mail: [
    ["Anna <anna@lamps.example>", "mailto:anna@lamps.example", "missing-scheme"],
    ['"Anna B." <anna@lamps.example>', "mailto:anna@lamps.example", "missing-scheme"],
    ["<anna@lamps.example>", "mailto:anna@lamps.example", "unwrapped", "missing-scheme"],
    ["mailto:anna@lamps.example,ben@lamps.example", "mailto:anna@lamps.example,ben@lamps.example"],
    [
      "mailto:anna@lamps.example; ben@lamps.example",
      "mailto:anna@lamps.example,ben@lamps.example",
      "encoded",
    ],
    [
      "mailto:anna@lamps.example?subject=A lamp, please",
      "mailto:anna@lamps.example?subject=A%20lamp,%20please",
      "encoded",
    ],
    [
      "mailto:anna@lamps.example?cc=ben@lamps.example&subject=Hi",
      "mailto:anna@lamps.example?cc=ben@lamps.example&subject=Hi",
    ],
    ["mailto:?subject=A%20lamp", "mailto:?subject=A%20lamp"],
    ["mailto:?subject=A lamp", "mailto:?subject=A%20lamp", "encoded"],
    ["mailto:anna@lamps.example?attach=/etc/passwd", "not-an-address"],
    ["mailto:anna", "not-an-address"],
  ],
  hosts: [
    ["例え。テスト", "https://xn--r8jz45g.xn--zckzah/", "slashes", "missing-scheme", "idna"],
    ["https://例え。テスト/x", "https://xn--r8jz45g.xn--zckzah/x", "slashes", "idna"],
    ["hindi.भारत", "https://hindi.xn--h2brj9c/", "missing-scheme", "idna"],
    ["münchen.example/x", "https://xn--mnchen-3ya.example/x", "missing-scheme", "idna"],
    ["https://shop.example./x", "https://shop.example/x", "host-dot"],
    ["https://shop.example.:8443/x", "https://shop.example:8443/x", "host-dot"],
    ["shop.example.", "https://shop.example/", "punctuation", "missing-scheme"],
  ],
};

for (const [kind, rows] of Object.entries(tables))
  describe(`pasted: ${kind}`, () => {
    for (const [pasted, expected, ...repairs] of rows)
      test(JSON.stringify(pasted), () => {
        const came = repairAddress(pasted);
        assert.equal(came.ok ? came.address : came.reason.code, expected);
        if (came.ok)
          assert.deepEqual(
            came.repairs.map(({ code }) => code),
            repairs,
          );
        // What came out is right as it is.
        if (came.ok) assert.deepEqual(repairAddress(came.address), { ...came, repairs: [], others: [] });
      });
  });

test("an address in an attribute keeps its last sign, and is no prose", () => {
  assert.equal(admitted("https://shop.example/lamp.", "link"), "https://shop.example/lamp.");
  assert.equal(admitted("https://en.example/a)", "link"), "https://en.example/a)");
  assert.equal(admitted("see https://shop.example/lamp", "link"), undefined);
});

test("a host is the same with the dot of the root and without", () => {
  assert.equal(hostOf("https://shop.example./x"), "shop.example");
  assert.equal(compareKey("https://shop.example./x"), compareKey("https://shop.example/x"));
  assert.equal(compareKey("https://shop.example.:81/x"), compareKey("https://shop.example:81/x"));
  assert.deepEqual(ownPlace("https://own.example./x", ["own.example"]), { host: "own.example", key: "/x" });
});
