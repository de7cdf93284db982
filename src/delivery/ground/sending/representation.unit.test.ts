import assert from "node:assert/strict";
import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { after, before, describe, test } from "node:test";
import { brotliDecompressSync } from "node:zlib";
import { ask } from "../../../../tests/support/ask.ts";
import { representationOf, sendRepresentation, type Representation } from "./representation.ts";

const NOON = Date.UTC(2026, 10, 1, 12);
const PAGE = representationOf("text/html; charset=utf-8", Buffer.from("<p>Moss</p>".repeat(300)), NOON);
const FILE = representationOf("text/plain", Buffer.from("0123456789".repeat(200)), NOON);
const EMPTY = representationOf("text/plain", Buffer.alloc(0), NOON);
const shown: Record<string, [Representation, boolean]> = {
  "/page": [PAGE, false],
  "/file": [FILE, true],
  "/empty": [EMPTY, true],
};
const server = createServer((request, response) => {
  const fresh = representationOf("text/plain", Buffer.from("now"), Date.now());
  const [representation, inParts] = shown[request.url!] ?? [fresh, false];
  void sendRepresentation({ request, response }, representation, {
    headers: ["Cache-Control", "no-cache"],
    inParts,
  });
});
let port = 0;
before(async () => {
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  port = (server.address() as AddressInfo).port;
});
after(() => server.close());

const get = (path: string, headers: Record<string, string> = {}, method = "GET") =>
  ask(port, path, { method, headers });

describe("conditional requests", () => {
  test("who has it already is told so, in whatever way they ask", async () => {
    const { headers } = await get("/page");
    const tag = String(headers.etag);
    assert.equal(headers["last-modified"], "Sun, 01 Nov 2026 12:00:00 GMT");
    for (const condition of [
      { "If-None-Match": tag },
      { "If-None-Match": `W/${tag}` },
      { "If-None-Match": `"other", ${tag}` },
      { "If-None-Match": "*" },
      { "If-Modified-Since": "Sun, 01 Nov 2026 12:00:00 GMT" },
      { "If-Modified-Since": "Mon, 02 Nov 2026 00:00:00 GMT" },
    ] as Record<string, string>[]) {
      const answer = await get("/page", condition);
      assert.deepEqual([answer.status, answer.body], [304, ""], JSON.stringify(condition));
      assert.deepEqual(
        [answer.headers.etag, answer.headers["cache-control"], answer.headers.vary],
        [tag, "no-cache", "Accept-Encoding"],
      );
    }
    for (const condition of [
      { "If-None-Match": '"other"' },
      { "If-Modified-Since": "Sun, 01 Nov 2026 11:59:59 GMT" },
      { "If-Modified-Since": "no date" },
      // A tag that does not fit decides, whatever the date says (section 13.1.3).
      { "If-None-Match": '"other"', "If-Modified-Since": "Mon, 02 Nov 2026 00:00:00 GMT" },
    ] as Record<string, string>[])
      assert.equal((await get("/page", condition)).status, 200, JSON.stringify(condition));
  });

  test("what came to be this second has no date yet", async () => {
    assert.equal((await get("/now")).headers["last-modified"], undefined);
  });

  test("HEAD is GET without the body", async () => {
    const [whole, head] = [await get("/page"), await get("/page", {}, "HEAD")];
    assert.equal(head.body, "");
    assert.deepEqual({ ...head.headers, date: "" }, { ...whole.headers, date: "" });
  });
});

describe("codings", () => {
  test("each has its own tag, and is found again by it", async () => {
    const raw = await fetch(`http://127.0.0.1:${port}/page`, { headers: { "Accept-Encoding": "br" } });
    assert.equal(raw.headers.get("content-encoding"), "br");
    assert.equal(raw.headers.get("vary"), "Accept-Encoding");
    assert.equal(await raw.text(), String(PAGE.body));
    const plain = await get("/page");
    assert.equal(plain.headers["content-encoding"], undefined);
    assert.notEqual(raw.headers.get("etag"), plain.headers.etag);
    const again = await get("/page", { "Accept-Encoding": "br", "If-None-Match": raw.headers.get("etag")! });
    assert.equal(again.status, 304);
    assert.ok(brotliDecompressSync(await PAGE.coded.get("br")!).equals(PAGE.body), "and is kept");
  });
});

describe("parts (RFC 9110, section 14)", () => {
  const size = FILE.body.length;
  for (const [range, wanted] of [
    ["bytes=0-0", [0, 0]],
    ["bytes=5-9", [5, 9]],
    ["bytes=1990-", [1990, size - 1]],
    ["bytes=-3", [size - 3, size - 1]],
    ["bytes=1990-99999", [1990, size - 1]],
    ["bytes=0-4,5-9", [0, 9]],
  ] as const)
    test(`${range} is answered with that part`, async () => {
      const { status, body, headers } = await get("/file", { Range: range });
      const [start, end] = wanted;
      assert.deepEqual(
        [status, headers["content-range"], headers["content-length"], body],
        [
          206,
          `bytes ${start}-${end}/${size}`,
          String(end - start + 1),
          String(FILE.body.subarray(start, end + 1)),
        ],
      );
    });
  for (const range of [`bytes=${size}-`, "bytes=9999-99999"])
    test(`${range} is nowhere`, async () => {
      const { status, body, headers } = await get("/file", { Range: range });
      assert.deepEqual([status, headers["content-range"], body], [416, `bytes */${size}`, ""]);
    });
  for (const range of ["bytes=5-2", "lines=1-2", "bytes", "bytes=a-b", "bytes=0-1,100-101"])
    test(`${range}: the whole is sent`, async () => {
      const { status, body } = await get("/file", { Range: range });
      assert.deepEqual([status, body.length], [200, size]);
    });

  test("an empty file has no parts", async () => {
    assert.equal((await get("/empty", { Range: "bytes=0-" })).status, 416);
    assert.equal((await get("/empty")).status, 200);
  });

  test("a part fits only to the rest that a reader has", async () => {
    const { headers } = await get("/file");
    const Range = "bytes=0-3";
    for (const [condition, status] of [
      [String(headers.etag), 206],
      [String(headers["last-modified"]), 206],
      [`W/${String(headers.etag)}`, 200],
      ['"other"', 200],
      ["Mon, 02 Nov 2026 00:00:00 GMT", 200],
    ] as const)
      assert.equal((await get("/file", { Range, "If-Range": condition })).status, status, condition);
    assert.equal(headers["accept-ranges"], "bytes");
    assert.equal((await get("/page", { Range })).status, 200, "a page is sent whole");
    assert.equal((await get("/file", { Range }, "HEAD")).status, 200, "HEAD has no parts (section 14.2)");
    const known = await get("/file", { Range, "If-None-Match": String(headers.etag) });
    assert.equal(known.status, 304, "a condition is looked at first (section 13.2.2)");
  });
});
