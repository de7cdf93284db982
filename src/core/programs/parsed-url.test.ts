import assert from "node:assert/strict";
import { test } from "node:test";
import fc from "fast-check";
import { parseUrl } from "./parsed-url.ts";

test("an address is taken apart as a URL parser does, however it is written", () => {
  const part = fc.oneof(
    fc.string({
      unit: fc.constantFrom(..."abz09-._~%+;:@,!'()*$ &=#?/\\|[]{}\"<>`^".split("")),
      maxLength: 12,
    }),
    fc.constantFrom(
      ".",
      "..",
      "%2e",
      "%2E%2e",
      "./",
      "ä",
      "%C3%A4",
      "%ff",
      "\t",
      "+",
      "a=b",
      "&&",
      "=",
      "to=%2Fx",
    ),
  );
  const host = fc.constantFrom(
    "go.network.example",
    "GO.network.example",
    "go.network.example:8080",
    "go.network.example:443",
    "go.network.example:80",
    "go.network.example:0080",
    "bücher.example",
    "192.0.2.7",
  );
  const address = fc
    .tuple(
      fc.constantFrom("https://", "http://", "HTTPS://"),
      host,
      fc.array(part, { maxLength: 4 }),
      fc.option(fc.array(part, { maxLength: 5 })),
      fc.option(part),
    )
    .map(
      ([scheme, at, path, query, hash]) =>
        `${scheme}${at}${path.map((one) => `/${one}`).join("")}${query ? `?${query.join("&")}` : ""}${hash === null ? "" : `#${hash}`}`,
    )
    .filter((text) => URL.canParse(text));
  fc.assert(
    fc.property(address, part, (text, name) => {
      const url = new URL(text);
      const apart = parseUrl(text);
      const segments = url.pathname === "/" ? [] : url.pathname.slice(1).split("/");
      assert.equal(apart.host, url.host);
      assert.deepEqual(apart.segments.map(same), segments.map(same));
      for (const asked of [name, "a", "to", "", ...url.searchParams.keys()])
        assert.equal(apart.parameter(asked), url.searchParams.get(asked), asked);
    }),
    { numRuns: 2_000 },
  );
});

// What a parser encodes and what it leaves is read decoded.
function same(segment: string): string {
  return segment.replace(/%([\da-f]{2})/gi, (_whole, code: string) =>
    String.fromCharCode(parseInt(code, 16)),
  );
}
