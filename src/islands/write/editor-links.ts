import { getMarkRange, type Editor } from "@tiptap/core";
import { TextSelection } from "@tiptap/pm/state";

/** The attributes of a link in the text, as the link mark holds them. */
export interface LinkAttributes {
  href: string;
  title: string | null;
  rel: string | null;
  target: string | null;
  override: string | null;
}

/** A place in the text that a link is made at or changed. `top` is where it stands in the column, in pixels. */
export interface LinkAt {
  from: number;
  to: number;
  words: string;
  link: LinkAttributes | undefined;
  /** An address that was handed over from the paste field. */
  address: string | undefined;
  top: number;
}

/** The link at the selection, or the marked words that are to become one; at a bare caret, nothing is marked yet. */
export function linkAtSelection(editor: Editor, column: HTMLElement | null, address?: string): LinkAt {
  const { state, view } = editor;
  const mark = state.schema.marks.link!;
  const range =
    getMarkRange(state.selection.$from, mark) ?? getMarkRange(state.doc.resolve(state.selection.to), mark);
  const { from, to } = range ?? state.selection;
  const link = range
    ? (state.doc.nodeAt(range.from)?.marks.find(({ type }) => type === mark)?.attrs as
        LinkAttributes | undefined)
    : undefined;
  const top = view.coordsAtPos(from).top - (column?.getBoundingClientRect().top ?? 0);
  return { from, to, words: state.doc.textBetween(from, to, " "), link, address, top };
}

/** Sets the link on its words; words that changed replace the old ones and keep their other marks. */
export function applyLink(editor: Editor, at: LinkAt, link: LinkAttributes & { words: string }): void {
  const { words, ...attributes } = link;
  editor
    .chain()
    .command(({ tr, state }) => {
      const mark = state.schema.marks.link!.create(attributes);
      let to = at.to;
      if (words !== at.words || at.from === at.to) {
        const others = state.doc
          .resolve(at.from + (at.from === at.to ? 0 : 1))
          .marks()
          .filter(({ type }) => type.name !== "link");
        tr.replaceWith(at.from, at.to, state.schema.text(words, others));
        to = at.from + words.length;
      }
      tr.removeMark(at.from, to, state.schema.marks.link);
      tr.addMark(at.from, to, mark);
      tr.setSelection(TextSelection.create(tr.doc, to));
      tr.removeStoredMark(state.schema.marks.link!);
      return true;
    })
    .run();
}

/** Takes the link off; the words stay. */
export function takeOffLink(editor: Editor, at: LinkAt): void {
  editor
    .chain()
    .command(({ tr, state }) => {
      tr.removeMark(at.from, at.to, state.schema.marks.link);
      return true;
    })
    .run();
}
