import type { Editor } from "@tiptap/react";
import { Fragment, Node, Slice } from "@tiptap/pm/model";
import type { Transaction } from "@tiptap/pm/state";
import { diffArrays } from "diff";

/**
 * Puts another document in the place of the editor's, changing only what differs: places elsewhere in the text (the caret,
 * the words that a composer is open on) stay where they are. It is nobody's own change: undo passes it by, and goes on
 * taking back what was typed here.
 */
export function takeDocument(editor: Editor, body: object): void {
  const { state, view } = editor;
  const next = Node.fromJSON(state.schema, body);
  const tr = state.tr;
  replaceDiffering(tr, state.doc, next);
  if (!tr.docChanged) return;
  view.dispatch(tr.setMeta("addToHistory", false).setMeta("preventUpdate", true));
}

/** Changes a document into another one, block by block from the end, each where it differs. */
export function replaceDiffering(tr: Transaction, before: Node, after: Node): void {
  const [old, now] = [before, after].map((doc) => [...doc.content.content]) as [Node[], Node[]];
  const hunks = hunksOf(old, now);
  // From the end: what is changed behind a place does not move it.
  for (const { from, to, put } of hunks.reverse()) {
    const start = offsetOf(old, from);
    if (to - from === put.length) {
      for (let index = put.length - 1; index >= 0; index -= 1)
        replaceBlock(tr, offsetOf(old, from + index), old[from + index]!, put[index]!);
    } else {
      tr.replace(start, offsetOf(old, to), new Slice(Fragment.fromArray(put), 0, 0));
    }
  }
}

interface Hunk {
  from: number;
  to: number;
  put: Node[];
}

function hunksOf(old: readonly Node[], now: readonly Node[]): Hunk[] {
  const hunks: Hunk[] = [];
  let at = 0;
  let taken = 0;
  let open: Hunk | undefined;
  const parts = diffArrays([...old], [...now], { comparator: (a, b) => a.eq(b) });
  for (const { added, removed, count } of parts) {
    if (!added && !removed) {
      open = undefined;
      at += count;
      taken += count;
      continue;
    }
    if (!open) hunks.push((open = { from: at, to: at, put: [] }));
    if (removed) open.to = at += count;
    else open.put.push(...now.slice(taken, (taken += count)));
  }
  return hunks;
}

function offsetOf(blocks: readonly Node[], index: number): number {
  let offset = 0;
  for (let at = 0; at < index; at += 1) offset += blocks[at]!.nodeSize;
  return offset;
}

// Within a block of the same kind, only the words that differ.
function replaceBlock(tr: Transaction, start: number, old: Node, now: Node): void {
  const from = old.content.findDiffStart(now.content);
  if (!old.sameMarkup(now) || from === null) {
    tr.replaceWith(start, start + old.nodeSize, now);
    return;
  }
  const end = old.content.findDiffEnd(now.content)!;
  // Where the same letters are repeated, both searches may run over one another.
  const overlap = from - Math.min(end.a, end.b);
  const [a, b] = overlap > 0 ? [end.a + overlap, end.b + overlap] : [end.a, end.b];
  tr.replace(start + 1 + from, start + 1 + a, now.slice(from, b));
}
