import assert from "node:assert/strict";
import { test } from "node:test";
import { lookedAt } from "./looked-at.ts";

const SEEN = `<meta charset="utf-8"><base href="https://there.example/a/page?x=1&amp;y=2">`;
const PAGES: [what: string, html: string, seen: string][] = [
  ["a page with a head", "<!doctype html><html><head><title>t</title></head>x", `<!doctype html><html><head>${SEEN}<title>t</title></head>x`],
  ["one whose head is left out", "<!DOCTYPE html>\n<p>x", `<!DOCTYPE html>${SEEN}\n<p>x`],
  ["what runs in it", "<head><script>1 > 0</script></head><p>a<iframe src=/x></iframe><object>o</object>b<noscript>n</noscript>", `<head>${SEEN}</head><p>ab`],
  ["something that is gone within another", "<head></head><noscript><iframe></iframe></noscript>x", `<head>${SEEN}</head>x`],
  ["what leads elsewhere", `<head><META HTTP-EQUIV=" Refresh" content="0;url=/y"><meta http-equiv="content-security-policy" content="a"><meta name=refresh></head>`, `<head>${SEEN}<meta name=refresh></head>`],
  ["nothing", "", SEEN],
]; // prettier-ignore
for (const [what, html, seen] of PAGES)
  test(`${what} is looked at without what runs`, () =>
    assert.equal(lookedAt(html, "https://there.example/a/page?x=1&y=2"), seen));

test("its addresses lead where its own base says", () => {
  const based = (href: string): string | undefined =>
    /<base href="([^"]*)">/.exec(
      lookedAt(`<head><base href="${href}"></head>`, "https://there.example/a/b"),
    )?.[1];
  assert.equal(based("/deep/"), "https://there.example/deep/");
  assert.equal(based("https://elsewhere.example/"), "https://elsewhere.example/");
  assert.equal(based("https://["), "https://there.example/a/b");
});
