import assert from "node:assert/strict";
import { readFileSync } from "node:fs";
import { test } from "node:test";
import { globSync } from "tinyglobby";
import ts from "typescript";

const SPEAKING = new Set(["label", "aria-label", "hint", "title", "placeholder", "word", "legend", "alt"]);
const WORDS = /[A-Za-z]{2}/;
/** What is written, not said. */
const CODE = new Set(["code", "kbd"]);

/** The words that stand in a screen itself, as `line: words`. */
function saidIn(source: string): string[] {
  const file = ts.createSourceFile("screen.tsx", source, ts.ScriptTarget.Latest, true, ts.ScriptKind.TSX);
  const said: string[] = [];
  const tell = (node: ts.Node, words: string): void =>
    void said.push(`${file.getLineAndCharacterOfPosition(node.getStart(file)).line + 1}: ${words.trim()}`);
  const visit = (node: ts.Node): void => {
    if (ts.isJsxElement(node) && CODE.has(node.openingElement.tagName.getText(file))) return;
    if (ts.isJsxText(node) && WORDS.test(node.text)) tell(node, node.text);
    const { initializer } = ts.isJsxAttribute(node) ? node : {};
    if (ts.isJsxAttribute(node) && initializer && SPEAKING.has(node.name.getText(file))) {
      const value = ts.isJsxExpression(initializer) ? initializer.expression : initializer;
      if (value && ts.isStringLiteralLike(value) && / [a-z]|^[A-Z][a-z]/.test(value.text))
        tell(node, value.text);
    }
    ts.forEachChild(node, visit);
  };
  visit(file);
  return said;
}

test("what screens say stands in the words of their subject", () => {
  const files = globSync(["src/islands/**/*.tsx", "src/ui/**/*.tsx"]);
  assert.ok(files.length > 150, `${files.length} screens and parts`);
  const said = files.flatMap((name) => saidIn(readFileSync(name, "utf8")).map((words) => `${name}:${words}`));
  assert.deepEqual(said, []);
});

test("the titles of screens do, too", () => {
  const files = globSync(["src/pages/**/*.astro"], { ignore: ["src/pages/api/**"] });
  assert.ok(files.length > 25, `${files.length} pages`);
  const said = files.filter((name) => /<(?:Workspace|Head)\s[^>]*title="/.test(readFileSync(name, "utf8")));
  assert.deepEqual(said, []);
});

test("words between tags and in what is heard are told, code and names are not", () => {
  assert.deepEqual(saidIn(`const a = <p className="grid gap-2">Two words<code>maprope serve</code></p>;`), [
    "1: Two words",
  ]);
  assert.deepEqual(saidIn(`const a = <Field name="path" label="Path of the page" />;`), [
    "1: Path of the page",
  ]);
  assert.deepEqual(saidIn(`const a = <p>{say.twoWords} ({count})</p>;`), []);
});
