import assert from "node:assert/strict";
import { describe, test } from "node:test";
import fc from "fast-check";
import { clickClass, deviceOf } from "./classify-request.ts";
import {
  CLICK_CLASSES,
  DEVICES,
  utcDay,
  type ClickRecord,
  type MissRecord,
  type SpoolRecord,
} from "./record.ts";
import { readSpoolLine, writeSpoolLine } from "./spool-line.ts";

const id = fc.bigInt({ min: 1n, max: 10n ** 17n }).map(String);
const text = fc.string({ unit: "grapheme", maxLength: 60 });
const at = fc.integer({ min: Date.UTC(2000, 0, 1), max: Date.UTC(2200, 0, 1) - 1 });
const record = fc.oneof(
  fc.record({
    kind: fc.constant("click" as const),
    at,
    route: id,
    class: fc.constantFrom(...CLICK_CLASSES),
    device: fc.constantFrom(...DEVICES),
    visitor: fc.stringMatching(/^[\w-]{22}$/),
    referrer: text,
    page: text,
  }),
  fc.record({
    kind: fc.constant("miss" as const),
    at,
    site: id,
    class: fc.constantFrom(...CLICK_CLASSES),
    host: text,
    key: text,
    referrer: text,
  }),
) as fc.Arbitrary<SpoolRecord>;

describe("a spool line", () => {
  test("is one line whatever the record holds, and is read back as it was written", () => {
    fc.assert(
      fc.property(record, (one) => {
        const line = writeSpoolLine(one as ClickRecord | MissRecord);
        assert.equal(line.indexOf("\n"), line.length - 1);
        const back = readSpoolLine(line.slice(0, -1));
        const tidy = (value: string): string => value.replace(/[\u0000-\u001F\u007F]+/g, " "); // eslint-disable-line no-control-regex
        const expected = Object.fromEntries(
          Object.entries(one).map(([key, value]) => [key, typeof value === "string" ? tidy(value) : value]),
        );
        assert.deepEqual(back, expected);
      }),
    );
  });

  test("that is torn or was never ours is not read", () => {
    const line = writeSpoolLine({
      kind: "click",
      at: 1_700_000_000_000,
      route: "7",
      class: "person",
      device: "phone",
      visitor: "v",
      referrer: "r",
      page: "/p",
    }).trimEnd();
    assert.ok(readSpoolLine(line));
    for (let cut = 0; cut < line.lastIndexOf("\t"); cut += 1)
      assert.equal(readSpoolLine(line.slice(0, cut)), undefined, line.slice(0, cut));
    for (const wrong of [
      "",
      "x",
      "c\t1700000000000\t7\tghost\tphone\tv\tr\tp",
      "c\t-1\t7\tperson\tphone\tv\tr\tp",
      "c\t1700000000000\tseven\tperson\tphone\tv\tr\tp",
      "m\t1700000000000\t7\tperson\thost\tkey",
      "c\t253402300800000\t7\tperson\tphone\tv\tr\tp",
      "c\t1\t7\tperson\tphone\tv\tr\tp",
      "l\t1700000000000\tmany",
      "c\t99999999999999999\t7\tperson\tphone\tv\tr\tp",
    ]) {
      assert.equal(readSpoolLine(wrong), undefined, wrong);
    }
  });

  test("keeps at most 1,024 characters of a text", () => {
    const line = writeSpoolLine({
      kind: "miss",
      at: 1,
      site: "1",
      class: "person",
      host: "h",
      key: "/".padEnd(9_000, "x"),
      referrer: "",
    });
    assert.ok(line.length < 1_200);
  });
});

describe("who is behind a request", () => {
  const cases: readonly (readonly [
    method: string,
    purpose: string | undefined,
    isBot: boolean,
    expected: string,
  ])[] = [
    ["GET", undefined, false, "person"],
    ["GET", undefined, true, "bot"],
    ["GET", "prefetch", false, "prefetch"],
    ["GET", "prefetch;prerender", false, "prefetch"],
    ["GET", "preview", true, "prefetch"],
    ["GET", "something else", false, "person"],
    ["HEAD", undefined, false, "head"],
    ["HEAD", "prefetch", true, "head"],
  ];
  for (const [method, purpose, isBot, expected] of cases) {
    test(`${method} ${purpose ?? "-"} ${isBot}`, () =>
      assert.equal(clickClass({ method, purpose, isBot }), expected));
  }

  const agents: readonly (readonly [agent: string, device: string])[] = [
    ["Mozilla/5.0 (X11; Linux x86_64) Gecko/20100101", "desktop"],
    ["Mozilla/5.0 (Windows NT 10.0; Win64; x64)", "desktop"],
    ["Mozilla/5.0 (iPhone; CPU iPhone OS 17_0 like Mac OS X) Mobile/15E148", "phone"],
    ["Mozilla/5.0 (Linux; Android 14; X) Mobile Safari/537.36", "phone"],
    ["Mozilla/5.0 (Linux; Android 14; X) Safari/537.36", "tablet"],
    ["Mozilla/5.0 (iPad; CPU OS 16_0 like Mac OS X)", "tablet"],
    ["curl/8.0", "other"],
    ["", "other"],
  ];
  for (const [agent, device] of agents)
    test(agent || "no user agent", () => assert.equal(deviceOf(agent), device));

  test("a day is the UTC day", () =>
    assert.equal(utcDay(Date.UTC(2026, 10, 23, 23, 59, 59, 999)), "2026-11-23"));
});
