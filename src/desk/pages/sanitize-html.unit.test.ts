import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { bodyToHtml } from "../../core/pages/body/to-html.ts";
import { sanitizeHtml } from "./sanitize-html.ts";

describe("HTML from outside is taken into a body", () => {
  const cases: readonly (readonly [html: string, kept: string, dropped: readonly string[]])[] = [
    ["<p>plain</p>", "<p>plain</p>", []],
    ["loose words", "<p>loose words</p>", []],
    ["<h1>Title</h1><h5>Small</h5>", "<h2>Title</h2><h4>Small</h4>", []],
    ["<p><b>b</b> <i>i</i></p>", "<p><strong>b</strong> <em>i</em></p>", []],
    ["<p>a<script>alert(1)</script>b</p>", "<p>ab</p>", ["the element <script>"]],
    ["<style>p{}</style><p>a</p>", "<p>a</p>", ["the element <style>"]],
    ['<p onclick="x()">a</p>', "<p>a</p>", ["the attribute onclick on <p>"]],
    [
      '<p>a <a href="javascript:alert(1)">b</a></p>',
      "<p>a b</p>",
      ["the address “javascript:alert(1)” on <a>"],
    ],
    [
      '<p>a <a href=" jav&#x09;ascript:alert(1)">b</a></p>',
      "<p>a b</p>",
      ["the address “ jav\tascript:alert(1)” on <a>"],
    ],
    ['<p>a <a href="data:text/html,x">b</a></p>', "<p>a b</p>", ["the address “data:text/html,x” on <a>"]],
    ['<p><img src="x.png" onerror="alert(1)"></p>', "", ["the attribute onerror on <img>"]],
    ['<iframe src="https://evil.example/"></iframe><p>a</p>', "<p>a</p>", ["the element <iframe>"]],
    ["<svg><script>alert(1)</script></svg><p>a</p>", "<p>a</p>", ["the element <svg>"]],
    ["<p>a<form><input name=x></form>b</p>", "", ["the element <form>", "the element <input>"]],
    ['<p><font color="red">a</font> <font>b</font></p>', "<p>a b</p>", ["the element <font> (2 times)"]],
    ["<div><section><span>a</span></section></div>", "<p>a</p>", []],
    ['<p><a href="http://https://s.example/ ">a</a></p>', '<p><a href="https://s.example/">a</a></p>', []],
    [
      '<p><a href="https://s.example/A?b=1&amp;c">a</a></p>',
      '<p><a href="https://s.example/A?b=1&amp;c">a</a></p>',
      [],
    ],
    [
      '<p><a href="/a" rel="me" target="_top" title="t">a</a></p>',
      '<p><a href="/a" title="t" rel="me" target="_top">a</a></p>',
      [],
    ],
    [
      '<p><a href="/a" data-override="nofollow=off target=same">a</a></p>',
      '<p><a href="/a" data-override="nofollow=off target=same">a</a></p>',
      [],
    ],
    [
      '<p><a href="/a" data-override="me=maybe">a</a></p>',
      '<p><a href="/a">a</a></p>',
      ["the override “me=maybe”, which says nothing known"],
    ],
    ["<p>never <strong>closed", "<p>never <strong>closed</strong></p>", []],
    ["<p>مرحبا e\u0301 🔭</p>", "<p>مرحبا e\u0301 🔭</p>", []],
    ["", "<p></p>", []],
  ];
  for (const [html, kept, dropped] of cases) {
    test(html || "nothing at all", () => {
      const taken = sanitizeHtml(html);
      if (kept) assert.equal(bodyToHtml(taken.body), kept);
      assert.doesNotMatch(bodyToHtml(taken.body), /script|onerror|onclick|iframe|javascript:/i);
      assert.deepEqual(taken.dropped, dropped);
    });
  }

  test("nesting a thousand deep does not hang or fail", () => {
    const deep = `${"<blockquote>".repeat(1000)}<p>deep</p>${"</blockquote>".repeat(1000)}`;
    assert.match(bodyToHtml(sanitizeHtml(deep).body), /deep/);
  });

  test("taking what was taken changes nothing", () => {
    const html =
      '<h2>A</h2><p>b <a href="https://s.example/?x=1&amp;y" rel="nofollow" data-override="ugc=on">c <strong>d</strong></a></p><ul><li><p>e</p></li></ul>';
    const once = bodyToHtml(sanitizeHtml(html).body);
    assert.equal(once, html);
    assert.equal(bodyToHtml(sanitizeHtml(once).body), once);
  });
});

