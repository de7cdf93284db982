import assert from "node:assert/strict";
import { test } from "node:test";
import {
  isEmpty,
  keptChange,
  NOTHING_WRITTEN,
  over,
  requestText,
  writtenOut,
  writtenOver,
} from "./written-change.ts";

const BODY = '{"type":"doc","content":[{"type":"paragraph"}]}';

test("a request is the change with its text and version, whichever way the text waits", () => {
  const changes: Record<string, unknown>[] = [
    { title: "Lamps" },
    { body: () => BODY },
    { body: JSON.parse(BODY), title: "“Quoted” and {braced}" },
    { html: () => "<p>x</p>", path: "/x" },
    {},
  ];
  for (const change of changes) {
    const asked = JSON.parse(requestText(writtenOut(change), 7)) as Record<string, unknown>;
    const body = change.body === undefined ? {} : { body: JSON.parse(BODY) as unknown };
    const html = change.html === undefined ? {} : { html: "<p>x</p>" };
    assert.deepEqual(asked, { ...change, ...body, ...html, version: 7 });
  }
});

test("what is written later stands over what was on its way, and a text is a body or source but never both", () => {
  const texts: Record<string, unknown>[] = [
    {},
    { body: () => BODY },
    { body: { type: "doc" } },
    { html: () => "<p>" },
    { title: "a" },
  ];
  for (const before of texts)
    for (const later of texts) {
      const written = keptChange(writtenOver(writtenOut(before), writtenOut(later)));
      assert.deepEqual(written, keptChange(writtenOut(over(before, later))));
      assert.ok(!("body" in written && "html" in written));
    }
});

test("only a change that says nothing is empty", () => {
  assert.ok(isEmpty(NOTHING_WRITTEN) && isEmpty(writtenOut({})));
  for (const change of [{ body: () => BODY }, { html: () => "" }, { title: "" }])
    assert.ok(!isEmpty(writtenOut(change)));
});
