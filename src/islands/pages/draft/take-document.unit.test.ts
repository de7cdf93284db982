import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { history, undo } from "@tiptap/pm/history";
import type { Node } from "@tiptap/pm/model";
import { EditorState, type Transaction } from "@tiptap/pm/state";
import fc from "fast-check";
import { bodies } from "../../../../tests/support/bodies.ts";
import { bodyDocument } from "../../../core/pages/body/body.ts";
import { movedAlong, type LinkAt } from "../compose/editor-links.ts";
import { replaceDiffering } from "./take-document.ts";
import { writtenBody } from "./written-body.ts";

const document = (...paragraphs: string[]): Node =>
  bodyDocument({
    type: "doc",
    content: paragraphs.map((text) => ({ type: "paragraph", content: text ? [{ type: "text", text }] : [] })),
  });
const stateOf = (doc: Node): EditorState => EditorState.create({ doc, plugins: [history()] });

/** Where these words stand, as a composer is opened on them. */
function placeOf(doc: Node, words: string): LinkAt {
  let from = -1;
  doc.descendants((node, position) => {
    const at = node.isText ? node.text!.indexOf(words) : -1;
    if (at !== -1 && from === -1) from = position + at;
  });
  assert.notEqual(from, -1);
  return {
    from,
    to: from + words.length,
    words,
    link: undefined,
    picture: false,
    address: undefined,
    top: 0,
  };
}
const takes = (state: EditorState, next: Node): Transaction => {
  const { tr } = state;
  replaceDiffering(tr, state.doc, next);
  return tr.setMeta("addToHistory", false);
};

describe("somebody else's version takes the place of the text", () => {
  test("whatever the two are, it is theirs afterwards", () => {
    fc.assert(
      fc.property(bodies, bodies, (before, after) => {
        const next = bodyDocument(after);
        assert.ok(takes(stateOf(bodyDocument(before)), next).doc.eq(next));
      }),
      { numRuns: 300 },
    );
  });

  test("words that they left alone keep the place that a composer is open on, also between two changes", () => {
    const state = stateOf(document("The first", "Read about red torches here", "The last"));
    const at = placeOf(state.doc, "red torches");
    const tr = takes(
      state,
      document("The very first", "New between", "Read about red torches here", "The last of all"),
    );
    const moved = movedAlong(at, tr);
    assert.equal(moved.gone, undefined);
    assert.equal(tr.doc.textBetween(moved.from, moved.to), "red torches");
  });

  test("undo takes back one's own typing and leaves theirs", () => {
    let state = stateOf(document("One", "Two"));
    state = state.apply(state.tr.insertText(" mine", 4));
    state = state.apply(takes(state, document("One mine", "Two, and theirs")));
    undo(state, (tr) => (state = state.apply(tr)));
    assert.equal(state.doc.textBetween(0, state.doc.content.size, "|"), "One|Two, and theirs");
    assert.equal(undo(state), false, "nothing of theirs is left to be taken back");
  });
});

describe("a composer's place", () => {
  const state = stateOf(document("Read about red torches with Tobias"));
  const at = placeOf(state.doc, "red torches");
  const after = (change: (tr: Transaction) => Transaction): string | undefined => {
    const tr = change(state.tr);
    const moved = movedAlong(at, tr);
    return moved.gone ? undefined : tr.doc.textBetween(moved.from, moved.to);
  };
  const cases: readonly (readonly [
    says: string,
    change: (tr: Transaction) => Transaction,
    words: string | undefined,
  ])[] = [
    ["typing before it", (tr) => tr.insertText("Please r", 1, 2), "red torches"],
    ["typing at its front", (tr) => tr.insertText("the ", at.from), "red torches"],
    ["typing at its end", (tr) => tr.insertText("!", at.to), "red torches"],
    ["typing inside", (tr) => tr.insertText(" hot", at.from + 3), "red hot torches"],
    ["its first word deleted", (tr) => tr.delete(at.from, at.from + 4), "torches"],
    ["all of it deleted", (tr) => tr.delete(at.from, at.to), undefined],
    ["more than it deleted", (tr) => tr.delete(at.from - 3, at.to + 3), undefined],
    ["its paragraph cut in two within it", (tr) => tr.split(at.from + 4), undefined],
    ["its paragraph cut in two before it", (tr) => tr.split(at.from), "red torches"],
  ];
  for (const [says, change, words] of cases)
    test(`${says}: ${words ?? "gone"}`, () => assert.equal(after(change), words));
  test("what is gone stays gone", () => {
    const gone = movedAlong(at, state.tr.delete(at.from, at.to));
    assert.equal(movedAlong(gone, state.tr.insertText("red torches", at.from)).gone, true);
  });
});

test("a document is written as JSON, block by block, as it is", () => {
  fc.assert(
    fc.property(bodies, (body) => {
      const doc = bodyDocument(body);
      assert.deepEqual(JSON.parse(writtenBody(doc)), JSON.parse(JSON.stringify(doc.toJSON())));
      assert.equal(writtenBody(doc), writtenBody(doc));
    }),
    { numRuns: 100 },
  );
});
