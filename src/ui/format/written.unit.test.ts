import assert from "node:assert/strict";
import { afterEach, test } from "node:test";
import { drawIn, type ServerFrame } from "../frame/frame.ts";
import { count, when } from "./format.ts";
import { takeWritten, written } from "./written.ts";

const british = { siteLanguage: "en-GB", siteTimeZone: "Europe/London" };
const never = (): string => assert.fail("it was written again");

afterEach(() => {
  drawIn(() => undefined);
  takeWritten({});
});

test("what the server writes comes along, and the browser writes the rest itself", () => {
  const frame = { written: {}, data: british } as unknown as ServerFrame;
  drawIn(() => frame);
  assert.equal(count(1_234), "1,234");
  drawIn(() => undefined);
  takeWritten(frame.written);
  assert.equal(written("count 1234", never), "1,234");
  assert.equal(count(5_678), "5,678");
});

test("a frame has nothing of another's", () => {
  for (const name of ["one", "other"]) {
    const frame = { written: {}, data: british } as unknown as ServerFrame;
    drawIn(() => frame);
    assert.equal(
      written("name", () => name),
      name,
    );
  }
});

test("a moment of today is written anew when the hour is another", () => {
  const frame = { written: {}, data: british } as unknown as ServerFrame;
  drawIn(() => frame);
  const [at, late, next] = ["2026-11-30T22:10:00Z", "2026-11-30T23:40:00Z", "2026-12-01T00:10:00Z"];
  assert.equal(when(at, Date.parse(late)), "22:10");
  assert.equal(when(at, Date.parse(next)), "yesterday");
});
