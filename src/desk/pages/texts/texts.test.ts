import assert from "node:assert/strict";
import { after, before, test } from "node:test";
import { startTexts } from "./texts.ts";
import type { Texts } from "./read-text.ts";

let texts: Texts;
const reports: string[] = [];
const report = (message: string): void => void reports.push(message);
before(() => {
  texts = startTexts(report);
});
after(async () => {
  await texts.end();
  assert.deepEqual(reports, []);
});

test("what is read in the thread is what is read here", async () => {
  const html = `<p onclick="x">${"words ".repeat(2_000)}<a href="javascript:x">a</a></p>`;
  const { body, dropped } = await texts.read({ do: "take", html });
  assert.equal((body.content as object[]).length, 1);
  assert.deepEqual(dropped, ["the attribute onclick on <p>", "the address “javascript:x” on <a>"]);
  const file = await texts.read({ do: "file", name: "a.md", text: "# T\n\n[a](/b)" });
  assert.match(file.html, /<a href="\/b">a<\/a>/);
});

test("what is refused there is refused here, with its fields", async () => {
  await assert.rejects(texts.read({ do: "unpack", archive: new Uint8Array([1, 2, 3]) }), {
    status: 422,
    errors: [{ path: "file", message: "This is no zip archive that can be read; it may be damaged." }],
  });
});

test("what takes too long is given up, this thread has its turns meanwhile, and the next text is read", async () => {
  const hasty = startTexts(report, 150);
  try {
    let turns = 0;
    const turning = setInterval(() => (turns += 1), 5);
    const endless = hasty.read({ do: "take", html: "<p><b>x".repeat(400_000) });
    await assert.rejects(endless, { status: 422 });
    clearInterval(turning);
    assert.ok(turns > 3, `${turns} turns`);
  } finally {
    await hasty.end();
  }
  assert.ok(await texts.read({ do: "file", name: "b.md", text: "*b*" }));
});
