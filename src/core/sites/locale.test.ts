import assert from "node:assert/strict";
import { test } from "node:test";
import { directionOf, isCountry, isLanguage, isTimeZone } from "./locale.ts";
import { usualRoute } from "./usual-route.ts";

test("language tags are canonical and well-formed", () => {
  for (const tag of ["en-GB", "de", "pt-BR", "zh-Hans", "sr-Latn-RS"]) assert.ok(isLanguage(tag), tag);
  for (const tag of ["", "english", "en_GB", "en-gb", "e", "de-", "*"]) assert.ok(!isLanguage(tag), tag);
});

test("time zones are those of the IANA database, or nobody's", () => {
  for (const name of ["", "UTC", "Europe/London", "Asia/Kathmandu"]) assert.ok(isTimeZone(name), name);
  for (const name of ["London", "+01:00", "Europe/Nowhere", "Europe London", "../etc"])
    assert.ok(!isTimeZone(name), name);
});

test("a new route is as its site says, where the site says something for its kind", () => {
  const says = { shortStatus: 307, redirectStatus: 308, query: "merge", robots: { noindex: true } } as const;
  assert.deepEqual(usualRoute({}, "short"), { status: 302, query: "drop", noindex: false, nofollow: false });
  assert.deepEqual(usualRoute({}, "redirect"), {
    status: 301,
    query: "forward",
    noindex: false,
    nofollow: false,
  });
  assert.deepEqual(usualRoute(says, "short"), {
    status: 307,
    query: "merge",
    noindex: true,
    nofollow: false,
  });
  assert.deepEqual(usualRoute(says, "redirect"), {
    status: 308,
    query: "forward",
    noindex: false,
    nofollow: false,
  });
  assert.equal(usualRoute(says, "gone").status, 410);
});

test("a country is one that there is", () => {
  for (const code of ["GB", "DE", "AQ"]) assert.ok(isCountry(code), code);
  for (const code of ["", "ZZ", "QX", "gb", "GBR", "G", "1A"]) assert.ok(!isCountry(code), code);
});

test("a language is written from left or from right", () => {
  for (const language of ["en-GB", "de", "zh-Hans", "sr-Latn-RS"]) assert.equal(directionOf(language), "ltr");
  for (const language of ["ar", "he", "fa-IR", "ur"]) assert.equal(directionOf(language), "rtl");
});
