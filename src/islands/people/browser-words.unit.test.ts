import assert from "node:assert/strict";
import { test } from "node:test";
import { browserWords } from "./browser-words.ts";

test("a browser is called by its name and its system, another program as it names itself", () => {
  assert.equal(
    browserWords("Mozilla/5.0 (X11; Linux x86_64; rv:130.0) Gecko/20100101 Firefox/130.0"),
    "Firefox on Linux",
  );
  assert.equal(browserWords("garden-script"), "garden-script");
  assert.equal(browserWords(""), "unknown browser");
  assert.equal(browserWords("x".repeat(200)).length, 40);
});
