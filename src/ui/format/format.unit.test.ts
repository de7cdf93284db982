import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { formatFor, localeOf } from "./format.ts";

const british = formatFor({ language: "en-GB", timeZone: "Europe/London" });
const german = formatFor({ language: "de-DE", timeZone: "Europe/Berlin" });

describe("numbers and money", () => {
  test("are written as the language has them", () => {
    assert.equal(british.count(1_234_567), "1,234,567");
    assert.equal(german.count(1_234_567), "1.234.567");
    assert.equal(british.percent(0.0312), "3.1 %");
    assert.equal(german.percent(0.0312), "3,1 %");
  });
  test("an amount has its currency’s sign and places", () => {
    assert.equal(british.money("1266", "EUR"), "€1,266.00");
    assert.equal(british.money("-5", "JPY"), "-¥5");
    assert.match(german.money("1266.5", "EUR"), /^1\.266,50\s€$/);
  });
  test("a size of a file is told by the thousand", () => {
    assert.deepEqual(
      [0, 999, 1_000, 1_500, 2_345_678, 5e12].map((size) => british.bytes(size)),
      ["0 B", "999 B", "1 kB", "1.5 kB", "2.3 MB", "5,000 GB"],
    );
  });
});

describe("moments", () => {
  const now = Date.parse("2026-11-28T12:00:00Z");
  test("of today are told by the minute, in the site’s time zone", () => {
    assert.equal(british.when("2026-11-28T09:05:00Z", now), "09:05");
    assert.equal(german.when("2026-11-28T09:05:00Z", now), "10:05");
  });
  test("whether it is today depends on where one is", () => {
    const late = "2026-11-27T23:30:00Z";
    assert.equal(british.when(late, now), "yesterday");
    assert.equal(german.when(late, now), "00:30");
  });
  test("within a week in days, before and after that as dates", () => {
    assert.equal(british.when("2026-11-22T12:00:00Z", now), "6 days ago");
    assert.equal(british.when("2026-11-21T12:00:00Z", now), "21 Nov 2026");
    assert.equal(british.when("2026-11-29T12:00:00Z", now), "29 Nov 2026");
  });
  test("over the change of clocks a day is a day", () => {
    const monday = Date.parse("2026-10-26T08:00:00Z");
    assert.equal(german.when("2026-10-24T21:59:00Z", monday), "vorgestern");
  });
});

test("a day without a time is the same day in every zone", () => {
  for (const timeZone of ["Pacific/Kiritimati", "Pacific/Pago_Pago"])
    assert.equal(formatFor({ language: "en-GB", timeZone }).day("2026-01-01"), "1 Jan 2026");
  assert.equal(british.day(new Date("2026-06-30T23:30:00Z")), "1 Jul 2026");
  assert.equal(british.shortDay("2026-03-09"), "9 Mar");
});

test("the locale of a page is its site's, as the frame writes it into the document", () => {
  assert.deepEqual(localeOf({ siteLanguage: "de-AT", siteTimeZone: "Europe/Vienna" }), {
    language: "de-AT",
    timeZone: "Europe/Vienna",
  });
  for (const data of [{}, { siteLanguage: "", siteTimeZone: "" }])
    assert.deepEqual(localeOf(data), { language: "en-GB", timeZone: undefined });
});
