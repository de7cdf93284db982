import assert from "node:assert/strict";
import { readdirSync, readFileSync } from "node:fs";
import { describe, test } from "node:test";
import { isVectorPicture, vectorFault } from "./vector-picture.ts";

const OPEN =
  '<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 9 9">';
const svg = (inside: string): string => `${OPEN}${inside}</svg>`;

describe("an SVG that could do more than be looked at is refused", () => {
  const cases: readonly (readonly [says: string, text: string, fault: RegExp])[] = [
    [
      "a script under a prefix",
      `<x:svg xmlns:x="http://www.w3.org/2000/svg"><x:script>1</x:script></x:svg>`,
      /element <x:script>/,
    ],
    [
      "an element of HTML",
      svg('<h:script xmlns:h="http://www.w3.org/1999/xhtml">1</h:script>'),
      /element <h:script>/,
    ],
    [
      "a stylesheet from elsewhere",
      `<?xml version="1.0"?><?xml-stylesheet href="https://a.example/x.css"?>${svg("")}`,
      /processing instruction/,
    ],
    [
      "an import with an escape in it",
      svg("<style>@\\69mport 'https://a.example/x'</style>"),
      /style rule @import/,
    ],
    [
      "an import in a CDATA section",
      svg("<style><![CDATA[@import/**/url(x)]]></style>"),
      /style rule @import/,
    ],
    [
      "an address in a style's escape",
      svg('<rect style="fill: u\\72 l(https://a.example/x)"/>'),
      /value of style/,
    ],
    [
      "one that spaces hide",
      svg(`<rect fill="url(${" ".repeat(500)}https://a.example/x)"/>`),
      /value of fill/,
    ],
    ["animation that sets an address", svg('<set attributeName="href" to="javascript:1"/>'), /element <set>/],
    ["a handler in capitals", svg('<rect ONLOAD="1"/>'), /event handler ONLOAD/],
    ["a base of its own", svg('<g xml:base="https://a.example/"/>'), /attribute xml:base/],
    ["an entity of its own", `<!DOCTYPE svg [<!ENTITY a "b">]>${svg("&a;")}`, /entity declaration/],
    ["a document in an address", svg('<use xlink:href="data:image/svg+xml,x"/>'), /address/],
    ["an attribute that nobody knows", svg('<rect formaction="x"/>'), /attribute formaction/],
    ["what is no XML", svg("<rect>"), /no XML/],
    ["an image set", svg("<style>rect { background: image-set('x' 1x) }</style>"), /fetches/],
  ];
  for (const [says, text, fault] of cases) test(says, () => assert.match(vectorFault(text) ?? "none", fault));
});

describe("one that can only be looked at is taken", () => {
  const cases: readonly string[] = [
    svg(
      '<defs><linearGradient id="a"><stop offset="0" stop-color="red"/></linearGradient></defs><rect fill="url( #a )" style="stroke: url(\'#a\')"/>',
    ),
    svg('<use href="#a"/><style>@media print { rect { fill: url("#a") } } /* @import */</style>'),
    `<?xml version="1.0" encoding="UTF-8"?>\n<!-- drawn -->\n<!DOCTYPE svg PUBLIC "-//W3C//DTD SVG 1.1//EN" "http://www.w3.org/Graphics/SVG/1.1/DTD/svg11.dtd">\n${svg("<path d='M0 0'/>")}`,
    svg(
      '<metadata><r:RDF xmlns:r="http://www.w3.org/1999/02/22-rdf-syntax-ns#"/></metadata><g data-name="x" aria-label="y"/>',
    ),
  ];
  for (const text of cases)
    test(text.slice(0, 60), () => {
      assert.equal(isVectorPicture(text), true);
      assert.equal(vectorFault(text), undefined);
    });
  test("as are the demo's drawings", () => {
    for (const name of readdirSync("demo/pictures").filter((one) => one.endsWith(".svg")))
      assert.equal(vectorFault(readFileSync(`demo/pictures/${name}`, "utf8")), undefined, name);
  });
  test("HTML and text are none", () => {
    for (const text of ["<html><svg></svg></html>", "words <svg>", "", "<?xml", "<!-- <svg> -->"])
      assert.equal(isVectorPicture(text), false, text);
  });
});
