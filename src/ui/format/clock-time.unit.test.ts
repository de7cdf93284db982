import assert from "node:assert/strict";
import { test } from "node:test";
import fc from "fast-check";
import { clockTimeOf, instantOf, isClockTime } from "./clock-time.ts";

test("an instant is what the clocks of the zone show, in summer and in winter", () => {
  assert.equal(clockTimeOf("2026-07-01T12:00:00Z", "Europe/Vienna"), "2026-07-01T14:00");
  assert.equal(clockTimeOf("2026-12-01T12:00:00Z", "Europe/Vienna"), "2026-12-01T13:00");
  assert.equal(clockTimeOf("2026-12-31T23:30:00Z", "Pacific/Auckland"), "2027-01-01T12:30");
  assert.equal(clockTimeOf("2026-12-01T12:00:07Z", "UTC"), "2026-12-01T12:00:07");
  assert.equal(clockTimeOf(null, "UTC"), "");
});

test("and the other way round", () => {
  assert.equal(instantOf("2026-07-01T14:00", "Europe/Vienna"), "2026-07-01T12:00:00.000Z");
  assert.equal(instantOf("2026-12-01T08:15", "America/St_Johns"), "2026-12-01T11:45:00.000Z");
  // An hour that clocks leave out in spring is the one after it.
  assert.equal(instantOf("2026-03-29T02:30", "Europe/Vienna"), "2026-03-29T01:30:00.000Z");
});

test("without a zone they are the clocks of this machine", () => {
  const shown = clockTimeOf("2026-07-01T12:00:00Z", undefined);
  assert.equal(
    shown,
    clockTimeOf("2026-07-01T12:00:00Z", new Intl.DateTimeFormat().resolvedOptions().timeZone),
  );
  assert.equal(instantOf(shown, undefined), "2026-07-01T12:00:00.000Z");
});

test("what is no time of a clock stays as it was typed", () => {
  for (const typed of [
    "",
    "2026-02-30T10:00",
    "2026-11-23T",
    "T10:00",
    "3/11/2026T10:00",
    "2026-11-23T24:00",
  ]) {
    assert.equal(instantOf(typed, "UTC"), typed);
    assert.equal(isClockTime(typed), false, typed);
  }
  assert.equal(isClockTime("2026-11-23T23:59"), true);
});

test("there and back is the same second, whatever the zone", () => {
  const zones = ["UTC", "Asia/Kathmandu", "America/Caracas", "Pacific/Kiritimati", "Africa/Nairobi"];
  fc.assert(
    fc.property(
      fc.integer({ min: 946_684_800, max: 4_102_444_800 }),
      fc.constantFrom(...zones),
      (seconds, zone) => {
        const iso = new Date(seconds * 1000).toISOString();
        assert.equal(instantOf(clockTimeOf(iso, zone), zone), iso);
      },
    ),
  );
});
