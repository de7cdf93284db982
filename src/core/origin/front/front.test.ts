import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { endToEnd, hasPassed, requestFields } from "./fields.ts";
import { holdsOurs, ourTag, rewritable, tagsForOrigin } from "./rewritable.ts";

const who = {
  address: "192.0.2.7",
  peer: "192.0.2.7",
  isBelieved: false,
  host: "a.example",
  isSecure: true,
  pseudonym: "us",
};
const field = (fields: readonly string[], name: string) =>
  fields[fields.findIndex((one, at) => at % 2 === 0 && one.toLowerCase() === name) + 1];

describe("fields that go on", () => {
  test("are those that are not the connection's, nor named by it", () => {
    assert.deepEqual(
      endToEnd([
        "Host",
        "a",
        "Connection",
        "close, X-One",
        "x-one",
        "1",
        "TE",
        "trailers",
        "Cookie",
        "a=1",
        "Cookie",
        "b",
      ]),
      ["Host", "a", "Cookie", "a=1", "Cookie", "b"],
    );
  });
  test("tell who asked: what a believed proxy said stays, what a reader wrote does not", () => {
    const sent = ["X-Forwarded-For", "9.9.9.9", "Forwarded", "for=9.9.9.9", "Via", "1.0 fred"];
    const plain = requestFields(sent, who);
    assert.deepEqual(
      [field(plain, "x-forwarded-for"), field(plain, "forwarded")],
      ["192.0.2.7", `for=192.0.2.7;host="a.example";proto=https`],
    );
    assert.equal(field(plain, "via"), "1.0 fred, 1.1 us");
    const believed = requestFields(sent, {
      ...who,
      isBelieved: true,
      address: "9.9.9.9",
      peer: "2001:db8::1",
    });
    assert.match(field(believed, "x-forwarded-for")!, /^\S.*, 2001:db8::1$/);
    assert.equal(
      field(believed, "forwarded"),
      `for=9.9.9.9, for="[2001:db8::1]";host="a.example";proto=https`,
    );
  });
  test("say whether a request has been here before", () => {
    assert.ok(hasPassed(["Via", "1.1 other, 1.1 us"], "us"));
    assert.ok(!hasPassed(["Via", "1.1 usual (us)"], "us"));
    assert.ok(!hasPassed([], "us"));
  });
});

describe("answers whose links are changed", () => {
  for (const [fields, coding] of [
    [["Content-Type", "text/html"], undefined],
    [["content-type", "Text/HTML; Charset=utf-8", "Content-Encoding", "GZIP"], "gzip"],
    [["Content-Type", "application/xhtml+xml", "Content-Encoding", "br"], "br"],
    [["Content-Type", "text/html;charset=Shift_JIS"], undefined],
  ] as const)
    test(fields.join(" "), () => assert.deepEqual(rewritable("GET", 200, fields), { coding }));
  for (const [method, status, fields] of [
    ["HEAD", 200, ["Content-Type", "text/html"]],
    ["POST", 200, ["Content-Type", "text/html"]],
    ["GET", 404, ["Content-Type", "text/html"]],
    ["GET", 206, ["Content-Type", "text/html"]],
    ["GET", 200, []],
    ["GET", 200, ["Content-Type", "text/htmlx"]],
    ["GET", 200, ["Content-Type", "text/plain"]],
    ["GET", 200, ["Content-Type", "text/html", "Content-Type", "text/plain"]],
    ["GET", 200, ["Content-Type", "text/html; charset=UTF-16"]],
    ["GET", 200, ["Content-Type", "text/html; charset=iso-2022-jp"]],
    ["GET", 200, ["Content-Type", "text/html", "Cache-Control", "public, No-Transform"]],
    ["GET", 200, ["Content-Type", "text/html", "Content-Encoding", "zstd"]],
    ["GET", 200, ["Content-Type", "text/html", "Content-Encoding", "gzip, br"]],
  ] as const)
    test(`not ${method} ${status} ${fields.join(" ")}`, () =>
      assert.equal(rewritable(method, status, fields), undefined));
});

describe("tags of pages that were changed", () => {
  test("are the origin's again while nothing has changed, and left out after that", () => {
    const tag = ourTag(`"v1"`, "s1");
    assert.equal(tag, `W/"v1~ms1"`);
    assert.equal(tagsForOrigin(`"x", ${tag}`, "s1"), `"x", W/"v1"`);
    assert.equal(tagsForOrigin(tag, "s2"), undefined);
    assert.equal(tagsForOrigin("*", "s2"), "*");
    assert.deepEqual(
      [holdsOurs(tag), holdsOurs(`"v1"`), ourTag(`W/"a~b"`, "s")],
      [true, false, `W/"a~b~ms"`],
    );
  });
});
