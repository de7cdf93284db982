import assert from "node:assert/strict";
import { describe, test } from "node:test";
import fc from "fast-check";
import { isDay } from "./iso-day.ts";
import { dayPattern, firstDayOfWeek, readDay, writeDay } from "./typed-day.ts";

const LANGUAGES = [
  "en-GB",
  "en-US",
  "de",
  "fr-CA",
  "sv",
  "ja",
  "ko",
  "hu",
  "fa",
  "th",
  "ar",
  "zh-Hans",
  "fi",
  "hr",
];

describe("a day in figures", () => {
  for (const [language, written, pattern] of [
    ["en-GB", "03/12/2026", "dd/mm/yyyy"],
    ["en-US", "12/03/2026", "mm/dd/yyyy"],
    ["de", "03.12.2026", "dd.mm.yyyy"],
    ["sv", "2026-12-03", "yyyy-mm-dd"],
  ] as const)
    test(`is written ${written} in ${language}, and typed ${pattern}`, () => {
      assert.equal(writeDay("2026-12-03", language), written);
      assert.equal(dayPattern(language), pattern);
    });

  for (const [language, typed, day] of [
    ["en-GB", "3/12/2026", "2026-12-03"],
    ["en-US", "3/12/2026", "2026-03-12"],
    ["de", " 3. 12. 2026 ", "2026-12-03"],
    ["en-GB", "2026-12-03", "2026-12-03"],
    ["en-GB", "29-2-2028", "2028-02-29"],
    ["en-GB", "29/2/2026", undefined],
    ["en-GB", "31/11/2026", undefined],
    ["en-GB", "3/13/2026", undefined],
    ["en-GB", "3/12/26", undefined],
    ["en-GB", "3 December 2026", undefined],
    ["en-GB", "3/12", undefined],
    ["en-GB", "", undefined],
    ["en-GB", "0/1/2026", undefined],
  ] as const)
    test(`“${typed}” in ${language} is ${day ?? "no day"}`, () =>
      assert.equal(readDay(typed, language), day));

  test("is read again as it was written, in whatever language", () => {
    const days = fc.date({
      min: new Date("1970-01-01"),
      max: new Date("2099-12-31"),
      noInvalidDate: true,
    });
    fc.assert(
      fc.property(fc.constantFrom(...LANGUAGES), days, (language, date) => {
        const day = date.toISOString().slice(0, 10);
        assert.equal(readDay(writeDay(day, language), language), day, language);
      }),
    );
  });

  test("that is none stays as it was typed", () => assert.equal(writeDay("tomorrow", "en-GB"), "tomorrow"));
});

test("a week begins as the country has it", () => {
  assert.deepEqual(["en-GB", "en-US", "de", "ar-EG"].map(firstDayOfWeek), [1, 0, 1, 6]);
});

test("a day is one of the calendar", () => {
  assert.deepEqual(["2026-02-28", "2026-02-29", "2026-2-1", "", "2026-13-01"].map(isDay), [
    true,
    false,
    false,
    false,
    false,
  ]);
});
