import { readdirSync, readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { Random } from "./random.ts";

const data = join(dirname(createRequire(import.meta.url).resolve("html5/package.json")), "test/data");

/** The documents of the html5lib project's tests, as the registry's package html5 carries them. */
export function html5libDocuments(): string[] {
  return [...treeConstruction(), ...tokenizer()];
}

function treeConstruction(): string[] {
  const folder = join(data, "tree-construction");
  return readdirSync(folder)
    .filter((name) => name.endsWith(".dat"))
    .flatMap((name) =>
      readFileSync(join(folder, name), "utf8")
        .split(/^#data\n/m)
        .slice(1)
        .filter((test) => !test.includes("\n#document-fragment\n"))
        .map((test) => test.split(/\n#errors/)[0]!),
    );
}

interface TokenizerTest {
  input: string;
  initialStates?: string[];
  doubleEscaped?: boolean;
}

function tokenizer(): string[] {
  const folder = join(data, "tokenizer");
  return readdirSync(folder)
    .filter((name) => name.endsWith(".test"))
    .flatMap((name) => {
      const { tests } = JSON.parse(readFileSync(join(folder, name), "utf8")) as { tests?: TokenizerTest[] };
      return (tests ?? [])
        .filter(({ initialStates }) => initialStates === undefined || initialStates.includes("Data state"))
        .map(({ input, doubleEscaped }) => (doubleEscaped ? (JSON.parse(`"${input}"`) as string) : input));
    });
}

const NAMES =
  "a a a area b i p div span table tr td ul li h2 title textarea style script iframe noembed noframes noscript xmp svg svg math g path foreignObject desc mi annotation-xml template select option button form font image br img base x-y".split(
    " ",
  );
const ATTRIBUTES = [
  "href=/x",
  'href="https://a.example/?a&amp;b"',
  "HREF='/y'",
  "xlink:href=/z",
  "rel=me",
  "rel='x y'",
  "rel=",
  "REL",
  'rel=""',
  "target=_blank",
  "target",
  'target="_self"',
  "title=",
  'title="a>b"',
  "title='<a href=/no>'",
  "class=>",
  "/",
  "=",
  "'",
  '"',
  "x=y/",
  "color=red",
  "encoding=text/html",
  "data-override='ugc=on'",
  "alt",
  "id=a\"b'c",
  "on\u00e9=\u{1f98a}",
];
const BETWEEN = [" ", "", "  ", "\n", "/", "\t/ ", "\f", "\r\n", " / "];
const MARKUP = [
  "<!-- <a href=/c> -->",
  "<!-->",
  "<!--->",
  "<!--x--!>",
  "<!-- a -- b -->",
  "<!--",
  "<![CDATA[<a href=/d>]]>",
  "<![CDATA[",
  "]]>",
  "<?php <a href=/e> ?>",
  "<!doctype html>",
  "<!x>",
  "</>",
  "</ a>",
  "<",
  "<<",
  "< a href=/f>",
  "</script>",
  "</SCRIPT >",
  "<!--<script>",
  "<script><!--<script></script>",
  "text",
  "&lt;a href=/g&gt;",
  "\0",
  "\u{1f98a}",
  ">",
  "-->",
  "</svg>",
  "</math>",
  "</a>",
  "</p>",
  "</br>",
  "</title>",
  "</foreignObject>",
  "<svg/>",
  "<title/>",
  "<style/>",
  "<svg><title/>",
  "<math><mi/>",
  "<plaintext",
];

/** Documents as nobody should write them, the same for the same seed. */
export function* nastyDocuments(seed: number, count: number): Generator<string> {
  const random = new Random(seed);
  for (let at = 0; at < count; at += 1)
    yield Array.from({ length: 1 + random.below(14) }, () => piece(random)).join("");
}

function piece(random: Random): string {
  const kind = random.below(10);
  if (kind < 3) return random.one(MARKUP);
  if (kind < 5)
    return `</${cased(random, random.one(NAMES))}${random.below(5) === 0 ? random.one(BETWEEN) : ""}>`;
  const attributes = Array.from(
    { length: random.below(5) },
    () => random.one(BETWEEN) + random.one(ATTRIBUTES),
  );
  const end = random.below(8) === 0 ? "/>" : random.below(40) === 0 ? "" : ">";
  return `<${cased(random, random.one(NAMES))}${attributes.join("")}${random.one(BETWEEN)}${end}`;
}

function cased(random: Random, name: string): string {
  return random.below(6) === 0 ? name.toUpperCase() : name;
}
