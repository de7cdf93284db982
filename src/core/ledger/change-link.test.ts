import assert from "node:assert/strict";
import { test } from "node:test";
import fc from "fast-check";
import { withHost, withParameter } from "../address/change-parts.ts";
import { changeLink } from "./change-link.ts";

const link = (href: string, override: string | null = null) => ({ href, address: href, override });

const hosts: [address: string, find: string, replace: string, expected: string][] = [
  ["https://a.example/x?y#z", "a.example", "b.example", "https://b.example/x?y#z"],
  ["HTTPS://A.example/X", "a.example", "b.example", "HTTPS://b.example/X"],
  ["//a.example", "a.example", "b.example", "//b.example"],
  ["https://c.example#?", "a.example", "b.example", "https://c.example#?"],
  [
    "https://a.example/x#y?z=https://a.example/",
    "a.example",
    "b.example",
    "https://b.example/x#y?z=https://a.example/",
  ],
  ["https://a.example:8080/x", "a.example", "b.example", "https://b.example:8080/x"],
  ["https://a.example:8080/x", "a.example:8080", "b.example", "https://b.example/x"],
  ["https://a.example:8080/x", "a.example", "b.example:9", "https://b.example:9/x"],
  ["http://a.example:4772/item/x", "http://a.example:4772/", "b.example", "http://b.example/item/x"],
  [
    "http://a.example:4772/item/x",
    "a.example:4772",
    "http://b.example:4773/",
    "http://b.example:4773/item/x",
  ],
  ["http://a.example/item/x?y", "a.example", "https://b.example/elsewhere?z", "https://b.example/item/x?y"],
  ["https://a.example./x", "a.example", "b.example", "https://b.example/x"],
  ["https://xn--mnchen-3ya.example/x", "münchen.example", "köln.example", "https://xn--kln-sna.example/x"],
  [
    "https://net.example/c/LL/?to=https%3A%2F%2Fa.example%2Fx%3Fy%3D1&s=b",
    "a.example",
    "b.example",
    "https://net.example/c/LL/?to=https%3A%2F%2Fb.example%2Fx%3Fy%3D1&s=b",
  ],
  [
    "https://net.example/c/LL/?to=https%3A%2F%2Fa.example%2Fx#top",
    "net.example",
    "other.example",
    "https://other.example/c/LL/?to=https%3A%2F%2Fa.example%2Fx#top",
  ],
  [
    "https://net.example/?to=https%3A%2F%2Fhop.example%2F%3Fu%3Dhttps%253A%252F%252Fa.example%252F",
    "a.example",
    "b.example",
    "https://net.example/?to=https%3A%2F%2Fhop.example%2F%3Fu%3Dhttps%253A%252F%252Fb.example%252F",
  ],
  [
    "https://net.example/?q=a.example&a+b=%20",
    "a.example",
    "b.example",
    "https://net.example/?q=a.example&a+b=%20",
  ],
  ["https://a.example/x", "a.example", "bad host", "https://a.example/x"],
  ["https://a.example/x", "", "b.example", "https://a.example/x"],
  ["https://sub.a.example/x", "a.example", "b.example", "https://sub.a.example/x"],
  ["/a.example/x", "a.example", "b.example", "/a.example/x"],
  ["mailto:x@a.example", "a.example", "b.example", "mailto:x@a.example"],
];
for (const [address, find, replace, expected] of hosts)
  test(`${find} becomes ${replace} in ${address}`, () =>
    assert.equal(withHost(address, find, replace), expected));

const parameters: [address: string, change: Parameters<typeof withParameter>[1], expected: string][] = [
  [
    "https://a.example/?a=1&tag=2&b=3#x",
    { name: "tag", value: "9", add: false },
    "https://a.example/?a=1&tag=9&b=3#x",
  ],
  ["https://a.example/?tag=1&tag=2", { name: "tag", value: "9", add: false }, "https://a.example/?tag=9"],
  ["https://a.example/?a=1&tag=2", { name: "tag", value: null, add: false }, "https://a.example/?a=1"],
  ["https://a.example/?tag=2#x", { name: "tag", value: null, add: false }, "https://a.example/#x"],
  [
    "https://a.example/?a=%20b&c",
    { name: "tag", value: "x y&z", add: true },
    "https://a.example/?a=%20b&c&tag=x%20y%26z",
  ],
  ["https://a.example/?a=1", { name: "tag", value: "9", add: false }, "https://a.example/?a=1"],
  ["https://a.example/?%74ag=1", { name: "tag", value: "9", add: false }, "https://a.example/?tag=9"],
  ["https://a.example/?100%=1", { name: "100%", value: "2", add: false }, "https://a.example/?100%25=2"],
  [
    "mailto:a@b.example?subject=x",
    { name: "subject", value: null, add: false },
    "mailto:a@b.example?subject=x",
  ],
];
for (const [address, change, expected] of parameters)
  test(`${change.name} ${change.value === null ? "is taken off" : `is ${change.value}`} in ${address}`, () =>
    assert.equal(withParameter(address, change), expected));

test("parameters that are not named keep their order and bytes", () => {
  const pair = fc.stringMatching(/^[a-s]{1,3}=[a-z%0-9+]{0,4}$/);
  fc.assert(
    fc.property(fc.array(pair, { maxLength: 6 }), fc.nat(6), (pairs, at) => {
      const place = Math.min(at, pairs.length);
      const address = (value: string): string =>
        `https://a.example/?${[...pairs.slice(0, place), `tag=${value}`, ...pairs.slice(place)].join("&")}`;
      assert.equal(withParameter(address("1"), { name: "tag", value: "2", add: false }), address("2"));
    }),
  );
});

test("overrides are set, cleared and kept in their one form", () => {
  const set = (override: string | null, switches: object) =>
    changeLink(link("/x", override), { do: "override", set: switches });
  assert.deepEqual(set(null, { sponsored: "on", target: "same" }), {
    href: "/x",
    override: "sponsored=on target=same",
  });
  assert.deepEqual(set("sponsored=on target=new", { target: "clear", nofollow: "off" }), {
    href: "/x",
    override: "nofollow=off sponsored=on",
  });
  assert.deepEqual(set("target=new", { target: "clear" }), { href: "/x", override: null });
  assert.equal(set("target=new  sponsored=on", { target: "new" }), undefined);
  assert.deepEqual(changeLink(link("/x", "target=new"), { do: "clear-overrides" }), {
    href: "/x",
    override: null,
  });
  assert.equal(changeLink(link("/x"), { do: "clear-overrides" }), undefined);
});

test("a destination is found however it is spelled, and what takes its place is repaired or refused", () => {
  const to = (href: string, find: string, replace: string) =>
    changeLink(link(href), { do: "destination", find, replace });
  assert.deepEqual(to("http://A.example/x/", "https://a.example/x", " https:/b.example "), {
    href: "https://b.example/",
    override: null,
  });
  assert.equal(to("https://a.example/y", "https://a.example/x", "https://b.example/"), undefined);
  assert.match(String(to("https://a.example/x", "https://a.example/x", "javascript:x()")), /./);
  assert.deepEqual(changeLink(link("https://a.example/"), { do: "shorten" }), undefined);
});
