import assert from "node:assert/strict";
import { describe, test } from "node:test";
import fc from "fast-check";
import { destinationKind, ownPlace, type SiteAddresses } from "./classify.ts";
import { compareKey } from "./compare.ts";
import { addressParts, shortenMiddle } from "./display.ts";
import { caseFoldedKey, pathKey } from "./path-key.ts";
import { publicAddress } from "./public-address.ts";

describe("a path is looked up in its normal form (RFC 3986 section 6.2.2)", () => {
  const cases: readonly (readonly [path: string, key: string])[] = [
    ["/", "/"],
    ["", "/"],
    ["/a/b", "/a/b"],
    ["/a/b/", "/a/b"],
    ["/a/b//", "/a/b"],
    ["/a//b", "/a//b"],
    ["/a?x=1", "/a"],
    ["/a#x", "/a"],
    ["/%61%62", "/ab"],
    ["/%7Euser", "/~user"],
    ["/a%2fb", "/a%2Fb"],
    ["/a%20b", "/a%20b"],
    ["/ä", "/%C3%A4"],
    ["/%c3%a4", "/%C3%A4"],
    ["/a/./b", "/a/b"],
    ["/a/../b", "/b"],
    ["/../../b", "/b"],
    ["/a/%2e%2e/b", "/b"],
    ["/a/%2E/b", "/a/b"],
    ["/a/..", "/"],
    ["/.hidden", "/.hidden"],
    ["/%252e%252e/b", "/%252e%252e/b"],
    ["/50%", "/50%25"],
    ["/%zz", "/%25zz"],
    ["/%00", "/%00"],
    ["/\uD800", "/%EF%BF%BD"],
    ["/🔭", "/%F0%9F%94%AD"],
  ];
  for (const [path, key] of cases) test(JSON.stringify(path), () => assert.equal(pathKey(path), key));

  test("the key of a key is the key, for any path", () => {
    fc.assert(
      fc.property(fc.webPath(), fc.string(), (path, noise) => {
        const key = pathKey(`/${path}${noise}`);
        assert.equal(pathKey(key), key);
      }),
    );
  });

  test("folding puts letters in lower case and leaves percent-encoding alone", () => {
    assert.equal(caseFoldedKey("/Thirteen/%C3%84"), "/thirteen/%C3%84");
    assert.equal(caseFoldedKey("/plain"), "/plain");
  });
});

const SITE: SiteAddresses = {
  hosts: ["lowlantern.example", "lntn.example"],
  answers: (host, key) => {
    if (host === "lntn.example") return key === "/forty" ? "route" : undefined;
    return ({ "/reviews/forty": "page", "/chart.pdf": "file", "/links": "route" } as const)[key];
  },
};

describe("where an address leads, seen from the site", () => {
  const cases: readonly (readonly [address: string, kind: string])[] = [
    ["https://shop.example/", "external"],
    ["//shop.example/x", "external"],
    ["/reviews/forty", "page"],
    ["/reviews/forty/?x=1#top", "page"],
    ["https://lowlantern.example/reviews/forty", "page"],
    ["http://lowlantern.example:4601/reviews/forty", "page"],
    ["/chart.pdf", "file"],
    ["/links", "route"],
    ["http://lntn.example/forty", "route"],
    ["http://lntn.example/missing", "broken"],
    ["/missing", "broken"],
    ["missing/too", "broken"],
    ["#heading", "heading"],
    ["mailto:post@lowlantern.example", "mail"],
    ["tel:+441632960144", "phone"],
    ["https://lowlantern.example.evil.example/", "external"],
  ];
  for (const [address, kind] of cases)
    test(address, () => assert.equal(destinationKind(address, SITE), kind));

  test("an address of ours is split into host and key", () => {
    assert.deepEqual(ownPlace("/a/", SITE.hosts), { host: null, key: "/a" });
    assert.deepEqual(ownPlace("http://lntn.example:4601/Forty?x", SITE.hosts), {
      host: "lntn.example",
      key: "/Forty",
    });
    assert.equal(ownPlace("https://shop.example/", SITE.hosts), undefined);
    assert.equal(ownPlace("//", SITE.hosts), undefined);
  });
});

describe("two addresses are the same destination", () => {
  const same: readonly (readonly [string, string])[] = [
    ["https://shop.example", "http://SHOP.example/"],
    ["https://shop.example/a/", "https://shop.example/a"],
    ["https://shop.example/%61", "https://shop.example/a"],
    ["https://shop.example/a#x", "https://shop.example/a"],
    ["/a/", "/a"],
  ];
  for (const [one, other] of same)
    test(`${one} and ${other}`, () => assert.equal(compareKey(one), compareKey(other)));

  test("the order of parameters makes a difference, and so do path and host", () => {
    const keys = [
      "https://s.example/?a=1&b=2",
      "https://s.example/?b=2&a=1",
      "https://s.example/a",
      "https://t.example/a",
    ].map(compareKey);
    assert.equal(new Set(keys).size, keys.length);
  });
});

describe("an address for the eye", () => {
  test("is split into what carries weight and what does not", () => {
    assert.deepEqual(addressParts("https://shop.example:8080/a?b"), {
      before: "https://",
      host: "shop.example:8080",
      after: "/a?b",
    });
    assert.deepEqual(addressParts("/a"), { before: "", host: "", after: "/a" });
  });

  test("is shortened in its middle, to the length asked for", () => {
    assert.equal(shortenMiddle("abcdefghij", 10), "abcdefghij");
    assert.equal(shortenMiddle("abcdefghijk", 7), "abcd…jk");
    fc.assert(
      fc.property(
        fc.string({ minLength: 1 }),
        fc.integer({ min: 3, max: 40 }),
        (text, most) => shortenMiddle(text, most).length <= Math.max(most, 3),
      ),
    );
  });

  test("readers reach .localhost hosts on the delivery port and all others on https", () => {
    assert.equal(publicAddress("lntn.localhost", "/forty", 4601), "http://lntn.localhost:4601/forty");
    assert.equal(publicAddress("lntn.example", "/forty", 4601), "https://lntn.example/forty");
  });
});
