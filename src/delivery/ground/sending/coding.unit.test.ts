import assert from "node:assert/strict";
import { test } from "node:test";
import { brotliDecompressSync, gunzipSync } from "node:zlib";
import { coded, codingFor, isWorthCoding } from "./coding.ts";

test("a reader gets the coding that they prefer, and none that they refuse", () => {
  for (const [accepted, wanted] of [
    [undefined, undefined],
    ["", undefined],
    ["gzip, deflate, br", "br"],
    ["gzip, deflate, br, zstd", "br"],
    ["br;q=0.5, gzip", "gzip"],
    ["gzip;q=0.9, br;q=0.9", "br"],
    ["*", "br"],
    ["*;q=0.1, br;q=0", "gzip"],
    ["identity", undefined],
    ["identity, gzip;q=0.5", undefined],
    ["gzip;q=0", undefined],
    ["deflate", undefined],
    ["GZIP", "gzip"],
    ["nonsense;;q=x", undefined],
  ] as const)
    assert.equal(
      codingFor({ headers: accepted === undefined ? {} : { "accept-encoding": accepted } }),
      wanted,
      accepted,
    );
});

test("each coding gives the same bytes back", async () => {
  const body = Buffer.from("A lantern on the lawn. ".repeat(500));
  const [br, gzip] = [await coded(body, "br"), await coded(body, "gzip")];
  assert.ok(brotliDecompressSync(br).equals(body));
  assert.ok(gunzipSync(gzip).equals(body));
  assert.ok(Math.max(br.length, gzip.length) < body.length / 10);
});

test("text is worth it, what is compressed as it is and what is small is not", () => {
  for (const type of [
    "text/html; charset=utf-8",
    "text/css",
    "image/svg+xml",
    "application/atom+xml",
    "application/json",
  ])
    assert.equal(isWorthCoding(type, 5_000), true, type);
  for (const type of ["image/png", "font/woff2", "application/zip", "application/pdf", "video/mp4"])
    assert.equal(isWorthCoding(type, 5_000), false, type);
  assert.equal(isWorthCoding("text/html", 200), false);
});