describe("nothing that acts gets through", () => {
  // Each is a way in which markup has been made to run, or to fetch, where it should only be read.
  const tricks: readonly string[] = [
    "<script>alert(1)</script>",
    "<scr<script>ipt>alert(1)</script>",
    "<SCRIPT SRC=//away.example/x.js></SCRIPT>",
    "<img src=x onerror=alert(1)>",
    '<img src="javascript:alert(1)">',
    "<img src='data:image/svg+xml,<svg onload=alert(1)>'>",
    "<svg onload=alert(1)>",
    "<svg><script>alert(1)</script></svg>",
    '<svg><a xlink:href="javascript:alert(1)"><text>x</text></a></svg>',
    "<math><mtext><table><mglyph><style><img src=x onerror=alert(1)>",
    '<a href="javascript:alert(1)">x</a>',
    '<a href="jAvAsCrIpT:alert(1)">x</a>',
    '<a href=" &#14; javascript:alert(1)">x</a>',
    '<a href="java\tscript:alert(1)">x</a>',
    '<a href="&#106;avascript:alert(1)">x</a>',
    '<a href="vbscript:msgbox(1)">x</a>',
    '<a href="data:text/html,<script>alert(1)</script>">x</a>',
    '<iframe srcdoc="<script>alert(1)</script>"></iframe>',
    '<object data="javascript:alert(1)"></object>',
    '<embed src="javascript:alert(1)">',
    '<form action="javascript:alert(1)"><input type=submit></form>',
    '<button formaction="javascript:alert(1)">x</button>',
    '<base href="javascript:alert(1)//">',
    '<link rel=stylesheet href="javascript:alert(1)">',
    '<meta http-equiv="refresh" content="0;url=javascript:alert(1)">',
    '<p style="background:url(javascript:alert(1))">x</p>',
    "<style>@import 'javascript:alert(1)';</style>",
    '<details open ontoggle="alert(1)">x</details>',
    '<body onload="alert(1)">x</body>',
    '<noscript><p title="</noscript><img src=x onerror=alert(1)>">',
    "<textarea></textarea><img src=x onerror=alert(1)>",
    '<h2 id="x onclick=alert(1)">x</h2>',
    "<h2 id='\"><img src=x onerror=alert(1)>'>x</h2>",
    '<figure data-width="x&quot; onclick=alert(1)"><img src="/a.png" onload=alert(1)></figure>',
    "<template><img src=x onerror=alert(1)></template>",
    "<!--><img src=x onerror=alert(1)>-->",
    "<![CDATA[<img src=x onerror=alert(1)>]]>",
  ];
  for (const trick of tricks) {
    test(trick, () => {
      const html = bodyToHtml(sanitizeHtml(`<p>before</p>${trick}<p>after</p>`).body);
      const tags = html.replace(/"[^"]*"/g, '""').match(/<[^>]*>/g) ?? [];
      for (const tag of tags)
        assert.doesNotMatch(
          tag,
          /<(?:script|svg|iframe|object|embed|form|base|link|meta|style|math|template)|\son\w+=|\sstyle=/i,
        );
      assert.doesNotMatch(html, /(?:href|src)="\s*(?:javascript|vbscript|data):/i);
      assert.match(html, /before/);
    });
  }
});
